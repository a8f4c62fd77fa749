import { patchDefinition } from '$core/mass/imported';
import type { Form } from '$core/project/form-schema';
import type { ImportService } from '$lib/worker/import.worker';
import { proxy, transfer, wrap } from 'comlink';

/** Larger files are not read in a browser. */
const MOST_MEGABYTES = 150;

/** A reading that is under way. */
export interface Import {
	readonly form: Promise<Extract<Form, { kind: 'imported' }>>;
	cancel(): void;
}

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

/** Read the faces of a STEP or OBJ file in a thread of its own. The promise is refused with a sentence. */
export function importFaces(file: File, progress: (share: number) => void): Import {
	const worker = new Worker(new URL('../worker/import.worker.ts', import.meta.url), { type: 'module' });
	let giveUp = () => {};
	const cancelled = new Promise<never>((_, reject) => {
		giveUp = () => reject(new Error('given up'));
	});
	const read = async () => {
		if (file.size > MOST_MEGABYTES * 1e6)
			throw new Error(
				`it has ${Math.round(file.size / 1e6)} MB; files up to ${MOST_MEGABYTES} MB are read. Export only the faces that are needed`
			);
		const bytes = new Uint8Array(await file.arrayBuffer());
		const service = wrap<ImportService>(worker);
		const format = /\.obj$/i.test(file.name) ? 'obj' : 'step';
		const { faces, refused } = await service[format](transfer(bytes, [bytes.buffer]), proxy(progress));
		if (faces.length === 0) throw new Error(`none of its faces can be taken. ${refused[0] ?? ''}`);
		const names = namesOf(faces.map((face) => face.name));
		return {
			kind: 'imported' as const,
			source: file.name,
			scale: 1,
			up: 'z' as const,
			at: [0, 0, 0] as [number, number, number],
			faces: faces.map((face, k) => patchDefinition(names[k]!, face.surface, face)),
			refused: [...refused]
		};
	};
	const form = Promise.race([read(), cancelled]).finally(() => worker.terminate());
	return { form, cancel: giveUp };
}
