import type { PieceGroup } from '../cladding/pieces';
import type { Material } from '../project/material-schema';

/** How many plates of a material each piece has, by row; two stand for more. */
export function platesOf(
	{ run, ready, sites }: PieceGroup,
	isOf: (material: Material) => boolean
): Uint8Array {
	const plates = new Uint8Array(sites.length);
	for (const { element, row } of run.elements) {
		if (ready.elements[element]!.category !== 'plate' || !isOf(ready.materials[element]!)) continue;
		// Two are as many as more.
		for (let k = 0; k < row.length; k++) if (plates[row[k]!]! < 2) plates[row[k]!]!++;
	}
	return plates;
}
