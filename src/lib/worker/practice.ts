import { DOCUMENT_FORMAT, DOCUMENT_VERSION, type Project } from '$core/project/schema';
import { newMass, newZone } from '$lib/edits/new-things';

/**
 * A project that nobody made: a thread that has nothing to do yet computes it, so that its programs have run before
 * somebody waits for them. Of each kind of work that stands between a document and its first cells it has some.
 */
export function practiceProject(): Project {
	const skin = newMass('lofted', []);
	skin.trims = [
		{
			by: 'outline',
			id: 'opening',
			face: 'skin',
			keep: 'outside',
			within: 1,
			outline: { shape: 'ellipse', width: 3000, depth: 2000 },
			at: [0, -20_000, 9000],
			turn: 0,
			direction: [0, 1, 0]
		}
	];
	const zone = {
		...newZone(skin.name, [{ mass: skin.id, face: 'skin' }], []),
		pattern: { kind: 'diamonds' as const },
		slivers: { under: 50_000, put: 'merge' as const },
		layer: { depth: '-900 mm', shifted: true }
	};
	return {
		format: DOCUMENT_FORMAT,
		version: DOCUMENT_VERSION,
		id: '00000000-0000-4000-8000-000000000000',
		name: 'Practice',
		display: 'mm',
		levels: [],
		masses: [skin],
		guides: [],
		tiles: [],
		zones: [zone],
		variants: [],
		materials: [],
		parts: []
	};
}
