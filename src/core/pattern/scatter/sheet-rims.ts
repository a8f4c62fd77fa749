import type { Place } from '../../geometry/polygon';
import { SAME_STEP } from '../../geometry/tolerance';
import { latticeOf } from '../../grid/lattice';
import type { NodeGrid } from '../../grid/node-grid';
import { outlineOf, type Cells } from '../cells';
import { toField, type FlatField } from './flat-field';

/** The slot of the sheets between scattered cells. */
export const SHEET = 1;

/** A corner of a sheet's rim: its node, and its place in the field (mm). */
export interface RimPlace {
	readonly node: number;
	readonly at: Place;
}

/** Where the rim of a sheet runs in the field, on the near side of seams. */
export function rimPlaces(grid: NodeGrid, cells: Cells, c: number, field: FlatField): RimPlace[] {
	const { columns, rows, across, up, poles } = grid;
	const { start, nodes } = outlineOf(cells);
	const [left, foot] = [cells.bay[c]! - 1, cells.course[c]! - 1];
	const onward = (t: number, from: number, count: number, closed: boolean) =>
		closed && t < from - SAME_STEP ? t + count : t;
	const ring = Array.from(nodes.subarray(start[c]!, start[c + 1]!), (node) => {
		const [i, j] = latticeOf(grid, node);
		const at: Place = [onward(i, left, columns, across.closed), onward(j, foot, rows, up.closed)];
		return { node, at };
	});
	const place = toField(field);
	return ring.flatMap(({ node, at }, k) => {
		if (!poles.includes(at[1])) return [{ node, at: place(at) }];
		// A pole stands for its whole row: the rim runs along it from the one side to the other.
		const [before, after] = [ring[(k + ring.length - 1) % ring.length]!, ring[(k + 1) % ring.length]!];
		return [before, after].map((beside) => ({ node, at: place([beside.at[0], at[1]]) }));
	});
}
