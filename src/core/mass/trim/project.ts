import { inRadians } from '../../units/scale';
import { leastSeed, nearestSeed, nearestFrom, seedsOf } from '../../geometry/nearest';
import type { Place } from '../../geometry/polygon';
import { placeAt } from '../../geometry/surface';
import { add, cross, distance, dot, length, mix, scale, subtract, type Vector } from '../../geometry/vector';
import { refuse } from '../../units/problem';
import { formatNumber } from '../../units/quantity';
import { periodOf, type TrimmedFace } from './trim';
import { NO_DIRECTION, SINGULAR } from '../../geometry/tolerance';

/** Axes square to the direction something is projected along; x stays level. */
export interface Sight {
	readonly x: Vector;
	readonly y: Vector;
	readonly z: Vector;
}

/** @throws ProblemError for a direction without length */
export function sightOf(direction: Vector, turn: number, at: string): Sight {
	const size = length(direction);
	if (!(size > NO_DIRECTION)) refuse(at, 'the direction is nothing; give it a length');
	const z = scale(direction, 1 / size);
	const level: Vector = Math.abs(z[2]) > 0.999 ? [1, 0, 0] : cross([0, 0, 1], z);
	const x = scale(level, 1 / length(level));
	const y = cross(z, x);
	const [cos, sin] = [Math.cos(inRadians(turn)), Math.sin(inRadians(turn))];
	return { x: add(scale(x, cos), scale(y, sin)), y: add(scale(y, cos), scale(x, -sin)), z };
}

const ROUNDS = 30;

const leaves = (face: TrimmedFace, [x, y, z]: Vector, at: string) =>
	refuse(
		at,
		`the outline does not come to lie on ${face.name} near x ${formatNumber(Math.round(x))}, y ${formatNumber(Math.round(y))}, z ${formatNumber(Math.round(z))}; move it, or look at the face from another side`
	);

/** A face at a place as far as it goes, and how far beyond its rims the place lies, in parameters. */
function reached(face: TrimmedFace, place: Place): { point: Vector; u: Vector; v: Vector } {
	const held = heldOn(face, place);
	const { point, du: u, dv: v } = placeAt(face.surface, held[0], held[1]);
	const beyond = [face.closedAcross ? 0 : place[0] - held[0], place[1] - held[1]] as const;
	if (beyond[0] === 0 && beyond[1] === 0) return { point, u, v };
	return { point: add(point, add(scale(u, beyond[0]), scale(v, beyond[1]))), u, v };
}

/** Newton's method in the two directions square to the line of sight; null when it comes to nothing. */
function alongSight(face: TrimmedFace, sight: Sight, target: Vector, from: Place): Place | null {
	let [u, v] = from;
	for (let round = 0; round < ROUNDS; round++) {
		const { point, u: U, v: V } = reached(face, [u, v]);
		const off = subtract(point, target);
		const [p, q] = [dot(off, sight.x), dot(off, sight.y)];
		const [a, b, c, d] = [dot(U, sight.x), dot(V, sight.x), dot(U, sight.y), dot(V, sight.y)];
		const det = a * d - b * c;
		if (Math.hypot(p, q) < 1e-9 * (1 + length(U) + length(V))) return [u, v];
		if (!(Math.abs(det) > SINGULAR * (length(U) * length(V) + 1e-30))) return null;
		[u, v] = [u - (d * p - b * q) / det, v - (a * q - c * p) / det];
	}
	return null;
}

/** A line as points that follow one another; of a closed one the last is joined to the first. */
export interface Line<P> {
	readonly points: readonly P[];
	readonly closed: boolean;
}

/** An outline on a face: its corners, and which point each comes from (-1: one put in between). */
export interface OutlineOnFace {
	readonly places: readonly Place[];
	readonly source: readonly number[];
}

/** Halvings of one side of an outline, at most. */
const MOST_HALVINGS = 8;

/**
 * Places of a line on a face, with further ones where the straight way between two of them, in
 * parameters, would leave the outline's own image by more than so many mm.
 * @param middle the point half way between two
 * @param placeOf where a point comes to lie, sought from the place before it
 */
export function followOnFace<P>(
	face: TrimmedFace,
	{ points, closed }: Line<P>,
	middle: (a: P, b: P) => P,
	placeOf: (point: P, before: Place | undefined) => Place,
	within: number
): OutlineOnFace {
	const places: Place[] = [];
	for (const point of points) places.push(placeOf(point, places.at(-1)));
	const period = periodOf(face);
	const found: Place[] = [];
	const source: number[] = [];
	const halve = (p: P, q: P, a: Place, b: Place, m: P, at: Place, left: number): void => {
		const off = (t: number, place: Place) =>
			distance(onFace(face, [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])]), onFace(face, place));
		// Looked at in its quarters: a way that bends to and fro is straight in its middle.
		const [one, three] = [middle(p, m), middle(m, q)];
		const [oneAt, threeAt] = [placeOf(one, a), placeOf(three, at)];
		const far = Math.max(off(0.25, oneAt), off(0.5, at), off(0.75, threeAt));
		if (left === 0 || far <= within) return;
		halve(p, m, a, at, one, oneAt, left - 1);
		found.push(at);
		source.push(-1);
		halve(m, q, at, b, three, threeAt, left - 1);
	};
	points.forEach((p, k) => {
		const next = (k + 1) % points.length;
		const a = places[k]!;
		if (!closed && next === 0) {
			found.push(a);
			source.push(k);
			return;
		}
		const [u, v] = places[next]!;
		const b: Place = period && next === 0 ? [u + period * Math.round((a[0] - u) / period), v] : [u, v];
		found.push(a);
		source.push(k);
		const m = middle(p, points[next]!);
		halve(p, points[next]!, a, b, m, placeOf(m, a), MOST_HALVINGS);
	});
	return { places: found, source };
}

