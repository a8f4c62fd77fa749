import { arcControl, arcThrough } from './arc';
import type { Curve } from './curve';
import { splineControl } from './spline';
import { mixTuple } from './tuple';
import { distance, weighted, type Vector, type Weighted } from './vector';
import { ROUNDED, SAME_SHARE } from './tolerance';

/** How two neighbouring points of a path are joined; an arc, in the plane z = 0, by its rise in mm. */
export type Segment = 'line' | 'smooth' | { readonly arc: number };

/**
 * A chain of rational cubic Bézier pieces: piece k runs over breaks[k]..breaks[k + 1] and has the weighted
 * control points 3k .. 3k + 3. Straight pieces and arcs are cubic too, so any two chains can be brought to
 * the same breaks.
 */
export interface BezierChain {
	readonly breaks: readonly number[];
	readonly points: readonly Weighted[];
}

/** One stretch of a chain: its control points, and the length of each piece it has. */
interface Stretch {
	readonly control: readonly Weighted[];
	readonly lengths: readonly number[];
}

function arcStretch(from: Vector, to: Vector, rise: number): Stretch {
	const arc = arcThrough([from[0], from[1]], [to[0], to[1]], rise);
	if (!arc) return lineStretch(from, to);
	const { control, pieces } = arcControl(arc.centre, [arc.radius, arc.radius], arc.from, arc.turn);
	const length = (Math.abs(arc.turn) * arc.radius) / pieces;
	// The ends are the points that were given, to the last digit.
	return {
		control: [weighted(from), ...control.slice(1, -1), weighted(to)],
		lengths: new Array<number>(pieces).fill(length)
	};
}

function lineStretch(from: Vector, to: Vector): Stretch {
	const third = (t: number) => mixTuple(weighted(from), weighted(to), t) as unknown as Weighted;
	return {
		control: [weighted(from), third(1 / 3), third(2 / 3), weighted(to)],
		lengths: [distance(from, to)]
	};
}

function smoothStretch(points: readonly Vector[], closed: boolean): Stretch {
	const lengths = points.slice(1).map((p, k) => distance(points[k]!, p));
	let sum = 0;
	const at = [0, ...lengths.map((length) => (sum += length))];
	const control = splineControl(points.map(weighted), at, closed) as unknown as Weighted[];
	return { control, lengths };
}

/**
 * The chain through points, parametrised by chord length over 0..1.
 * Neighbouring smooth segments make one spline; a line segment is straight.
 *
 * ```ts
 * const bow = bezierChain([[0, 0, 0], [5000, 800, 0], [10_000, 0, 0]], ['smooth', 'smooth']);
 * ```
 * @param segments one per pair of neighbours; a closed path repeats its first point last
 * @throws RangeError when two neighbouring points coincide
 */
export function bezierChain(points: readonly Vector[], segments: readonly Segment[]): BezierChain {
	const touching = segments.findIndex((_, k) => distance(points[k]!, points[k + 1]!) < ROUNDED);
	if (touching >= 0) throw new RangeError(`points ${touching + 1} and ${touching + 2} coincide`);
	const closed = distance(points[0]!, points.at(-1)!) < ROUNDED && segments.every((s) => s === 'smooth');
	const stretches: Stretch[] = [];
	let k = 0;
	while (k < segments.length) {
		const segment = segments[k]!;
		let end = k + 1;
		if (segment === 'smooth') {
			while (segments[end] === 'smooth') end++;
			stretches.push(smoothStretch(points.slice(k, end + 1), closed));
		} else if (segment === 'line') stretches.push(lineStretch(points[k]!, points[end]!));
		else stretches.push(arcStretch(points[k]!, points[end]!, segment.arc));
		k = end;
	}
	return joined(stretches);
}

function joined(stretches: readonly Stretch[]): BezierChain {
	const lengths = stretches.flatMap((stretch) => stretch.lengths);
	const total = lengths.reduce((a, b) => a + b, 0);
	let sum = 0;
	const breaks = [0, ...lengths.map((length) => (sum += length) / total)];
	breaks[breaks.length - 1] = 1;
	const points = stretches.flatMap(({ control }, k) => (k === 0 ? control : control.slice(1)));
	return { breaks, points };
}

/**
 * An ellipse about the origin in the plane z = 0, from +x round to the left.
 *
 * ```ts
 * const rim = ellipseChain([2800, 2100]);
 * ```
 */
