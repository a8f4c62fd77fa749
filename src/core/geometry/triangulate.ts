import earcut from 'earcut';
import { side, type Place } from './polygon';

/** Whether a polygon turns to the left, or goes straight on, at every corner. */
function isConvexPlace(points: readonly Place[]): boolean {
	const n = points.length;
	return points.every((b, k) => side(points[(k + n - 1) % n]!, b, points[(k + 1) % n]!) >= 0);
}

/**
 * Triangles of a simple polygon, counter-clockwise, as numbers of its corners: a fan from the first corner
 * where it is convex.
 *
 * ```ts
 * triangulate([[0, 0], [1, 0], [1, 1], [0, 1]]); // two triangles, as places of corners
 * ```
 */
export function triangulate(points: readonly Place[]): number[] {
	const n = points.length;
	if (n > 3 && !isConvexPlace(points)) {
		const found = earcut(points.flat());
		for (let k = 0; k < found.length; k += 3) {
			const [a, b, c] = found.slice(k, k + 3) as [number, number, number];
			if (side(points[a]!, points[b]!, points[c]!) < 0) [found[k + 1], found[k + 2]] = [c, b];
		}
		if (found.length) return found;
	}
	return Array.from({ length: Math.max(0, n - 2) }, (_, k) => [0, k + 1, k + 2]).flat();
}

/** Of the area, so much may triangles of a filling be turned over: what rounding does. */
const TURNED = 1e-5;
/** Of its size, so far are corners moved where the first try passes some over: those that lie in a line. */
const NUDGES = [0, 1e-6, 3e-5];

/** Twice the signed area of a triangle. @param places x y of every corner */
function doubled(places: Float64Array, a: number, b: number, c: number): number {
	const x = places[2 * a]!;
	const y = places[2 * a + 1]!;
	return (places[2 * b]! - x) * (places[2 * c + 1]! - y) - (places[2 * b + 1]! - y) * (places[2 * c]! - x);
}

/**
 * Twice the area between a polygon and openings in it (mm²).
 *
 * ```ts
 * doubledArea(Float64Array.of(0, 0, 4, 0, 4, 4, 1, 1, 1, 2, 2, 1), [3]); // 16 without 1
 * ```
 * @param places x y of every corner: the polygon, then opening after opening @param openings where each begins
 */
export function doubledArea(places: Float64Array, openings: readonly number[]): number {
	let area = 0;
	for (let loop = 0; loop <= openings.length; loop++) {
		const first = loop ? openings[loop - 1]! : 0;
		const end = openings[loop] ?? places.length / 2;
		let own = 0;
		for (let k = first + 1; k + 1 < end; k++) own += doubled(places, first, k, k + 1);
		area += loop ? -Math.abs(own) : Math.abs(own);
	}
	return area;
}

/**
 * A triangle that is turned over among those that fill an area: where its corners begin in the list; −1 where none is.
 *
 * ```ts
 * turnedOverAt(Float64Array.of(0, 0, 4, 0, 4, 4, 0, 4), [0, 1, 2, 0, 3, 2], 32); // 3
 * ```
 * @param area twice what they fill @param first the search begins with this one, and goes round
 */
export function turnedOverAt(
	places: Float64Array,
	triangles: readonly number[],
	area: number,
	first = 0
): number {
	const least = -TURNED * area;
	const count = triangles.length;
	for (let step = 0, t = first; step < count; step += 3, t = t + 3 < count ? t + 3 : 0)
		if (doubled(places, triangles[t]!, triangles[t + 1]!, triangles[t + 2]!) < least) return t;
	return -1;
}

/**
 * Whether triangles that join loops of corners lie beside each other, none turned over.
 *
 * ```ts
 * if (!fills(places, [0, 1, 2])) tell('a corner lies within');
 * ```
 */
export function fills(places: Float64Array, triangles: readonly number[]): boolean {
	let area = 0;
	for (let t = 0; t < triangles.length; t += 3)
		area += doubled(places, triangles[t]!, triangles[t + 1]!, triangles[t + 2]!);
	return area > 0 && turnedOverAt(places, triangles, area) < 0;
}

/**
 * The same triangles seen from the other side.
 *
 * ```ts
 * turnedOver([0, 1, 2]); // 0, 2, 1
 * ```
 */
export const turnedOver = (triangles: readonly number[]): number[] =>
	triangles.map((_, k) => triangles[k % 3 === 0 ? k : k % 3 === 1 ? k + 1 : k - 1]!);

/**
 * Triangles between a polygon and openings in it, counter-clockwise. They use every corner, so that what is
 * built on the loops closes; null where there are none such.
 *
 * ```ts
 * const triangles = fillLoops(Float64Array.of(0, 0, 4, 0, 4, 4, 1, 1, 1, 2, 2, 1), [3]);
 * ```
 * @param places x y of every corner: the polygon, counter-clockwise, then opening after opening
 * @param openings where each begins
 */
export function fillLoops(places: Float64Array, openings: readonly number[]): number[] | null {
	const wanted = 3 * (places.length / 2 + 2 * openings.length - 2);
	const size = places.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
	for (const nudge of NUDGES) {
		const found = earcut(
			places.map((value, k) => value + nudge * size * Math.sin(12.9898 * (k + 1))),
			[...openings]
		);
		if (found.length !== wanted) continue;
		for (const filling of [found, turnedOver(found)]) if (fills(places, filling)) return filling;
	}
	return null;
}

