/** Nodes that follow one another, and what they are read as: the points of chain k are start[k] .. start[k + 1]. */
export interface Chains {
	readonly start: Uint32Array;
	/** Their places in the grid. */
	readonly nodes: Uint32Array;
	/** Flat x y z (mm). */
	readonly positions: Float64Array;
}

export const NO_CHAINS: Chains = {
	start: new Uint32Array(1),
	nodes: new Uint32Array(0),
	positions: new Float64Array(0)
};

/**
 * Chains through nodes of a grid.
 *
 * ```ts
 * const { start } = chainsThrough([[0, 1, 2], [5, 6]], grid.positions); // 0, 3, 5
 * ```
 */
export function chainsThrough(lists: readonly (readonly number[])[], positions: Float64Array): Chains {
	const start = new Uint32Array(lists.length + 1);
	lists.forEach((list, k) => (start[k + 1] = start[k]! + list.length));
	const nodes = Uint32Array.from(lists.flat());
	const points = new Float64Array(3 * nodes.length);
	nodes.forEach((node, n) => points.set(positions.subarray(3 * node, 3 * node + 3), 3 * n));
	return { start, nodes, positions: points };
}
