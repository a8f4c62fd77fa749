import { nearestPlaces } from '../geometry/nearest';
import { chainKnots } from '../geometry/path';
import { interpolate, splineControl } from '../geometry/spline';
import { evaluateGrid, evaluateRows, transpose, type Surface } from '../geometry/surface';
import { lengthTable, parametersAt } from '../geometry/true-length';
import type { Tuple } from '../geometry/tuple';
import { refuse } from '../units/problem';
import { formatNumber } from '../units/quantity';
import { makeFace, type Face } from './face';

/** Steps that are tried across and up. */
const TRIED = [8, 12, 16, 24, 32, 48];
/** Places from step to step at which the deviation is measured, the middle among them: there it is largest. */
const BETWEEN = 4;
/** A prime, so that places taken this far apart spread over the face. */
const STRIDE = 97;
/** Places looked at between two looks at what they came to. */
const AT_ONCE = 2000;
/** A maximum between the places that are looked at is no more than this share higher. */
const MARGIN = 1.1;

/** A face through points that are evenly spread, and where its parameters lie on the one it was made from. */
interface Evened {
	readonly surface: Surface;
	readonly steps: number;
	/** Parameters of the old face at node (i, j), at j * (steps + 1) + i. */
	readonly u: Float64Array;
	readonly v: Float64Array;
}

function throughEvenPoints(face: Face, steps: number): Evened {
	const { surface } = face;
	const shares = Float64Array.from({ length: steps + 1 }, (_, k) => k / steps);
	const turned = transpose(surface);
	const middle = (surface.knotsU[0]! + surface.knotsU.at(-1)!) / 2;
	const v = new Float64Array(steps + 1);
	parametersAt(lengthTable(turned, [middle]), 0, shares, v, 0);
	const u = new Float64Array((steps + 1) ** 2);
	const table = lengthTable(surface, v);
	for (let j = 0; j <= steps; j++) parametersAt(table, j, shares, u, j * (steps + 1));
	const { points } = evaluateRows(surface, u, steps + 1, v);
	const even = [...shares];
	const rows = even.map((_, j) =>
		even.map((_, i) => {
			// A ring ends exactly where it starts.
			const node = j * (steps + 1) + (face.closedAcross && i === steps ? 0 : i);
			return [points[3 * node]!, points[3 * node + 1]!, points[3 * node + 2]!, 1];
		})
	);
	if (face.closedUp) rows[steps] = rows[0]!;
	const across = rows.map((row) => through(row, even, face.closedAcross));
	const up = across[0]!.control.map((_, i) =>
		through(
			across.map(({ control }) => control[i]!),
			even,
			face.closedUp
		)
	);
	return {
		surface: {
			degreeU: 3,
			degreeV: 3,
			knotsU: across[0]!.knots,
			knotsV: up[0]!.knots,
			countU: up.length,
			countV: up[0]!.control.length,
			net: Float64Array.from(up[0]!.control.flatMap((_, j) => up.flatMap(({ control }) => control[j]!)))
		},
		steps,
		u,
		v
	};
}

/** A cubic through points; a closed one is smooth over its seam. */
function through(points: readonly Tuple[], at: readonly number[], closed: boolean) {
	return closed
		? { control: splineControl(points, at, true), knots: chainKnots(at) }
		: interpolate(points, at, 3);
}

/**
 * Parameters of the old face at shares of the new one, by linear interpolation between nodes. A hot loop.
 * @param order places of the square of shares, put one after the other into us and vs
 */
function oldParameters(
	{ steps, u, v }: Evened,
	shares: readonly number[],
	order: Uint32Array,
	us: Float64Array,
	vs: Float64Array
): void {
	const across = shares.length;
	const columns = steps + 1;
	for (let n = 0; n < order.length; n++) {
		const s = shares[order[n]! % across]! * steps;
		const t = shares[Math.floor(order[n]! / across)]! * steps;
		const i = Math.min(steps - 1, Math.max(0, Math.floor(s)));
		const j = Math.min(steps - 1, Math.max(0, Math.floor(t)));
		const [x, y] = [s - i, t - j];
		const node = j * columns + i;
		const low = u[node]! + (u[node + 1]! - u[node]!) * x;
		const high = u[node + columns]! + (u[node + columns + 1]! - u[node + columns]!) * x;
		us[n] = low + (high - low) * y;
		vs[n] = v[j]! + (v[j + 1]! - v[j]!) * y;
	}
}

/**
 * How far the new face is from the old one at most, at places between its nodes.
 * @param enough more than this need not be told exactly: looking on ends there
 */
function largestDeviation(face: Face, evened: Evened, shares: readonly number[], enough: number): number {
	const { points } = evaluateGrid(evened.surface, shares, shares);
	const count = shares.length ** 2;
	const order = new Uint32Array(count);
	for (let start = 0, n = 0; start < STRIDE; start++)
		for (let k = start; k < count; k += STRIDE) order[n++] = k;
	let largest = 0;
	// Far steps first, so that what is too far shows soon.
	for (let from = 0; from < count && largest <= enough; from += AT_ONCE) {
		const some = order.subarray(from, from + AT_ONCE);
		const [us, vs] = [new Float64Array(some.length), new Float64Array(some.length)];
		const places = new Float64Array(3 * some.length);
		oldParameters(evened, shares, some, us, vs);
		for (let n = 0; n < places.length; n++) places[n] = points[3 * some[Math.floor(n / 3)]! + (n % 3)]!;
		for (const distance of nearestPlaces(face.surface, places, us, vs, face.closedAcross, largest))
			largest = Math.max(largest, distance);
	}
	return largest;
}

/**
 * The face approximated again so that equal steps of its parameters are about equal lengths.
 * Its `deviation` is a bound of how far any of its points lies from the face it was made from.
 * @param within largest deviation that is accepted (mm)
 * @throws ProblemError when it cannot be met, with what can
 */
export function evenedFace(face: Face, within: number, at: string): Face {
	if (!(within > 0)) refuse(at, `the deviation is ${within} mm; more than 0 mm is accepted`);
	let best = Infinity;
	for (const steps of TRIED) {
		const evened = throughEvenPoints(face, steps);
		const shares = Array.from({ length: steps * BETWEEN + 1 }, (_, k) => k / (steps * BETWEEN));
		const isLast = steps === TRIED.at(-1);
		const enough = isLast ? Infinity : within / MARGIN;
		const deviation = MARGIN * largestDeviation(face, evened, shares, enough) + 1e-6;
		if (isLast) best = deviation;
		if (deviation > within) continue;
		return { ...makeFace(face.name, evened.surface), ends: face.ends, deviation, original: face.surface };
	}
	return refuse(
		at,
		`${face.name} cannot be evened to within ${formatNumber(within, 3)} mm; ${formatNumber(Math.ceil(best * 1000) / 1000, 3)} mm is the least (corners within a face keep it away)`
	);
}
