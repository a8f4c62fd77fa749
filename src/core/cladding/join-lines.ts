import { segmentDistance } from '../geometry/follow';
import { SAME_POINT } from '../geometry/tolerance';
import { distance, dot, length, pointAt, subtract, type Vector } from '../geometry/vector';
import type { Edges } from '../pattern/edges';
import type { Run } from '../project/schema';

/** How lines are joined to longer bars. */
export type Joining = NonNullable<Run['joined']>;

/** Lines joined where they go straight on. */
export interface JoinedLines {
	/** The lines of each bar in order; it stands in the place of the first. */
	readonly bars: readonly (readonly number[])[];
	/** All lines of the face, the first of each bar as long as the bar. */
	readonly edges: Edges;
	/** Lengths of bars that are longer than their stock: single lines (mm). */
	readonly tooLong: readonly number[];
}

/** A line that turns away by more than this (its cosine) does not go on. */
const STRAIGHT_ON = Math.cos(Math.PI / 6);

/** The line of a list that each goes on in, and the one it goes on from; -1 for none. */
function continuations(
	{ from, to, direction }: Edges,
	lines: readonly number[],
	at: (node: number) => Vector
) {
	const starting = new Map<string, number[]>();
	for (const e of lines) {
		const name = `${direction[e]} ${from[e]}`;
		const known = starting.get(name);
		if (known) known.push(e);
		else starting.set(name, [e]);
	}
	const next = new Map<number, number>();
	const before = new Map<number, number>();
	for (const e of lines) {
		const way = subtract(at(to[e]!), at(from[e]!));
		let best = STRAIGHT_ON;
		for (const other of starting.get(`${direction[e]} ${to[e]}`) ?? []) {
			const on = subtract(at(to[other]!), at(from[other]!));
			const cosine = dot(way, on) / (length(way) * length(on) || 1);
			if (cosine < best || before.has(other)) continue;
			best = cosine;
			next.set(e, other);
		}
		const other = next.get(e);
		if (other !== undefined) before.set(other, e);
	}
	return { next, before };
}

/**
 * Lines of a run joined to bars: along their straight continuation, as long as every node on the way lies on the bar to
 * within a tolerance and the bar is no longer than its stock. Splices lie at nodes; staggered, every other row begins
 * with a bar of half the stock at most. The metres stay what they were, but for what the tolerance straightens.
 *
 * ```ts
 * const { bars } = joinLines(edges, grid.positions, [0, 1, 2], { stock: 6000, within: 5, staggered: true });
 * ```
 */
export function joinLines(
	edges: Edges,
	positions: Float64Array,
	lines: readonly number[],
	{ stock, within, staggered }: Joining
): JoinedLines {
	const at = (node: number) => pointAt(positions, node);
	const { next, before } = continuations(edges, lines, at);
	const bars: number[][] = [];
	const tooLong: number[] = [];
	const taken = new Set<number>();
	const to = edges.to.slice();
	let row = 0;
	const walk = (start: number) => {
		let limit = staggered && row % 2 === 1 ? stock / 2 : stock;
		row++;
		for (let e: number | undefined = start; e !== undefined && !taken.has(e);) {
			const bar: number[] = [e];
			taken.add(e);
			const from = at(edges.from[e]!);
			const nodes: Vector[] = [];
			let last: number = e;
			for (let on = next.get(last); on !== undefined && !taken.has(on); on = next.get(last)) {
				const end = at(edges.to[on]!);
				nodes.push(at(edges.to[last]!));
				if (
					distance(from, end) > limit + SAME_POINT ||
					nodes.some((p) => segmentDistance(from, end, p) > within)
				)
					break;
				bar.push(on);
				taken.add(on);
				last = on;
			}
			to[bar[0]!] = edges.to[last]!;
			const size = distance(from, at(edges.to[last]!));
			if (size > stock + SAME_POINT) tooLong.push(size);
			bars.push(bar);
			limit = stock;
			e = next.get(last);
		}
	};
	for (const e of lines) if (!before.has(e)) walk(e);
	// What goes round has no beginning: it starts at its first line.
	for (const e of lines) if (!taken.has(e)) walk(e);
	bars.sort((a, b) => a[0]! - b[0]!);
	return { bars, edges: { ...edges, to }, tooLong };
}
