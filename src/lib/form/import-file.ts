import { patchDefinition } from '$core/mass/imported';
import type { Form, PatchDefinition } from '$core/project/form-schema';
import { readInThread, type Reading } from '$lib/worker/read-in-thread';
import { proxy, transfer } from 'comlink';

export type Imported = Extract<Form, { kind: 'imported' }> & { faces: PatchDefinition[] };

/** Names that are given once; a face without one is counted. */
function namesOf(names: readonly string[]): string[] {
	const used = new Map<string, number>();
	return names.map((name, k) => {
		const base = (name.trim() || `face ${k + 1}`).slice(0, 60);
		const times = (used.get(base) ?? 0) + 1;
		used.set(base, times);
		return times === 1 ? base : `${base} ${times}`;
	});
}

/** Read the faces of a STEP, IFC or OBJ file in a thread of its own. The promise is refused with a sentence. */
export function importFaces(file: File, progress: (share: number) => void): Reading<Imported> {
	return readInThread(file, async (service, bytes) => {
		const format = /\.obj$/i.test(file.name) ? 'obj' : /\.ifc$/i.test(file.name) ? 'ifc' : 'step';
		const { faces, refused } = await service[format](transfer(bytes, [bytes.buffer]), proxy(progress));
		if (faces.length === 0) throw new Error(`none of its faces can be taken. ${refused[0] ?? ''}`);
		const names = namesOf(faces.map((face) => face.name));
		return {
			kind: 'imported',
			source: file.name,
			scale: 1,
			up: 'z',
			at: [0, 0, 0],
			faces: faces.map((face, k) => patchDefinition(names[k]!, face.surface, face)),
			refused: [...refused]
		};
	});
}
