import { distinctKnots } from './curve';
import { eachCourse, type Surface } from './surface';
import { SAME_SHARE, SINGULAR } from './tolerance';

/**
 * Arc length along many course lines (v = constant) of a surface at once.
 *
 * The lines share one set of intervals in u, so that their speeds come from one tensor-product evaluation.
 * Within an interval the speed is the quartic through its values at five Gauss points; its integral gives
 * the length, and is inverted by Newton's method. Intervals are halved until lengths agree to `TOLERANCE`;
 * the error falls with the sixth power of the interval.
 */
export interface LengthTable {
	/** Ends of the intervals, in u. */
	readonly ends: Float64Array;
	/** Line j, interval k: coefficients of the speed (mm per unit interval), 5 at 5 * (j * intervals + k). */
	readonly speed: Float64Array;
	/** Line j: length up to each end, at j * (intervals + 1). */
	readonly upTo: Float64Array;
	readonly lines: number;
}

/** A halving may change lengths by this much (mm); what is left is a thirtieth of it or less. */
const TOLERANCE = 0.02;
/** Lines shorter than this have no length (mm). */
const LEAST_LENGTH = 1e-3;
const MOST_HALVINGS = 6;

/** Abramowitz & Stegun 25.4.30, five Gauss points on 0..1. */
const root = (sign: number) => Math.sqrt(5 + sign * 2 * Math.sqrt(10 / 7)) / 3;
const gaussPoints = [-root(1), -root(-1), 0, root(-1), root(1)].map((x) => (1 + x) / 2);

/** Rows: coefficient of x^k of the quartic through values at the Gauss points (inverse Vandermonde). */
const fromValues: Float64Array = (() => {
	const n = gaussPoints.length;
	const matrix = new Float64Array(n * n);
	for (let i = 0; i < n; i++) {
		let polynomial = [1];
		for (let j = 0; j < n; j++) {
			if (j === i) continue;
			const scale = 1 / (gaussPoints[i]! - gaussPoints[j]!);
			const next = new Array<number>(polynomial.length + 1).fill(0);
			polynomial.forEach((c, k) => {
				next[k]! -= c * gaussPoints[j]! * scale;
				next[k + 1]! += c * scale;
			});
			polynomial = next;
		}
		polynomial.forEach((c, k) => (matrix[k * n + i] = c));
	}
	return matrix;
})();

function tableWith(surface: Surface, vs: ArrayLike<number>, parts: number): LengthTable {
	const knots = distinctKnots(surface.knotsU);
	const intervals = (knots.length - 1) * parts;
	const ends = new Float64Array(intervals + 1);
	const us = new Float64Array(5 * intervals);
	for (let k = 0; k < intervals; k++) {
		const piece = Math.floor(k / parts);
		const width = (knots[piece + 1]! - knots[piece]!) / parts;
		ends[k] = knots[piece]! + (k % parts) * width;
		for (let g = 0; g < 5; g++) us[5 * k + g] = ends[k]! + gaussPoints[g]! * width;
	}
	ends[intervals] = knots.at(-1)!;
	const lines = vs.length;
	const table: LengthTable = {
		ends,
		speed: new Float64Array(5 * intervals * lines),
		upTo: new Float64Array((intervals + 1) * lines),
		lines
	};
	eachCourse(surface, us, vs, (j, tangents) => takeLine(table, j, tangents));
	return table;
}

/** Speeds at the Gauss points of one interval. */
const at = new Float64Array(5);

/** Hot: the speeds and lengths of line j, from its derivatives at the Gauss points of every interval. */
function takeLine({ ends, speed, upTo }: LengthTable, j: number, tangents: Float64Array): void {
	const intervals = ends.length - 1;
	let sum = 0;
	for (let k = 0, o = 0; k < intervals; k++) {
		const width = ends[k + 1]! - ends[k]!;
		const base = 5 * (j * intervals + k);
		for (let g = 0; g < 5; g++, o += 3) {
			const x = tangents[o]!;
			const y = tangents[o + 1]!;
			const z = tangents[o + 2]!;
			at[g] = width * Math.sqrt(x * x + y * y + z * z);
		}
		const p = at[0]!;
		const q = at[1]!;
		const r = at[2]!;
		const s = at[3]!;
		const t = at[4]!;
		for (let c = 0, m = 0; c < 5; c++, m += 5)
			speed[base + c] =
				fromValues[m]! * p +
				fromValues[m + 1]! * q +
				fromValues[m + 2]! * r +
				fromValues[m + 3]! * s +
				fromValues[m + 4]! * t;
		sum += lengthWithin(speed, base, 1);
		upTo[j * (intervals + 1) + k + 1] = sum;
	}
}

