import { cellKinds, type Cells } from '../pattern/cells';
import { edgeDirections, type Edges } from '../pattern/edges';

/** Addresses within a zone: they name a cell or a line for good, and never change with unrelated values. */
const two = (n: number) => String(n).padStart(2, '0');

/** `skin/C06/B20/1`: face, course, bay, slot. */
export function cellAddress(face: string, cells: Cells, c: number): string {
	return `${face}/C${two(cells.course[c]!)}/B${two(cells.bay[c]!)}/${cells.slot[c]}`;
}

/** `skin/C06/B20/rising`: the line that starts in a step; a second one of the same way is `rising-2`. */
export function edgeAddress(face: string, edges: Edges, e: number): string {
	const way = edgeDirections[edges.direction[e]!];
	const further = edges.ordinal[e] ? `-${edges.ordinal[e] + 1}` : '';
	return `${face}/C${two(edges.course[e]!)}/B${two(edges.bay[e]!)}/${way}${further}`;
}

export const kindOf = (cells: Cells, c: number) => cellKinds[cells.kind[c]!]!;
