import { distanceTo } from '../geometry/nearest';
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
const BETWEEN = 6;
/** A prime, so that places taken this far apart spread over the face. */
const STRIDE = 97;
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

/** Parameters of the old face at shares of the new one, by linear interpolation between nodes. */
function oldParameters({ steps, u, v }: Evened, s: number, t: number): [number, number] {
	const cell = (share: number) => Math.min(steps - 1, Math.max(0, Math.floor(share * steps)));
	const [i, j] = [cell(s), cell(t)];
	const [x, y] = [s * steps - i, t * steps - j];
	const at = (di: number, dj: number) => u[(j + dj) * (steps + 1) + i + di]!;
	const mix = (a: number, b: number, share: number) => a + (b - a) * share;
	return [mix(mix(at(0, 0), at(1, 0), x), mix(at(0, 1), at(1, 1), x), y), mix(v[j]!, v[j + 1]!, y)];
}

/**
 * How far the new face is from the old one at most, at places between its nodes.
 * @param enough more than this need not be told exactly: looking on ends there
 */
function largestDeviation(face: Face, evened: Evened, shares: readonly number[], enough: number): number {
	const { points } = evaluateGrid(evened.surface, shares, shares);
	const count = shares.length ** 2;
	let largest = 0;
	// Far steps first, so that what is too far shows soon.
	for (let start = 0; start < STRIDE; start++)
		for (let k = start; k < count; k += STRIDE) {
			const from = oldParameters(evened, shares[k % shares.length]!, shares[Math.floor(k / shares.length)]!);
			const at = [points[3 * k]!, points[3 * k + 1]!, points[3 * k + 2]!] as const;
			largest = Math.max(largest, distanceTo(face.surface, [...at], from, face.closedAcross));
			if (largest > enough) return largest;
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
