import { NO_CELL, type Edges } from './edges';

/**
 * Cells beside lines that run the other way once their nodes are moved: the grid has turned over there.
 *
 * ```ts
 * const moved = movedAlong(grid, new Float64Array(20).fill(-600));
 * const turned = foldedOver(grid.positions, moved.positions, edges); // none where it lies less deep than the face is round
 * ```
 */
export function foldedOver(
	before: Float64Array,
	after: Float64Array,
	{ count, from, to, left, right }: Edges
): number[] {
	const cells = new Set<number>();
	for (let e = 0; e < count; e++) {
		const [a, b] = [3 * from[e]!, 3 * to[e]!];
		let along = 0;
		for (let k = 0; k < 3; k++) along += (before[b + k]! - before[a + k]!) * (after[b + k]! - after[a + k]!);
		if (along < 0) for (const cell of [left[e]!, right[e]!]) if (cell !== NO_CELL) cells.add(cell);
	}
	return [...cells].sort((a, b) => a - b);
}
