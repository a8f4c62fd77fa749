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

/** Sizes are the same within this (mm), and areas within it along the longest edge. */
const ALIKE = 1;

/** The cells with as many corners and the same sizes. */
export function alikeCells(zone: ZoneView, { face, index }: Found): CellsOfFaces {
	const own = zone.faces[face]!;
	const corners = own.cells.start[index + 1]! - own.cells.start[index]!;
	const { longestEdge, shortestEdge, area } = own.measures;
	const near = (a: number, b: number, within: number) => Math.abs(a - b) <= within;
	return filtered(zone, (f, c) => {
		const { cells, measures } = zone.faces[f]!;
		return (
			cells.start[c + 1]! - cells.start[c]! === corners &&
			near(measures.longestEdge[c]!, longestEdge[index]!, ALIKE) &&
			near(measures.shortestEdge[c]!, shortestEdge[index]!, ALIKE) &&
			near(measures.area[c]!, area[index]!, ALIKE * longestEdge[index]!)
		);
	});
}
