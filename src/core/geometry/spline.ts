import { basisTable } from './basis';
import { BandedSystem, solveCyclic, type CyclicRow } from './banded';
import { addTuple, scaleTuple, subtractTuple, type Tuple } from './tuple';
import { ROUNDED } from './tolerance';

/**
 * Tangents (per unit of parameter) of the cubic spline that runs smoothly through points.
 * Open ends have no curvature (natural spline); a closed one is periodic and repeats its first point last.
 * @param at parameters, strictly increasing
 */
function splineTangents(points: readonly Tuple[], at: readonly number[], closed: boolean): Tuple[] {
	const n = points.length;
	const h = (k: number) => at[k + 1]! - at[k]!;
	const slope = (k: number) => scaleTuple(subtractTuple(points[k + 1]!, points[k]!), 1 / h(k));
	if (n === 2) return [slope(0), slope(0)];
	const right: Tuple[] = [];
	const rows: CyclicRow[] = [];
	for (let k = closed ? 0 : 1; k < n - 1; k++) {
		const before = k === 0 ? n - 2 : k - 1;
		const [a, b] = [h(before), h(k)];
		rows.push({ before: b, own: 2 * (a + b), after: a });
		right.push(scaleTuple(addTuple(scaleTuple(slope(before), b), scaleTuple(slope(k), a)), 3));
	}
	if (!closed) {
		rows.unshift({ before: 0, own: 2, after: 1 });
		rows.push({ before: 1, own: 2, after: 0 });
		right.unshift(scaleTuple(slope(0), 3));
		right.push(scaleTuple(slope(n - 2), 3));
	}
	// Two unknowns that go round are each other's neighbour on both sides.
	if (closed && rows.length === 2) {
		const [one, other] = rows as [CyclicRow, CyclicRow];
		rows[0] = { before: 0, own: one.own, after: one.before + one.after };
		rows[1] = { before: other.before + other.after, own: other.own, after: 0 };
	}
	const tangents: Tuple[] = solveCyclic(rows, right);
	if (closed) tangents.push(tangents[0]!);
	return tangents;
}

/**
 * Bézier control points of the spline through points: each point, with two more between neighbours.
 *
 * ```ts
 * const control = splineControl([[0, 0], [1, 2], [3, 1]], [0, 0.5, 1], false);
 * ```
 */
export function splineControl(points: readonly Tuple[], at: readonly number[], closed: boolean): Tuple[] {
	const tangents = splineTangents(points, at, closed);
	const control: Tuple[] = [points[0]!];
	for (let k = 0; k + 1 < points.length; k++) {
		const third = (at[k + 1]! - at[k]!) / 3;
		control.push(
			addTuple(points[k]!, scaleTuple(tangents[k]!, third)),
			subtractTuple(points[k + 1]!, scaleTuple(tangents[k + 1]!, third)),
			points[k + 1]!
		);
	}
	return control;
}

/**
 * Knots of a curve of `count` control points whose pieces have equal lengths, clamped at both ends.
 *
 * ```ts
 * evenKnots(5, 3); // 0 0 0 0 ½ 1 1 1 1
 * ```
 */
export function evenKnots(count: number, degree: number): Float64Array {
	const pieces = count - degree;
	return Float64Array.from({ length: count + degree + 1 }, (_, k) =>
		Math.min(1, Math.max(0, (k - degree) / pieces))
	);
}

/**
 * Control points of the B-spline of a degree that passes through points at given parameters 0..1, with
 * knots averaged from them. Source: Piegl & Tiller, The NURBS Book, 9.2.1 (eq. 9.8).
 *
 * ```ts
 * const { control, knots } = interpolate([[0, 0], [1, 2], [3, 1]], [0, 0.5, 1], 2);
 * ```
 */
export function interpolate(
	points: readonly Tuple[],
	at: readonly number[],
	degree: number
): { control: Tuple[]; knots: Float64Array } {
	const n = points.length;
	const inner = Array.from({ length: n - degree - 1 }, (_, j) => {
		let sum = 0;
		for (let k = j + 1; k <= j + degree; k++) sum += at[k]!;
		return sum / degree;
	});
	const ends = (value: number) => new Array<number>(degree + 1).fill(value);
	const knots = Float64Array.from([...ends(0), ...inner, ...ends(1)]);
	const table = basisTable(knots, degree, at, 0);
	const width = degree + 1;
	const system = new BandedSystem(n, degree);
	at.forEach((_, k) => {
		for (let i = 0; i < width; i++) {
			const value = table.values[k * width + i]!;
			if (value !== 0) system.set(k, table.first[k]! + i, value);
		}
	});
	return { control: system.solve(points), knots };
}

/**
 * Parameters 0..1 by chord length, averaged over several rows of points.
 *
 * ```ts
 * chordParameters([[[0, 0], [1, 0], [4, 0]]]); // 0, 0.25, 1
 * ```
 */
export function chordParameters(rows: readonly (readonly Tuple[])[]): number[] {
	const count = rows[0]!.length;
	const at = new Array<number>(count).fill(0);
	let used = 0;
	for (const row of rows) {
		const chords = row.slice(1).map((p, k) => Math.hypot(...subtractTuple(p, row[k]!)));
		const total = chords.reduce((a, b) => a + b, 0);
		if (total < ROUNDED) continue;
		used++;
		let sum = 0;
		chords.forEach((chord, k) => (at[k + 1]! += (sum += chord) / total));
	}
	// Points that all coincide are set evenly.
	return at.map((value, k) => (k === count - 1 ? 1 : used ? value / used : k / (count - 1)));
}
