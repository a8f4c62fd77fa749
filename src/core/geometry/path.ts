import type { Curve } from './curve';
import { add, distance, mix, scale, subtract, type Vector } from './vector';

/** How two neighbouring points of a path are joined. */
export type Segment = 'line' | 'smooth';

/**
 * A chain of cubic Bézier pieces: piece k runs over breaks[k]..breaks[k + 1] and has control points
 * 3k .. 3k + 3. Straight pieces are cubic too, so any two chains can be brought to the same breaks.
 */
export interface BezierChain {
	readonly breaks: readonly number[];
	readonly points: readonly Vector[];
}

/**
 * Tangents (per unit of parameter) of the cubic spline that runs smoothly through points.
 * Open ends have no curvature (natural spline); a closed one is periodic and repeats its first point last.
 * @param at parameters, strictly increasing
 */
function splineTangents(points: readonly Vector[], at: readonly number[], closed: boolean): Vector[] {
	const n = points.length;
	const h = (k: number) => at[k + 1]! - at[k]!;
	const slope = (k: number) => scale(subtract(points[k + 1]!, points[k]!), 1 / h(k));
	if (n === 2) return [slope(0), slope(0)];
	const rows: number[][] = [];
	const right: Vector[] = [];
	const unknowns = closed ? n - 1 : n;
	for (let k = 0; k < unknowns; k++) {
		const row = new Array<number>(unknowns).fill(0);
		if (!closed && (k === 0 || k === n - 1)) {
			row[k] = 2;
			row[k === 0 ? 1 : n - 2] = 1;
			right.push(scale(slope(k === 0 ? 0 : n - 2), 3));
		} else {
			const before = k === 0 ? n - 2 : k - 1;
			const a = h(before);
			const b = h(k);
			row[k === 0 ? unknowns - 1 : k - 1]! += b;
			row[k]! += 2 * (a + b);
			row[(k + 1) % unknowns]! += a;
			right.push(scale(add(scale(slope(before), b), scale(slope(k), a)), 3));
		}
		rows.push(row);
	}
	const tangents = solveDense(rows, right);
	if (closed) tangents.push(tangents[0]!);
	return tangents;
}

/** Bézier control points of the spline through points: each point, with two more between neighbours. */
export function splineControl(points: readonly Vector[], at: readonly number[], closed: boolean): Vector[] {
	const tangents = splineTangents(points, at, closed);
	const control: Vector[] = [points[0]!];
	for (let k = 0; k + 1 < points.length; k++) {
		const third = (at[k + 1]! - at[k]!) / 3;
		control.push(
			add(points[k]!, scale(tangents[k]!, third)),
			subtract(points[k + 1]!, scale(tangents[k + 1]!, third)),
			points[k + 1]!
		);
	}
	return control;
}

/** Gaussian elimination with pivoting for a handful of unknown points. */
function solveDense(rows: number[][], right: Vector[]): Vector[] {
	const n = rows.length;
	for (let k = 0; k < n; k++) {
		let pivot = k;
		for (let r = k + 1; r < n; r++) if (Math.abs(rows[r]![k]!) > Math.abs(rows[pivot]![k]!)) pivot = r;
		[rows[k], rows[pivot]] = [rows[pivot]!, rows[k]!];
		[right[k], right[pivot]] = [right[pivot]!, right[k]!];
		for (let r = k + 1; r < n; r++) {
			const factor = rows[r]![k]! / rows[k]![k]!;
			if (factor === 0) continue;
			for (let c = k; c < n; c++) rows[r]![c]! -= factor * rows[k]![c]!;
			right[r] = subtract(right[r]!, scale(right[k]!, factor));
		}
	}
	const result = new Array<Vector>(n);
	for (let k = n - 1; k >= 0; k--) {
		let sum = right[k]!;
		for (let c = k + 1; c < n; c++) sum = subtract(sum, scale(result[c]!, rows[k]![c]!));
		result[k] = scale(sum, 1 / rows[k]![k]!);
	}
	return result;
}

/**
 * The chain through points, parametrised by chord length over 0..1.
 * Neighbouring smooth segments make one spline; a line segment is straight.
 * @param segments one per pair of neighbours; a closed path repeats its first point last
 * @throws RangeError when two neighbouring points coincide
 */
export function bezierChain(points: readonly Vector[], segments: readonly Segment[]): BezierChain {
	const chords = segments.map((_, k) => distance(points[k]!, points[k + 1]!));
	const total = chords.reduce((a, b) => a + b, 0);
	const touching = chords.findIndex((chord) => chord < 1e-9);
	if (touching >= 0) throw new RangeError(`points ${touching + 1} and ${touching + 2} coincide`);
	let sum = 0;
	const breaks = [0, ...chords.map((chord) => (sum += chord) / total)];
	breaks[breaks.length - 1] = 1;

	const control: Vector[] = [];
	const closed = distance(points[0]!, points.at(-1)!) < 1e-9 && segments.every((s) => s === 'smooth');
	let k = 0;
	while (k < segments.length) {
		let end = k + 1;
		if (segments[k] === 'smooth') while (segments[end] === 'smooth') end++;
		control.pop();
		control.push(...splineControl(points.slice(k, end + 1), breaks.slice(k, end + 1), closed));
		k = end;
	}
	return { breaks, points: control };
}

/** The same chain with further breaks, its shape unchanged (de Casteljau). */
export function refineChain(chain: BezierChain, wanted: readonly number[]): BezierChain {
	const breaks = [...chain.breaks];
	const points = [...chain.points];
	for (const t of wanted) {
		if (breaks.some((b) => Math.abs(b - t) < 1e-9)) continue;
		const k = breaks.findIndex((b) => b > t) - 1;
		const s = (t - breaks[k]!) / (breaks[k + 1]! - breaks[k]!);
		const [a, b, c, d] = points.slice(3 * k, 3 * k + 4) as [Vector, Vector, Vector, Vector];
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

/** Bring chains to the same breaks, so that their control points correspond one to one. */
export function alignChains(chains: readonly BezierChain[]): BezierChain[] {
	const all = chains.flatMap((chain) => chain.breaks);
	const aligned = chains.map((chain) => refineChain(chain, all));
	return aligned.map((chain) => ({ ...chain, breaks: aligned[0]!.breaks }));
}

/** Knots of a cubic chain: every break three times, the ends four times. */
export function chainKnots(breaks: readonly number[]): Float64Array {
	const inner = breaks.slice(1, -1).flatMap((t) => [t, t, t]);
	return Float64Array.from([0, 0, 0, 0, ...inner, 1, 1, 1, 1]);
}

export function chainCurve(chain: BezierChain): Curve {
	return {
		degree: 3,
		knots: chainKnots(chain.breaks),
		net: Float64Array.from(chain.points.flatMap((p) => [...p, 1]))
	};
}
