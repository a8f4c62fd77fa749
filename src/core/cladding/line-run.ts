import { NO_CELL, edgeDirections, type Edges } from '../pattern/edges';
import type { LineKind, Run } from '../project/schema';

/** What a line is for a run: an edge with one cell is a rim, whatever its direction. */
export function lineKindOf(edges: Edges, e: number): LineKind {
	const direction = edgeDirections[edges.direction[e]!]!;
	if (edges.right[e] === NO_CELL || direction === 'trim') return 'rim';
	return direction === 'rising' || direction === 'falling' ? 'diagonal' : direction;
}

/** The edges of each run: first match wins, so no edge is taken twice. Muted runs take none. */
export function edgesOfRuns(runs: readonly Run[], edges: Edges): Uint32Array[] {
	const taken = new Uint8Array(edges.count);
	return runs.map((run) => {
		const found: number[] = [];
		if (!run.muted)
			for (let e = 0; e < edges.count; e++)
				if (!taken[e] && run.lines.includes(lineKindOf(edges, e))) {
					taken[e] = 1;
					found.push(e);
				}
		return Uint32Array.from(found);
	});
}
