import { NO_CELL, edgeDirections, type Edges } from '../pattern/edges';
import type { LineKind, Run } from '../project/schema';

/**
 * What a line is for a run: an edge with one cell is a rim, whatever its direction.
 *
 * ```ts
 * if (lineKindOf(edges, 0) === 'rim') rims.push(0);
 * ```
 */
export function lineKindOf(edges: Edges, e: number, shared: Uint8Array | null = null): LineKind {
	const direction = edgeDirections[edges.direction[e]!]!;
	if (direction === 'trim') return 'rim';
	if (edges.right[e] === NO_CELL && !shared?.[e]) return 'rim';
	return direction === 'rising' || direction === 'falling' ? 'diagonal' : direction;
}

/**
 * The edges of each run: first match wins, so no edge is taken twice; one that is counted on another face is
 * not taken here. Muted runs take none.
 *
 * ```ts
 * const [ofFirst] = edgesOfRuns(zone.runs, edges);
 * ```
 */
export function edgesOfRuns(
	runs: readonly Run[],
	edges: Edges,
	shared: Uint8Array | null = null
): number[][] {
	if (!runs.length) return [];
	const taken = new Uint8Array(edges.count);
	if (shared) for (let e = 0; e < edges.count; e++) if (shared[e] === 2) taken[e] = 1;
	return runs.map((run) => {
		const found: number[] = [];
		if (!run.muted)
			for (let e = 0; e < edges.count; e++)
				if (!taken[e] && run.lines.includes(lineKindOf(edges, e, shared))) {
					taken[e] = 1;
					found.push(e);
				}
		return found;
	});
}
