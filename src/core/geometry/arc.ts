import type { Weighted } from './vector';
import { ROUNDED, STILL, WHOLE } from './tolerance';

const QUARTER = Math.PI / 2;

/** Conic pieces of an arc of radius 1 about the origin: (x, y, weight) of 2 n + 1 control points. */
export interface UnitArc {
	readonly net: readonly (readonly [x: number, y: number, w: number])[];
	readonly pieces: number;
}

/**
 * A circular arc of radius 1 as rational quadratic pieces of at most 90°; x and y not yet weighted.
 * Source: Piegl & Tiller, The NURBS Book, section 7.5.
 *
 * ```ts
 * const { net, pieces } = unitArc(0, 2 * Math.PI); // four pieces
 * ```
 * @param from, turn rad; a full turn ends exactly where it starts
 */
export function unitArc(from: number, turn: number): UnitArc {
	const pieces = Math.max(1, Math.ceil(Math.abs(turn) / QUARTER - WHOLE));
	const half = turn / pieces / 2;
	const closed = Math.abs(Math.abs(turn) - 2 * Math.PI) < STILL;
	const net: [number, number, number][] = [];
	for (let k = 0; k <= 2 * pieces; k++) {
		const angle = from + (closed && k === 2 * pieces ? 0 : k) * half;
		const between = k % 2 === 1;
		const radius = between ? 1 / Math.cos(half) : 1;
		net.push([radius * Math.cos(angle), radius * Math.sin(angle), between ? Math.cos(half) : 1]);
	}
	return { net, pieces };
}

/**
 * Knots of `pieces` quadratic pieces.
 *
 * ```ts
 * arcKnots(2); // 0 0 0 ½ ½ 1 1 1
 * ```
 */
export function arcKnots(pieces: number): Float64Array {
	const inner = Array.from({ length: pieces - 1 }, (_, k) => (k + 1) / pieces);
	return Float64Array.from([0, 0, 0, ...inner.flatMap((t) => [t, t]), 1, 1, 1]);
}

/** One rational quadratic piece with its degree raised to three; weighted points in and out. */
function raised(a: Weighted, b: Weighted, c: Weighted): [Weighted, Weighted] {
	const third = (p: Weighted, q: Weighted) => p.map((v, k) => (v + 2 * q[k]!) / 3) as unknown as Weighted;
	return [third(a, b), third(c, b)];
}

/**
 * Cubic control points of an ellipse's arc in the plane z = 0.
 *
 * ```ts
 * const { control } = arcControl([0, 0], [4000, 4000], 0, Math.PI / 2);
 * ```
 * @param radii half sizes along x and y; @param turn of the whole ellipse is not included
 */
export function arcControl(
	centre: readonly [number, number],
	radii: readonly [number, number],
	from: number,
	turn: number
): { control: Weighted[]; pieces: number } {
	const { net, pieces } = unitArc(from, turn);
	const at = net.map(([x, y, w]): Weighted => [
		w * (centre[0] + radii[0] * x),
		w * (centre[1] + radii[1] * y),
		0,
		w
	]);
	const control: Weighted[] = [at[0]!];
	for (let k = 0; k < pieces; k++) {
		const [a, b, c] = [at[2 * k]!, at[2 * k + 1]!, at[2 * k + 2]!];
		control.push(...raised(a, b, c), c);
	}
	return { control, pieces };
}

/**
 * The circle through two points with a given rise of its middle over the chord: positive to the left of
 * the way from one to the other. Nothing when the rise is nothing.
 */
export function arcThrough(
	from: readonly [number, number],
	to: readonly [number, number],
	rise: number
): { centre: [number, number]; radius: number; from: number; turn: number } | null {
	const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
	const chord = Math.hypot(dx, dy);
	if (Math.abs(rise) < ROUNDED || chord < ROUNDED) return null;
	const turn = 4 * Math.atan((2 * rise) / chord);
	const radius = chord / 2 / Math.sin(Math.abs(turn) / 2);
	// The centre lies on the chord's perpendicular, opposite to the rise for less than half a circle.
	const off = rise - Math.sign(rise) * radius;
	const centre: [number, number] = [
		(from[0] + to[0]) / 2 - (dy / chord) * off,
		(from[1] + to[1]) / 2 + (dx / chord) * off
	];
	// A rise to the left is run clockwise.
	return {
		centre,
		radius,
		from: Math.atan2(from[1] - centre[1], from[0] - centre[0]),
		turn: -turn
	};
}