export function ellipseChain(radii: readonly [number, number]): BezierChain {
	const { control, pieces } = arcControl([0, 0], radii, 0, 2 * Math.PI);
	return {
		breaks: Array.from({ length: pieces + 1 }, (_, k) => k / pieces),
		points: [...control.slice(0, -1), control[0]!]
	};
}

/**
 * The same chain with further breaks, its shape unchanged (de Casteljau).
 *
 * ```ts
 * const finer = refineChain(chainOfPoints, [0.1, 0.9]);
 * ```
 */
export function refineChain(chain: BezierChain, wanted: readonly number[]): BezierChain {
	const breaks = [...chain.breaks];
	const points = [...chain.points];
	const mix = (p: Weighted, q: Weighted, s: number) => mixTuple(p, q, s) as unknown as Weighted;
	for (const t of wanted) {
		if (breaks.some((b) => Math.abs(b - t) < SAME_SHARE)) continue;
		const k = breaks.findIndex((b) => b > t) - 1;
		const s = (t - breaks[k]!) / (breaks[k + 1]! - breaks[k]!);
		const [a, b, c, d] = points.slice(3 * k, 3 * k + 4) as [Weighted, Weighted, Weighted, Weighted];
		const ab = mix(a, b, s);
		const bc = mix(b, c, s);
		const cd = mix(c, d, s);
		const abc = mix(ab, bc, s);
		const bcd = mix(bc, cd, s);
		points.splice(3 * k, 4, a, ab, abc, mix(abc, bcd, s), bcd, cd, d);
		breaks.splice(k + 1, 0, t);
	}
	return { breaks, points };
}

/**
 * Bring chains to the same breaks, so that their control points correspond one to one.
 *
 * ```ts
 * const [foot, head] = alignChains([chainOfPoints, otherChain]); // with as many pieces
 * ```
 */
export function alignChains(chains: readonly BezierChain[]): BezierChain[] {
	const all = chains.flatMap((chain) => chain.breaks);
	const aligned = chains.map((chain) => refineChain(chain, all));
	return aligned.map((chain) => ({ ...chain, breaks: aligned[0]!.breaks }));
}

/**
 * The pieces from break `first` to break `last` as a chain of their own, over 0..1.
 *
 * ```ts
 * const firstHalf = partOfChain(chainOfPoints, 0, 2);
 * ```
 */
export function partOfChain({ breaks, points }: BezierChain, first: number, last: number): BezierChain {
	const [from, to] = [breaks[first]!, breaks[last]!];
	return {
		breaks: breaks.slice(first, last + 1).map((t) => (t - from) / (to - from)),
		points: points.slice(3 * first, 3 * last + 1)
	};
}

/**
 * ```ts
 * const back = reverseChain(chainOfPoints);
 * ```
 */
export function reverseChain({ breaks, points }: BezierChain): BezierChain {
	return { breaks: breaks.map((t) => 1 - t).reverse(), points: [...points].reverse() };
}

/**
 * A chain under an affine map of its points.
 *
 * ```ts
 * const lifted = mapChain(chainOfPoints, ([x, y, z]) => [x, y, z + 3000]);
 * ```
 */
export function mapChain(chain: BezierChain, map: (p: Vector) => Vector): BezierChain {
	return {
		breaks: chain.breaks,
		points: chain.points.map(([x, y, z, w]) => {
			const [a, b, c] = map([x / w, y / w, z / w]);
			return [a * w, b * w, c * w, w];
		})
	};
}

/**
 * Knots of a cubic chain: every break three times, the ends four times.
 *
 * ```ts
 * chainKnots([0, 0.5, 1]); // 0 0 0 0 ½ ½ ½ 1 1 1 1
 * ```
 */
export function chainKnots(breaks: readonly number[]): Float64Array {
	const inner = breaks.slice(1, -1).flatMap((t) => [t, t, t]);
	return Float64Array.from([0, 0, 0, 0, ...inner, 1, 1, 1, 1]);
}

/**
 * ```ts
 * const curve = chainCurve(chainOfPoints);
 * ```
 */
export function chainCurve(chain: BezierChain): Curve {
	return { degree: 3, knots: chainKnots(chain.breaks), net: Float64Array.from(chain.points.flat()) };
}