/** Length from an interval's start to the share x of it. */
function lengthWithin(speed: Float64Array, base: number, x: number): number {
	return (
		x *
		(speed[base]! +
			x *
				(speed[base + 1]! / 2 +
					x * (speed[base + 2]! / 3 + x * (speed[base + 3]! / 4 + (x * speed[base + 4]!) / 5))))
	);
}

function speedWithin(speed: Float64Array, base: number, x: number): number {
	return (
		speed[base]! +
		x * (speed[base + 1]! + x * (speed[base + 2]! + x * (speed[base + 3]! + x * speed[base + 4]!)))
	);
}

/** The largest difference (mm) between a table and a finer one with every interval halved. */
function difference(coarse: LengthTable, fine: LengthTable): number {
	const intervals = coarse.ends.length - 1;
	let worst = 0;
	for (let j = 0; j < coarse.lines; j++)
		for (let k = 0; k < intervals; k++) {
			const start = coarse.upTo[j * (intervals + 1) + k]!;
			const middle = start + lengthWithin(coarse.speed, 5 * (j * intervals + k), 0.5);
			const fineAt = j * (2 * intervals + 1) + 2 * k;
			worst = Math.max(
				worst,
				Math.abs(middle - fine.upTo[fineAt + 1]!),
				Math.abs(coarse.upTo[j * (intervals + 1) + k + 1]! - fine.upTo[fineAt + 2]!)
			);
		}
	return worst;
}

/**
 * The lengths (mm) along the lines of constant v, one line per value of vs, with intervals halved until a
 * further halving changes little.
 *
 * ```ts
 * const table = lengthTable(surface, [0, 0.5, 1]);
 * ```
 */
export function lengthTable(surface: Surface, vs: ArrayLike<number>): LengthTable {
	let coarse = tableWith(surface, vs, 1);
	for (let halving = 1; ; halving++) {
		const fine = tableWith(surface, vs, 2 ** halving);
		if (difference(coarse, fine) <= TOLERANCE || halving === MOST_HALVINGS) return fine;
		coarse = fine;
	}
}

/**
 * Length of line j, in mm.
 *
 * ```ts
 * lineLength(lengthTable(surface, [0, 1]), 1); // mm along the head
 * ```
 */
export function lineLength(table: LengthTable, j: number): number {
	const intervals = table.ends.length - 1;
	return table.upTo[j * (intervals + 1) + intervals]!;
}

/**
 * Length of line j from its first end to a parameter, in mm.
 *
 * ```ts
 * lengthTo(lengthTable(surface, [0]), 0, 0.5); // mm along the foot
 * ```
 */
export function lengthTo(table: LengthTable, j: number, u: number): number {
	const { ends, speed, upTo } = table;
	const intervals = ends.length - 1;
	let low = 0;
	let high = intervals - 1;
	while (low < high) {
		const middle = (low + high + 1) >> 1;
		if (ends[middle]! <= u) low = middle;
		else high = middle - 1;
	}
	const x = Math.min(1, Math.max(0, (u - ends[low]!) / (ends[low + 1]! - ends[low]!)));
	return upTo[j * (intervals + 1) + low]! + lengthWithin(speed, 5 * (j * intervals + low), x);
}

/**
 * Parameters of points on line j that lie at given shares (0..1, ascending) of its length.
 * A line without length (a pole) is divided by parameter.
 *
 * ```ts
 * parametersAt(lengthTable(surface, [0]), 0, [0, 0.5, 1], out, 0); // half of the length is not u 0.5
 * ```
 */
export function parametersAt(
	table: LengthTable,
	j: number,
	shares: ArrayLike<number>,
	out: Float64Array,
	offset: number
): void {
	const { ends, speed, upTo } = table;
	const intervals = ends.length - 1;
	const base = j * (intervals + 1);
	const total = lineLength(table, j);
	let k = 0;
	for (let n = 0; n < shares.length; n++) {
		const share = shares[n]!;
		if (total < LEAST_LENGTH || share <= 0 || share >= 1) {
			const clamped = Math.min(1, Math.max(0, share));
			out[offset + n] = ends[0]! + clamped * (ends[intervals]! - ends[0]!);
			continue;
		}
		const wanted = share * total;
		while (k < intervals - 1 && upTo[base + k + 1]! < wanted) k++;
		const rest = wanted - upTo[base + k]!;
		const full = upTo[base + k + 1]! - upTo[base + k]!;
		const at = 5 * (j * intervals + k);
		let x = full > 0 ? rest / full : 0;
		for (let step = 0; step < 12; step++) {
			const error = lengthWithin(speed, at, x) - rest;
			if (Math.abs(error) < SAME_SHARE * total) break;
			const slope = speedWithin(speed, at, x);
			if (!(slope > SINGULAR * total)) break;
			x = Math.min(1, Math.max(0, x - error / slope));
		}
		out[offset + n] = ends[k]! + x * (ends[k + 1]! - ends[k]!);
	}
}
