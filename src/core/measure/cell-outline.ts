import { cross, dot, length, pointAt, scale, subtract, type Vector } from '../geometry/vector';
import type { NodeGrid } from '../grid/node-grid';
import { openingsIn, type Cells } from '../pattern/cells';
import type { CellMeasures } from './cell-measures';

/** A cell as it is seen from outside, with the way from the foot to the head up. */
export interface CellOutline {
	/** Its corners in its mean plane, mm to the right and up. */
	readonly corners: readonly (readonly [number, number])[];
	/** Those of the openings in it, each counter-clockwise. */
	readonly openings: readonly (readonly (readonly [number, number])[])[];
	/** Of the edge from each corner to the next (mm). */
	readonly lengths: readonly number[];
	/** Inside at each corner (rad); more than half a turn where it is re-entrant. */
	readonly angles: readonly number[];
}

/** The way up at a cell, in its mean plane. */
function upAt(
	cells: Cells,
	{ columns, rows, positions }: Pick<NodeGrid, 'columns' | 'rows' | 'positions'>,
	c: number,
	normal: Vector
): Vector {
	const [column, row] = [cells.bay[c]! - 1, cells.course[c]! - 1];
	const at = (r: number) => pointAt(positions, Math.min(rows - 1, Math.max(0, r)) * columns + column);
	const rise = subtract(at(row + 1), at(row - 1));
	const steep = subtract(rise, scale(normal, dot(rise, normal)));
	return scale(steep, 1 / (length(steep) || 1));
}

/**
 * One cell laid into its mean plane.
 *
 * ```ts
 * const { lengths, angles } = cellOutline(faceModel, 4);
 * ```
 */
export function cellOutline(
	{
		cells,
		grid,
		measures
	}: {
		readonly cells: Cells;
		readonly grid: Pick<NodeGrid, 'columns' | 'rows' | 'positions'>;
		readonly measures: Pick<CellMeasures, 'normal'>;
	},
	c: number
): CellOutline {
	const ringOf = (cell: number) =>
		Array.from(cells.corners.subarray(cells.start[cell]!, cells.start[cell + 1]!), (node) =>
			pointAt(grid.positions, node)
		);
	const points = ringOf(c);
	const n = points.length;
	const normal = pointAt(measures.normal, c);
	const up = upAt(cells, grid, c, normal);
	const right = cross(up, normal);
	const flat = (p: Vector) => [dot(p, right), dot(p, up)] as const;
	const corners = points.map(flat);
	const openings = Array.from(openingsIn(cells, c), (cell) => ringOf(cell).map(flat));
	const edges = points.map((p, k) => subtract(points[(k + 1) % n]!, p));
	const lengths = edges.map(length);
	const angles = edges.map((after, k) => {
		const before = (k + n - 1) % n;
		const back = scale(edges[before]!, -1);
		const size = lengths[before]! * lengths[k]! || 1;
		const angle = Math.acos(Math.min(1, Math.max(-1, dot(back, after) / size)));
		const [a, b, d] = [corners[before]!, corners[k]!, corners[(k + 1) % n]!];
		const turn = (b[0] - a[0]) * (d[1] - b[1]) - (b[1] - a[1]) * (d[0] - b[0]);
		return turn < 0 ? 2 * Math.PI - angle : angle;
	});
	return { corners, openings, lengths, angles };
}
