import { cellsOfShape, shapeName } from '$lib/map/alike';
import type { Found } from '$lib/state/selection.svelte';
import type { ZoneView } from '$lib/state/model.svelte';

/** Cells of each face of a zone. */
export type CellsOfFaces = readonly (readonly number[])[];

const filtered = (zone: ZoneView, keep: (face: number, c: number) => boolean): CellsOfFaces =>
	zone.faces.map(({ cells }, f) =>
		Array.from({ length: cells.count }, (_, c) => c).filter((c) => keep(f, c))
	);

/** The cells of the same course or bay on the same face. */
export function cellsWhere(zone: ZoneView, { face, index }: Found, key: 'course' | 'bay'): CellsOfFaces {
	const numbers = zone.faces[face]!.cells[key];
	return filtered(zone, (f, c) => f === face && numbers[c] === numbers[index]);
}

/** The cells that the same rule took, or none did. */
export function cellsOfRule(zone: ZoneView, { face, index }: Found): CellsOfFaces {
	const rule = zone.assignments[face]?.rule[index];
	return filtered(zone, (f, c) => zone.assignments[f]?.rule[c] === rule);
}

/** The cells whose edges are as long, one after the other. */
export function alikeCells(zone: ZoneView, { face, index }: Found): CellsOfFaces {
	const wanted = shapeName(zone.faces[face]!, index);
	return zone.faces.map((one) => cellsOfShape(one, wanted));
}
