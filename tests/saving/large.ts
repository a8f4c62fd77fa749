import type { Form } from '../../src/core/project/form-schema';

/** An imported mass of one face so large that it lies in a file; a bilinear net over 8 by 4 m, bulging by so much. */
export function importedForm(bulge: number, count = 30): Extract<Form, { kind: 'imported' }> {
	const knots = [0, ...Array.from({ length: count }, (_, k) => k / (count - 1)), 1];
	const net: number[] = [];
	for (let i = 0; i < count; i++)
		for (let j = 0; j < count; j++) {
			const [u, v] = [i / (count - 1), j / (count - 1)];
			net.push(8000 * u, bulge * Math.sin(Math.PI * u) * Math.sin(Math.PI * v), 4000 * v, 1);
		}
	return {
		kind: 'imported',
		source: 'bulge.stp',
		scale: 1,
		up: 'z',
		at: [0, 0, 0],
		faces: [{ name: 'skin', degrees: [1, 1], knotsU: knots, knotsV: knots, net, ends: [], deviation: null }],
		refused: []
	};
}

export const importedMass = (id: string, bulge: number, count?: number) => ({
	id,
	name: `Mass ${id}`,
	form: importedForm(bulge, count)
});
