import { inRadians } from '../units/scale';
import { evaluateCurve } from './curve';
import { chainCurve, type BezierChain } from './path';
import { length, pointAt, subtract, dot, scale, add, type Vector } from './vector';

/**
 * How far a point lies from a segment (mm).
 *
 * ```ts
 * segmentDistance([0, 0, 0], [10, 0, 0], [12, 0, 0]); // 2
 * ```
 */
export function segmentDistance(a: Vector, b: Vector, p: Vector): number {
	const way = subtract(b, a);
	const size = dot(way, way);
	const t = size > 0 ? Math.min(1, Math.max(0, dot(subtract(p, a), way) / size)) : 0;
	return length(subtract(p, add(a, scale(way, t))));
}

/**
 * How far a point lies from a line through points, or from a single one (mm).
 *
 * ```ts
 * distanceToLine([[0, 0, 0], [10, 0, 0]], [4, 3, 0]); // 3
 * ```
 */
export function distanceToLine(line: readonly Vector[], p: Vector): number {
	if (line.length === 1) return length(subtract(line[0]!, p));
	let least = Infinity;
	for (let k = 1; k < line.length; k++) least = Math.min(least, segmentDistance(line[k - 1]!, line[k]!, p));
	return least;
}

const MOST_HALVINGS = 10;

/**
 * Corners of a polyline that follows a curve: between two of them the curve stays within so many mm of
 * the straight line, as seen at its quarters.
 *
 * ```ts
 * const line = followCurve((at) => Float64Array.from(at.flatMap((t) => [t, t * t, 0])), [0, 1], 0.01);
 * ```
 * @param at parameters that are corners in any case, ascending
 * @param evaluate places of the curve, flat x y z
 */
export function followCurve(
	evaluate: (at: readonly number[]) => Float64Array,
	at: readonly number[],
	within: number
): Vector[] {
	const ends = evaluate(at);
	const found: Vector[] = [pointAt(ends, 0)];
	const halve = (from: number, to: number, a: Vector, b: Vector, left: number): void => {
		const quarters = evaluate([0.25, 0.5, 0.75].map((share) => from + share * (to - from)));
		const far = Math.max(...[0, 1, 2].map((k) => segmentDistance(a, b, pointAt(quarters, k))));
		if (far > within && left > 0) {
			const middle = pointAt(quarters, 1);
			halve(from, (from + to) / 2, a, middle, left - 1);
			halve((from + to) / 2, to, middle, b, left - 1);
		} else found.push(b);
	};
	for (let k = 0; k + 1 < at.length; k++)
		halve(at[k]!, at[k + 1]!, pointAt(ends, k), pointAt(ends, k + 1), MOST_HALVINGS);
	return found;
}

/**
 * Corners of a polyline that follows a closed chain, the first not repeated.
 *
 * ```ts
 * const line = followChain(chainOfPoints, 5); // nowhere further than 5 mm away
 * ```
 */
export function followChain(chain: BezierChain, within: number, closed = true): Vector[] {
	const curve = chainCurve(chain);
	const points = followCurve((at) => evaluateCurve(curve, at).points, chain.breaks, within);
	return closed ? points.slice(0, -1) : points;
}

/** A turn of more than this is a corner; less comes from following a smooth curve. */
const CORNER = Math.cos(inRadians(25));

/**
 * Which points of a closed polyline are corners of what it follows, as told by their turn.
 *
 * ```ts
 * sharpCorners([[0, 0, 0], [1, 0, 0], [1, 1, 0]]); // all three: two are ends
 * ```
 */
export function sharpCorners(points: readonly Vector[]): boolean[] {
	const n = points.length;
	return points.map((p, k) => {
		const [a, b] = [subtract(p, points[(k + n - 1) % n]!), subtract(points[(k + 1) % n]!, p)];
		return dot(a, b) < CORNER * length(a) * length(b);
	});
}
