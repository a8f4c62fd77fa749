import type { NodeGrid } from './node-grid';

/** Nodes that a walk comes by, in order. */
export interface Walk {
	readonly nodes: readonly number[];
	/** It came back to its first node, which is not repeated. */
	readonly closed: boolean;
}

/**
 * From node to node of a grid by so many bays and courses a step, until a rim, a node that is not there, or back to the
 * start.
 *
 * ```ts
 * const { nodes } = walkOn(grid, [0, 0], [1, 1]); // up and to the right, to the rim
 * ```
 * @param from the bay line and the course line of the first node, from 0 @param step bays to the right, courses up
 * @param most nodes
 */
export function walkOn(
	{ columns, rows, across, up, absent, poles }: NodeGrid,
	from: readonly [number, number],
	step: readonly [number, number],
	most = Infinity
): Walk {
	const nodes: number[] = [];
	const seen = new Set<number>();
	const along = (at: number, count: number, closed: boolean) =>
		closed ? ((at % count) + count) % count : at;
	let [i, j] = from;
	while (nodes.length < most) {
		i = along(i, columns, across.closed);
		j = along(j, rows, up.closed);
		if (i < 0 || i >= columns || j < 0 || j >= rows) break;
		const isPole = poles.includes(j);
		// One node stands for the whole of a pole.
		const node = j * columns + (isPole ? 0 : i);
		if (absent?.[node]) break;
		if (seen.has(node)) return { nodes, closed: node === nodes[0] && nodes.length > 2 };
		seen.add(node);
		nodes.push(node);
		if (isPole && nodes.length > 1) break;
		i += step[0];
		j += step[1];
	}
	return { nodes, closed: false };
}
