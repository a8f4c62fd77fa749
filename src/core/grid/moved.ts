import { latticeOf } from './lattice';
import type { NodeGrid } from './node-grid';

/**
 * A value that the nodes of a grid have, at those too that patterns and trims made between them: mixed from the four
 * corners of their step.
 *
 * ```ts
 * const everywhere = atAllNodes(grid, new Float64Array(grid.columns * grid.rows).fill(-600));
 * ```
 * @param values one for each node of the grid itself
 */
export function atAllNodes(
	grid: Pick<NodeGrid, 'columns' | 'rows' | 'across' | 'up' | 'extraI' | 'extraJ'>,
	values: Float64Array
): Float64Array {
	const { columns, rows, across, up, extraI } = grid;
	const own = columns * rows;
	const all = new Float64Array(own + extraI.length);
	all.set(values.subarray(0, own));
	const held = (at: number, steps: number, closed: boolean) =>
		closed ? Math.floor(at) : Math.min(steps - 1, Math.max(0, Math.floor(at)));
	const at = (i: number, j: number) =>
		values[(((j % rows) + rows) % rows) * columns + (((i % columns) + columns) % columns)]!;
	for (let k = 0; k < extraI.length; k++) {
		const [x, y] = latticeOf(grid, own + k);
		const [i, j] = [held(x, across.steps, across.closed), held(y, up.steps, up.closed)];
		const [s, t] = [x - i, y - j];
		all[own + k] =
			(at(i, j) * (1 - s) + at(i + 1, j) * s) * (1 - t) + (at(i, j + 1) * (1 - s) + at(i + 1, j + 1) * s) * t;
	}
	return all;
}

/**
 * A grid with every node moved along its normal.
 *
 * ```ts
 * const behind = movedAlong(grid, new Float64Array(20).fill(-600));
 * ```
 * @param depth of every node, positive outward (mm)
 */
export function movedAlong(grid: NodeGrid, depth: Float64Array): NodeGrid {
	const { positions, normals } = grid;
	const moved = new Float64Array(positions.length);
	for (let node = 0; node < depth.length; node++)
		for (let a = 0; a < 3; a++)
			moved[3 * node + a] = positions[3 * node + a]! + depth[node]! * normals[3 * node + a]!;
	return { ...grid, positions: moved };
}
