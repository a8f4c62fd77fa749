import { readProject } from '$core/project/read';
import { DOCUMENT_FORMAT, DOCUMENT_VERSION, type Project } from '$core/project/schema';

const outline = (width: number) => ({ shape: 'ellipse', width, depth: width / 2 });
const section = (height: number, width: number, turn: number) => ({
	outline: outline(width),
	at: [0, 0],
	height,
	turn
});

/**
 * A project that nobody made: a thread that has nothing to do yet computes it, so that its programs have run before
 * somebody waits for them. Of the work that stands between a document and its first cells it has most kinds.
 * @param round another time it is another project, of which nothing is known
 */
export const practiceProject = (round = 0): Project =>
	readProject({
		format: DOCUMENT_FORMAT,
		version: DOCUMENT_VERSION,
		id: '00000000-0000-4000-8000-000000000000',
		name: 'Practice',
		masses: [
			{
				id: 'skin',
				name: 'Skin',
				form: {
					kind: 'lofted',
					sections: [section(0, 14_000, 0), section(9000, 10_000, 20), section(20_000, 12_000, 45)],
					between: 'smooth'
				},
				trims: [
					{
						by: 'outline',
						id: 'opening',
						face: 'skin',
						outline: outline(3000),
						at: [0, -20_000, 9000],
						direction: [0, 1, 0]
					}
				]
			}
		],
		zones: [
			{
				id: 'skin',
				code: 'S',
				name: 'Skin',
				faces: [{ mass: 'skin', face: 'skin' }],
				settingOut: { across: { by: 'count', count: 24 + 2 * round }, up: { by: 'count', count: 14 } },
				pattern: { kind: 'diamonds' },
				slivers: { under: 50_000, put: 'merge' },
				layer: { depth: '-900 mm', shifted: true }
			}
		]
	});
