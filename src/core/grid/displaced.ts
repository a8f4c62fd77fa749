import type { Moves, MovedFace } from '../project/moves-schema';
import { latticeOf, mixedFrom } from './lattice';
import type { NodeGrid } from './node-grid';

/** Whether moves that were found for a face are of a grid with as many steps. */
export const isOfSteps = ({ steps }: MovedFace, { across, up }: Pick<NodeGrid, 'across' | 'up'>): boolean =>
	steps[0] === across.steps && steps[1] === up.steps;

/**
 * How far the nodes of a grid are moved by clauses that are not muted (mm, flat x y z); null where they stay.
 *
 * ```ts
 * const offsets = offsetsOn('shell.skin', grid, zone.moves);
 * ```
 */
export function offsetsOn(
	address: string,
	grid: Pick<NodeGrid, 'columns' | 'rows' | 'across' | 'up'>,
	moves: readonly Moves[]
): Float64Array | null {
	let offsets: Float64Array | null = null;
	for (const { muted, faces } of moves) {
		const found = muted ? undefined : faces.find(({ face }) => face === address);
		if (!found || !isOfSteps(found, grid)) continue;
		offsets ??= new Float64Array(3 * grid.columns * grid.rows);
		const { nodes } = found;
		for (let k = 0; k + 4 < nodes.length; k += 5) {
			const [row, column] = [nodes[k]! - 1, nodes[k + 1]! - 1];
			if (!(row >= 0 && row < grid.rows && column >= 0 && column < grid.columns)) continue;
			const at = 3 * (row * grid.columns + column);
			for (let a = 0; a < 3; a++) offsets[at + a]! += nodes[k + 2 + a]!;
		}
	}
	return offsets;
}

/**
 * A grid with its nodes moved; those that patterns and trims made between them go with them.
 *
 * ```ts
 * const moved = displaced(grid, new Float64Array(3 * grid.columns * grid.rows).fill(1));
 * ```
 * @param offsets of the nodes of the grid itself (mm, flat x y z)
 */
export function displaced(grid: NodeGrid, offsets: Float64Array): NodeGrid {
	const positions = grid.positions.slice();
	for (let at = 0; at < offsets.length; at++) positions[at]! += offsets[at]!;
	for (let node = grid.columns * grid.rows; 3 * node < positions.length; node++) {
		const { nodes, shares } = mixedFrom(grid, ...latticeOf(grid, node));
		for (const [k, of] of nodes.entries())
			for (let a = 0; a < 3; a++) positions[3 * node + a]! += shares[k]! * offsets[3 * of + a]!;
	}
	return { ...grid, positions };
}

/**
 * Moves of the grid whose nodes lie in the middle of another's steps.
 *
 * ```ts
 * const offsets = shiftedOffsets(grid, grid, new Float64Array(3 * grid.columns * grid.rows));
 * ```
 * @param offsets of that one's nodes
 */
export function shiftedOffsets(grid: NodeGrid, shifted: NodeGrid, offsets: Float64Array): Float64Array {
	const own = new Float64Array(3 * shifted.columns * shifted.rows);
	for (let j = 0; j < shifted.rows; j++)
		for (let i = 0; i < shifted.columns; i++) {
			const { nodes, shares } = mixedFrom(grid, i + 0.5, j + 0.5);
			for (const [k, of] of nodes.entries())
				for (let a = 0; a < 3; a++)
					own[3 * (j * shifted.columns + i) + a]! += shares[k]! * offsets[3 * of + a]!;
		}
	return own;
}

/**
 * The coordinates of the nodes of a grid itself, added up (mm).
 *
 * ```ts
 * coordinateSum(grid.positions, grid.columns * grid.rows);
 * ```
 */
export function coordinateSum(positions: Float64Array, nodes: number): number {
	let sum = 0;
	for (let k = 0; k < 3 * nodes; k++) sum += positions[k]!;
	return Math.round(sum * 10) / 10;
}
