import { distinctKnots } from '../geometry/curve';
import { evaluateCurvature, principal, type CurvatureSamples } from '../geometry/curvature';
import type { Surface } from '../geometry/surface';
import { formatNumber } from '../units/quantity';
import type { NodeGrid } from './node-grid';

/** A second grid at a depth from the first. */
export interface LayerGrid {
	/** Nodes of the layer, one for each of the grid (or one for each step, when it is shifted), flat x y z (mm). */
	readonly positions: Float64Array;
	readonly depth: Float64Array;
	/** Steps of the layer that have turned inside out, as course * bays + bay, from 0. */
	readonly crossed: Uint32Array;
	/** Lines of the layer, pairs of its nodes. */
	readonly lines: Uint32Array;
	/** The smallest radius on the side it lies on (mm), where steps have turned over; else Infinity. */
	readonly radius: number;
}

/**
 * How a face bends where a grid behind it turns over, and what works.
 *
 * ```ts
 * bendWords(1000); // the face bends with a radius down to 1 000 mm there; …
 * ```
 * @param radius as `smallestRadius` has it
 */
export const bendWords = (radius: number): string =>
	Number.isFinite(radius)
		? `the face bends with a radius down to ${formatNumber(Math.round(radius))} mm there; a depth of less works everywhere`
		: 'the face has a crease there; a smaller depth works, or larger steps beside the crease';

/** Pieces of a surface looked at, across and up, at most. */
const MOST_SPANS = 60;

/** Parameters within the spans of knots, three of each. */
function withinSpans(knots: Float64Array): number[] {
	const distinct = distinctKnots(knots);
	const every = Math.ceil(distinct.length / MOST_SPANS);
	return distinct.slice(1).flatMap((end, k) => {
		const begin = distinct[k]!;
		return k % every ? [] : [0.25, 0.5, 0.75].map((share) => begin + share * (end - begin));
	});
}

/**
 * The smallest radius of curvature towards the side of a depth (mm): inward curvature counts for inward depths.
 *
 * ```ts
 * const radius = smallestRadius(surface, grid.u, grid.v, true);
 * ```
 */
export function smallestRadius(surface: Surface, u: Float64Array, v: Float64Array, inward: boolean): number {
	let most = 0;
	const take = ({ gaussian, mean }: CurvatureSamples) => {
		for (let k = 0; k < mean.length; k++)
			// Mean curvature is positive where the face bends towards its outside.
			for (const bend of principal(gaussian[k]!, mean[k]!)) most = Math.max(most, inward ? -bend : bend);
	};
	const wrap = (t: number, knots: Float64Array) => {
		const [low, high] = [knots[0]!, knots.at(-1)!];
		return t > high ? t - (high - low) : t < low ? t + (high - low) : t;
	};
	const every = Math.max(1, Math.floor(u.length / 400));
	for (let k = 0; k < u.length; k += every) {
		take(evaluateCurvature(surface, [wrap(u[k]!, surface.knotsU)], [wrap(v[k]!, surface.knotsV)]));
	}
	// A rounding may lie between nodes: it has a piece of the surface of its own.
	take(evaluateCurvature(surface, withinSpans(surface.knotsU), withinSpans(surface.knotsV)));
	return most > 1e-12 ? 1 / most : Infinity;
}

/**
 * A grid at a signed depth along the normals, positive outward; shifted by half a step when wanted. Where it
 * is deeper than the face is round it turns inside out, and the steps that do are told.
 *
 * ```ts
 * const behind = layerOf(surface, grid, new Float64Array(grid.columns * grid.rows).fill(-600), false);
 * ```
 * @param depth at every node of the grid (mm)
 */
export function layerOf(surface: Surface, grid: NodeGrid, depth: Float64Array, shifted: boolean): LayerGrid {
	const { columns, rows, across, up, positions, normals } = grid;
	const own = columns * rows;
	const moved = new Float64Array(3 * own);
	for (let node = 0; node < own; node++)
		for (let a = 0; a < 3; a++)
			moved[3 * node + a] = positions[3 * node + a]! + depth[node]! * normals[3 * node + a]!;
	const nodeAt = (i: number, j: number) => (j % rows) * columns + (i % columns);
	const corners = (i: number, j: number) =>
		[nodeAt(i, j), nodeAt(i + 1, j), nodeAt(i + 1, j + 1), nodeAt(i, j + 1)] as const;
	const crossed: number[] = [];
	for (let j = 0; j < up.steps; j++)
		for (let i = 0; i < across.steps; i++) {
			if (grid.absent && corners(i, j).some((node) => grid.absent![node])) continue;
			if (turnsOver(positions, moved, corners(i, j))) crossed.push(j * across.steps + i);
		}
	const inward = depth.some((value) => value < 0);
	// It is told only where steps turn over.
	const radius = crossed.length ? smallestRadius(surface, grid.u, grid.v, inward) : Infinity;
	if (!shifted)
		return { positions: moved, depth, crossed: Uint32Array.from(crossed), lines: linesOf(grid), radius };
	const middles = new Float64Array(3 * across.steps * up.steps);
	for (let j = 0; j < up.steps; j++)
		for (let i = 0; i < across.steps; i++)
			for (let a = 0; a < 3; a++)
				middles[3 * (j * across.steps + i) + a] =
					corners(i, j).reduce((sum, node) => sum + moved[3 * node + a]!, 0) / 4;
	const lines: number[] = [];
	for (let j = 0; j < up.steps; j++)
		for (let i = 0; i < across.steps; i++) {
			const here = j * across.steps + i;
			if (i + 1 < across.steps || across.closed)
				lines.push(here, j * across.steps + ((i + 1) % across.steps));
			if (j + 1 < up.steps || up.closed) lines.push(here, ((j + 1) % up.steps) * across.steps + i);
		}
	return {
		positions: middles,
		depth,
		crossed: Uint32Array.from(crossed),
		lines: Uint32Array.from(lines),
		radius
	};
}

/** Whether a step has turned over: a side of it runs the other way than before. */
function turnsOver(
	before: Float64Array,
	after: Float64Array,
	[a, b, c, d]: readonly [number, number, number, number]
): boolean {
	const back = (p: number, q: number) => {
		let along = 0;
		for (let n = 0; n < 3; n++)
			along += (before[3 * q + n]! - before[3 * p + n]!) * (after[3 * q + n]! - after[3 * p + n]!);
		return along < 0;
	};
	return back(a, b) || back(d, c) || back(a, d) || back(b, c);
}

function linesOf({ columns, rows, across, up, absent }: NodeGrid): Uint32Array {
	const lines: number[] = [];
	const push = (a: number, b: number) => {
		if (!absent?.[a] && !absent?.[b]) lines.push(a, b);
	};
	for (let j = 0; j < rows; j++)
		for (let i = 0; i < columns; i++) {
			const node = j * columns + i;
			if (i + 1 < columns || across.closed) push(node, j * columns + ((i + 1) % columns));
			if (j + 1 < rows || up.closed) push(node, ((j + 1) % rows) * columns + i);
		}
	return Uint32Array.from(lines);
}
