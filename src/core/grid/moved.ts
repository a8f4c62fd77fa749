import { latticeOf, mixedFrom } from './lattice';
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
	const own = grid.columns * grid.rows;
	const all = new Float64Array(own + grid.extraI.length);
	all.set(values.subarray(0, own));
	for (let node = own; node < all.length; node++) {
		const { nodes, shares } = mixedFrom(grid, ...latticeOf(grid, node));
		for (const [k, of] of nodes.entries()) all[node]! += shares[k]! * values[of]!;
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
