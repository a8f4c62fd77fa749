import type { LineKind } from '../project/line-kinds';
import type { Held } from '../condition/holds';
import { NO_CELL, edgeDirections, type Edges } from '../pattern/edges';
import type { Run } from '../project/schema';

/**
 * What a line is for a run: an edge with one cell is a rim, whatever its direction.
 *
 * ```ts
 * if (lineKindOf(edges, 0) === 'rim') rims.push(0);
 * ```
 */
export function lineKindOf(edges: Edges, e: number, shared: Uint8Array | null = null): LineKind {
	const hasCells = edges.left[e] !== NO_CELL;
	if (hasCells && edges.right[e] === NO_CELL && !shared?.[e]) return 'rim';
	return kindOfWay(edges, e);
}

/**
 * What a line would be with cells on both its sides, by the way that it runs.
 *
 * ```ts
 * const upright = kindOfWay(edges, 0) === 'bay';
 * ```
 */
export function kindOfWay(edges: Edges, e: number): LineKind {
	const direction = edgeDirections[edges.direction[e]!]!;
	if (direction === 'trim') return 'rim';
	return direction === 'rising' || direction === 'falling' ? 'diagonal' : direction;
}

/**
 * The edges of each run: first match wins, so no edge is taken twice; one that is counted on another face is
 * not taken here. Muted runs take none, the others those of theirs where their conditions hold.
 *
 * ```ts
 * const [ofFirst] = edgesOfRuns(zone.runs, edges);
 * ```
 * @param heldFor where the conditions of a run hold; null everywhere
 */
export function edgesOfRuns(
	runs: readonly Run[],
	edges: Edges,
	shared: Uint8Array | null = null,
	heldFor: (run: Run) => Held | null = () => null
): number[][] {
	if (!runs.length) return [];
	const taken = new Uint8Array(edges.count);
	if (shared) for (let e = 0; e < edges.count; e++) if (shared[e] === 2) taken[e] = 1;
	return runs.map((run) => {
		const found: number[] = [];
		const held = heldFor(run);
		if (!run.muted)
			for (let e = 0; e < edges.count; e++)
				if (!taken[e] && (!held || held[e]) && run.lines.includes(lineKindOf(edges, e, shared))) {
					taken[e] = 1;
					found.push(e);
				}
		return found;
	});
}