/**
 * Sides of triangles that no other triangle has, each from its first corner to its second: what is to the left is filled.
 *
 * ```ts
 * openSides([0, 1, 2, 0, 2, 3]); // 0 to 1, 1 to 2, 2 to 3, 3 to 0
 * ```
 */
export function openSides(triangles: ArrayLike<number>): (readonly [number, number])[] {
	let count = 0;
	for (let k = 0; k < triangles.length; k++) count = Math.max(count, triangles[k]! + 1);
	const ways = new Set<number>();
	for (let k = 0; k < triangles.length; k++)
		ways.add(triangles[k]! * count + triangles[k % 3 === 2 ? k - 2 : k + 1]!);
	const found: (readonly [number, number])[] = [];
	for (const way of ways) {
		const [a, b] = [Math.floor(way / count), way % count];
		if (!ways.has(b * count + a)) found.push([a, b]);
	}
	return found;
}

/**
 * The rims of triangles, as rings of corners: what is filled lies to their left.
 *
 * ```ts
 * openRings([0, 1, 2, 0, 2, 3]); // one: 0, 1, 2, 3
 * ```
 */
export function openRings(triangles: ArrayLike<number>): number[][] {
	const left = new Map<number, number[]>();
	for (const [from, to] of openSides(triangles)) {
		const list = left.get(from);
		if (list) list.push(to);
		else left.set(from, [to]);
	}
	const rings: number[][] = [];
	for (const start of left.keys())
		for (let to = left.get(start)?.pop(); to !== undefined; to = left.get(start)?.pop()) {
			const ring = [start];
			while (to !== undefined && to !== start) {
				ring.push(to);
				to = left.get(to)?.pop();
			}
			if (ring.length > 2) rings.push(ring);
		}
	return rings;
}

/**
 * The area of triangles in space (in the square of the unit of their points).
 *
 * ```ts
 * areaOfTriangles([0, 0, 0, 2, 0, 0, 0, 2, 0], [0, 1, 2]); // 2
 * ```
 * @param points flat x y z @param corners numbers of points, three for each triangle
 */
export function areaOfTriangles(points: ArrayLike<number>, corners: ArrayLike<number>): number {
	let sum = 0;
	for (let k = 0; k < corners.length; k += 3) {
		const a = 3 * corners[k]!;
		const b = 3 * corners[k + 1]!;
		const c = 3 * corners[k + 2]!;
		const ux = points[b]! - points[a]!;
		const uy = points[b + 1]! - points[a + 1]!;
		const uz = points[b + 2]! - points[a + 2]!;
		const vx = points[c]! - points[a]!;
		const vy = points[c + 1]! - points[a + 1]!;
		const vz = points[c + 2]! - points[a + 2]!;
		const x = uy * vz - uz * vy;
		const y = uz * vx - ux * vz;
		const z = ux * vy - uy * vx;
		sum += Math.sqrt(x * x + y * y + z * z) / 2;
	}
	return sum;
}

/** Axes of the plane that a ring is seen in, the one nearest to its normal left out; the ring turns left in it. */
type Seen = readonly [p: number, q: number, sign: number];

function seenIn(points: ArrayLike<number>, nodes: ArrayLike<number>, from: number, to: number): Seen {
	let x = 0;
	let y = 0;
	let z = 0;
	let a = 3 * nodes[to - 1]!;
	for (let k = from; k < to; k++) {
		const b = 3 * nodes[k]!;
		x += (points[a + 1]! - points[b + 1]!) * (points[a + 2]! + points[b + 2]!);
		y += (points[a + 2]! - points[b + 2]!) * (points[a]! + points[b]!);
		z += (points[a]! - points[b]!) * (points[a + 1]! + points[b + 1]!);
		a = b;
	}
	const most = Math.max(Math.abs(x), Math.abs(y), Math.abs(z));
	if (Math.abs(z) === most) return [0, 1, Math.sign(z)];
	return Math.abs(y) === most ? [2, 0, Math.sign(y)] : [1, 2, Math.sign(x)];
}

/**
 * Whether a ring in space is convex as {@link flattened} shows it, so that triangles from its first corner fill it.
 *
 * ```ts
 * const isFan = isConvexRing(faceModel.grid.positions, faceModel.cells.corners, 0, 4);
 * ```
 * @param points flat x y z @param nodes the ring is those numbered from `from` to before `to`
 */
export function isConvexRing(
	points: ArrayLike<number>,
	nodes: ArrayLike<number>,
	from: number,
	to: number
): boolean {
	const [p, q, sign] = seenIn(points, nodes, from, to);
	let a = 3 * nodes[to - 2]!;
	let b = 3 * nodes[to - 1]!;
	for (let k = from; k < to; k++) {
		const c = 3 * nodes[k]!;
		const turn =
			(points[b + p]! - points[a + p]!) * (points[c + q]! - points[b + q]!) -
			(points[b + q]! - points[a + q]!) * (points[c + p]! - points[b + p]!);
		if (sign * turn < 0) return false;
		a = b;
		b = c;
	}
	return true;
}

/**
 * A polygon in space seen along its normal, as places in a plane.
 *
 * ```ts
 * const ring = flattened(points, [0, 1, 5, 4]);
 * ```
 */
export function flattened(points: ArrayLike<number>, nodes: ArrayLike<number>): Place[] {
	const n = nodes.length;
	const [p, q, sign] = seenIn(points, nodes, 0, n);
	return Array.from({ length: n }, (_, k): Place => {
		const o = 3 * nodes[k]!;
		return [sign * points[o + p]!, points[o + q]!];
	});
}
