import { rounded } from '$core/units/quantity';
import type { Edit } from '$core/project/edits';
import type { Segment } from '$core/geometry/path';
import { bezierChain, chainCurve, type BezierChain } from '$core/geometry/path';
import { evenPoints } from '$core/geometry/even-points';
import { evaluateCurve } from '$core/geometry/curve';
import { outlineChain, profileChain, sampleChain } from '$core/mass/drawn-curve';
import type { Vector } from '$core/geometry/vector';
import { below, insertAt, removeAt, setAt, type Path, type Place } from '$core/project/typed-path';

/** A curve of the document as the editor works on it. */
export interface EditedCurve {
	/** Where the curve stands in the document; its points and joins are below it. */
	readonly path: Place;
	readonly label: string;
	readonly points: readonly (readonly number[])[];
	readonly joins: Segment | readonly Segment[];
	/** Names of the coordinates, two or three. */
	readonly axes: readonly string[];
	/** Whether it goes round: always, never, or as this switch of the document says. */
	readonly closed: 'always' | 'never' | boolean;
	/** Completed by its mirror image; undefined where that is not offered. */
	readonly mirrored?: boolean;
	readonly arcs: boolean;
}

interface Drawn {
	points: readonly (readonly number[])[];
	joins: Segment | readonly Segment[];
	mirrored: boolean;
	closed: boolean;
}

export const goesRound = (curve: EditedCurve) =>
	!curve.mirrored && (curve.closed === 'always' || curve.closed === true);

/** Its place, whose points have as many coordinates as it has axes. */
const placeOf = ({ path }: EditedCurve) => path as string as Path<Drawn>;

/** Pairs of neighbours that are joined. */
export const pairsOf = (curve: EditedCurve) => curve.points.length - (goesRound(curve) ? 0 : 1);

export function joinList(curve: EditedCurve): Segment[] {
	const { joins } = curve;
	const pairs = Math.max(0, pairsOf(curve));
	if (!Array.isArray(joins)) return new Array<Segment>(pairs).fill(joins as Segment);
	const list = joins as readonly Segment[];
	return Array.from({ length: pairs }, (_, k) => list[k] ?? list.at(-1) ?? 'line');
}

/** One word when all are the same, so that later points join in the same way. */
function shortest(list: readonly Segment[]): Segment | readonly Segment[] {
	const [first] = list;
	return first !== undefined && list.every((one) => one === first) ? first : list;
}

const setJoins = (curve: EditedCurve, list: readonly Segment[]): Edit =>
	setAt(below(placeOf(curve), 'joins'), shortest(list));

export const movePoint = (curve: EditedCurve, k: number, to: readonly number[]): Edit =>
	setAt(below(placeOf(curve), 'points', k), to);

export function joinAs(curve: EditedCurve, k: number, segment: Segment): Edit {
	return setJoins(
		curve,
		joinList(curve).map((one, n) => (n === k ? segment : one))
	);
}

/** A point in the middle of a pair; it is joined to both sides as they were. */
export function splitPair(curve: EditedCurve, k: number): Edit[] {
	const a = curve.points[k]!;
	const b = curve.points[(k + 1) % curve.points.length]!;
	const list = joinList(curve);
	const both = typeof list[k] === 'object' ? 'line' : list[k]!;
	return [
		insertAt(
			below(placeOf(curve), 'points'),
			k + 1,
			a.map((value, axis) => Math.round((value + b[axis]!) / 2))
		),
		setJoins(curve, [...list.slice(0, k), both, both, ...list.slice(k + 1)])
	];
}

export function removePoint(curve: EditedCurve, k: number): Edit[] {
	const list = joinList(curve);
	const at = Math.min(k, list.length - 1);
	return [
		removeAt(below(placeOf(curve), 'points', k)),
		setJoins(curve, [...list.slice(0, at), ...list.slice(at + 1)])
	];
}

/** A switch that changes how many pairs there are brings its joins along. */
export function setSwitch(curve: EditedCurve, key: 'mirrored' | 'closed', value: boolean): Edit[] {
	const list = joinList(curve);
	const pairs = pairsOf({ ...curve, [key]: value });
	const fitted = Array.from({ length: pairs }, (_, k) => list[k] ?? list.at(-1) ?? 'line');
	return [setAt(below(placeOf(curve), key), value), setJoins(curve, fitted)];
}

/** A straight pair brought to a length by moving its second point along it. */
export function setLength(curve: EditedCurve, k: number, length: number): Edit {
	const a = curve.points[k]!;
	const next = (k + 1) % curve.points.length;
	const b = curve.points[next]!;
	const now = Math.hypot(...a.map((value, axis) => b[axis]! - value)) || 1;
	return movePoint(
		curve,
		next,
		a.map((value, axis) => rounded(value + ((b[axis]! - value) * length) / now, 3))
	);
}

/** The curve as a chain. @throws when it is broken */
function chainOfCurve(curve: EditedCurve): BezierChain {
	if (curve.axes.length === 3) {
		const round = goesRound(curve) ? [...curve.points, curve.points[0]!] : curve.points;
		return bezierChain(round as unknown as Vector[], joinList(curve));
	}
	const drawn = {
		points: curve.points as [number, number][],
		joins: curve.joins as 'line',
		mirrored: curve.mirrored ?? false
	};
	return curve.closed === 'always'
		? outlineChain({ shape: 'drawn', rounding: 0, ...drawn }, '')
		: profileChain(drawn, '');
}

/**
 * The edits that even a curve out to a smooth one through so many points, and how far it then is from the old one
 * at most (mm). A mirrored curve is taken whole, no longer mirrored.
 */
export function evenOut(curve: EditedCurve, count: number): { edits: Edit[]; deviation: number } {
	const closed = curve.closed === 'always' || curve.closed === true;
	const { points, deviation } = evenPoints(chainOfCurve(curve), count, closed);
	const value = points.map((p) => p.slice(0, curve.axes.length).map((coordinate) => rounded(coordinate, 1)));
	const edits: Edit[] = [
		setAt(below(placeOf(curve), 'points'), value),
		setAt(below(placeOf(curve), 'joins'), 'smooth')
	];
	if (curve.mirrored) edits.push(setAt(below(placeOf(curve), 'mirrored'), false));
	return { edits, deviation };
}

/** Points along the curve for drawing, all its coordinates; straight between its points when it is broken. */
export function drawnPoints(curve: EditedCurve): number[][] {
	try {
		const chain = chainOfCurve(curve);
		if (curve.axes.length === 2) return sampleChain(chain).map((p) => [...p]);
		const at = Array.from({ length: 24 * chain.breaks.length + 1 }, (_, k) => k / (24 * chain.breaks.length));
		const { points } = evaluateCurve(chainCurve(chain), at);
		return at.map((_, k) => [...points.subarray(3 * k, 3 * k + 3)]);
	} catch {
		return [...curve.points, ...(goesRound(curve) ? [curve.points[0]!] : [])].map((p) => [...p]);
	}
}