/**
 * The place within the surface's own parameters: brought back over the seam of a ring, or to the rim.
 *
 * ```ts
 * const onIt = heldOn(face, [1.02, 0.5]);
 * ```
 */
export function heldOn(face: TrimmedFace, [u, v]: Place): Place {
	const { knotsU, knotsV } = face.surface;
	const period = periodOf(face);
	const low = knotsU[0]!;
	const across = period
		? low + ((((u - low) % period) + period) % period)
		: Math.min(knotsU.at(-1)!, Math.max(low, u));
	return [across, Math.min(knotsV.at(-1)!, Math.max(knotsV[0]!, v))];
}

/**
 * The point at a place: on a ring beyond the seam too, and beyond a rim straight on as the face ends there.
 *
 * ```ts
 * const [x, y, z] = onFace(face, [0.5, 0.5]);
 * ```
 */
export const onFace = (face: TrimmedFace, place: Place): Vector => reached(face, place).point;

/** Shares of the parameters by which a place may lie beyond a rim and still count as on it. */
const ON_RIM = 1e-9;

/** Whether a place lies beyond the rims of its face. */
export function isBeside(face: TrimmedFace, place: Place): boolean {
	const held = heldOn(face, place);
	const { knotsU, knotsV } = face.surface;
	const far = (knots: Float64Array, k: 0 | 1) =>
		Math.abs(place[k] - held[k]) > ON_RIM * (knots.at(-1)! - knots[0]!);
	return (!face.closedAcross && far(knotsU, 0)) || far(knotsV, 1);
}

const half = (a: Vector, b: Vector): Vector => mix(a, b, 0.5);

/**
 * Places of a face that a line falls on along a direction, in front of it before behind; beyond its rims the face
 * is taken to go on as it ends there. @throws ProblemError where it does not come to lie even so
 */
export function projectAlong(
	face: TrimmedFace,
	line: Line<Vector>,
	sight: Sight,
	within: number,
	at: string
): OutlineOnFace {
	const seeds = seedsOf(face.surface);
	const placeOf = (point: Vector, before: Place | undefined) => {
		const off = (x: number, y: number, z: number) => {
			const way = subtract([x, y, z], point);
			return dot(way, sight.x) ** 2 + dot(way, sight.y) ** 2 + (dot(way, sight.z) < 0 ? 1e18 : 0);
		};
		return (
			(before && alongSight(face, sight, point, before)) ??
			alongSight(face, sight, point, leastSeed(seeds, off)) ??
			leaves(face, point, at)
		);
	};
	return followOnFace(face, line, half, placeOf, within);
}

/** Finds the place of a face nearest to a point; on a ring u runs on over the seam from the place before. */
function nearestPlaces(face: TrimmedFace): (point: Vector, before: Place | undefined) => Place {
	const { surface, closedAcross } = face;
	const seeds = seedsOf(surface);
	const period = periodOf(face);
	return (point, before) => {
		const start = nearestSeed(seeds, point);
		const { u, v } = nearestFrom(surface, point, start, closedAcross);
		return [period ? u + period * Math.round(((before?.[0] ?? u) - u) / period) : u, v];
	};
}

/** Places of a face nearest to a line; what lies beside it falls on the face as it goes on beyond its rims. */
export function projectNearest(face: TrimmedFace, line: Line<Vector>, within: number): OutlineOnFace {
	const nearest = nearestPlaces(face);
	const placeOf = (point: Vector, before: Place | undefined) =>
		beyondRim(face, point, nearest(point, before));
	return followOnFace(face, line, half, placeOf, within);
}

/**
 * Places of a face nearest to points that follow one another; those beside it come to lie on its rim.
 *
 * ```ts
 * const [place] = nearestOnFace(face, [[0, 0, 5000]]);
 * ```
 */
export function nearestOnFace(face: TrimmedFace, points: readonly Vector[]): Place[] {
	const nearest = nearestPlaces(face);
	const places: Place[] = [];
	for (const point of points) places.push(nearest(point, places.at(-1)));
	return places;
}

/** Where a point falls that lies along the face from its nearest place: straight on, as the face ends there. */
function beyondRim(face: TrimmedFace, point: Vector, place: Place): Place {
	const { point: foot, u, v } = reached(face, place);
	const way = subtract(point, foot);
	const [uu, uv, vv] = [dot(u, u), dot(u, v), dot(v, v)];
	const [p, q] = [dot(way, u), dot(way, v)];
	const det = uu * vv - uv * uv;
	if (!(det > SINGULAR * uu * vv)) return place;
	return [place[0] + (p * vv - q * uv) / det, place[1] + (q * uu - p * uv) / det];
}
