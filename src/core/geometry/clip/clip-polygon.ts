import { polygonArea, side, type Place } from '../polygon';
import type { ClipCurve, NearCurve } from './curve-bins';
import { aroundHoles } from './around-holes';
import { distance, NOTHING, partOfConvex, partsOfAny } from './parts-within';

/**
 * Clipping a polygon by curves whose kept side lies to their left, in the plane of the lattice. None of the
 * curves crosses another. What runs exactly along a polygon's side cuts nothing; pieces without area are dropped.
 */

/** A corner of a piece: of the polygon, of a curve, or where a curve crosses a side of the polygon. */
export type Corner =
	| { readonly is: 'polygon'; readonly corner: number }
	| { readonly is: 'curve'; readonly curve: number; readonly k: number }
	| {
			readonly is: 'crossing';
			readonly curve: number;
			readonly k: number;
			readonly side: number;
			readonly at: Place;
	  };

/** A corner with its place. */
export interface PieceCorner {
	readonly corner: Corner;
	readonly at: Place;
}

export interface ClippedPolygon {
	/** Counter-clockwise; and the holes in them, clockwise. */
	readonly outlines: readonly (readonly PieceCorner[])[];
	readonly holes: readonly (readonly PieceCorner[])[];
	/** No curve comes into the polygon. */
	readonly untouched: boolean;
}

/** Pieces with less of the polygon's area are what rounding leaves. */
const LEAST_SHARE = 1e-10;

function areaOf(corners: readonly PieceCorner[]): number {
	let sum = 0;
	for (let k = 0; k < corners.length; k++) {
		const [p, q] = [corners[k]!.at, corners[k + 1 < corners.length ? k + 1 : 0]!.at];
		sum += p[0] * q[1] - q[0] * p[1];
	}
	return sum / 2;
}

/** A part of a curve that runs from one place of the polygon's rim to another. */
interface Stretch {
	readonly corners: PieceCorner[];
	/** Places on the polygon's rim: side number plus the share of it. */
	readonly from: number;
	readonly to: number;
}

/** Where a point of the rim lies on it. */
function rimPlace(polygon: readonly Place[], p: Place): number {
	let best = 0;
	let least = Infinity;
	polygon.forEach((a, k) => {
		const b = polygon[(k + 1) % polygon.length]!;
		const size = distance(a, b);
		const along = ((p[0] - a[0]) * (b[0] - a[0]) + (p[1] - a[1]) * (b[1] - a[1])) / (size * size);
		const share = Math.min(1, Math.max(0, along));
		const far = distance(p, [a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])]);
		if (far < least - NOTHING) {
			least = far;
			best = (k + share) % polygon.length;
		}
	});
	return best;
}

/**
 * Whether a polygon that runs anticlockwise has no re-entrant corner; straight ones are let pass.
 *
 * ```ts
 * isConvex([[0, 0], [1, 0], [1, 1], [0, 1]]); // true
 * ```
 */
export function isConvex(polygon: readonly Place[]): boolean {
	return polygon.every((b, k) => {
		const [a, c] = [polygon[(k + polygon.length - 1) % polygon.length]!, polygon[(k + 1) % polygon.length]!];
		return side(a, b, c) > -NOTHING * distance(a, b);
	});
}

/** A corner of a stretch at a share of a segment from p to q: an end of the segment, or on a side of the polygon. */
function cornerAt(
	curve: number,
	k: number,
	next: number,
	p: Place,
	q: Place,
	t: number,
	by: number
): PieceCorner {
	const at: Place = [p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])];
	if (distance(at, p) < NOTHING) return { corner: { is: 'curve', curve, k }, at: p };
	if (distance(at, q) < NOTHING) return { corner: { is: 'curve', curve, k: next }, at: q };
	return { corner: { is: 'crossing', curve, k, side: by, at }, at };
}

/** Where the end of a stretch lies on the rim. */
function rimPlaceOf(polygon: readonly Place[], { corner, at }: PieceCorner): number {
	if (corner.is !== 'crossing') return rimPlace(polygon, at);
	const [a, b] = [polygon[corner.side]!, polygon[(corner.side + 1) % polygon.length]!];
	return (corner.side + Math.min(1, distance(a, at) / distance(a, b))) % polygon.length;
}

/** A stretch as it grows. */
interface Growing {
	readonly corners: PieceCorner[];
	goesOn: boolean;
	readonly startsAt: number;
}

/** The stretches of one curve within the polygon; a closed one that never comes to the rim as `'all'`. */
function stretchesOf(
	polygon: readonly Place[],
	convex: boolean,
	curve: NearCurve,
	index: number
): Stretch[] | 'all' {
	const { places, segments, closed } = curve;
	const n = places.length;
	const found: Growing[] = [];
	let last: Growing | null = null;
	for (let s = 0; s < segments.length; s++) {
		const k = segments[s]!;
		const next = k + 1 < n ? k + 1 : 0;
		const p = places[k]!;
		const q = places[next]!;
		const parts = convex ? partOfConvex(polygon, p, q) : partsOfAny(polygon, p, q);
		for (const part of parts) {
			const start = cornerAt(index, k, next, p, q, part.from, part.inBy);
			const end = cornerAt(index, k, next, p, q, part.to, part.outBy);
			if (distance(start.at, end.at) < NOTHING) continue;
			// Where a curve comes to the rim and goes in again, one stretch ends and another begins.
			const goesOn: boolean =
				last !== null &&
				last.goesOn &&
				part.from === 0 &&
				distance(last.corners[last.corners.length - 1]!.at, start.at) < NOTHING;
			if (goesOn) last!.corners.push(end);
			else {
				last = { corners: [start, end], goesOn: false, startsAt: part.from === 0 ? k : -1 };
				found.push(last);
			}
			last!.goesOn = part.to === 1 && part.endsInside;
		}
	}
	const first = found[0];
	// A closed curve's own start may lie within a stretch.
	if (
		closed &&
		first &&
		last?.goesOn &&
		first.startsAt === 0 &&
		distance(last.corners.at(-1)!.at, first.corners[0]!.at) < NOTHING
	) {
		if (found.length === 1) return 'all';
		last.corners.push(...first.corners.slice(1));
		found.shift();
	}
	return found.map(({ corners }) => ({
		corners,
		from: rimPlaceOf(polygon, corners[0]!),
		to: rimPlaceOf(polygon, corners[corners.length - 1]!)
	}));
}

/**
 * All of a curve, for polygons that nothing is known of.
 *
 * ```ts
 * const near = wholeCurve(trimCurve, 0);
 * ```
 */
export const wholeCurve = (curve: ClipCurve, index: number): NearCurve => ({
	...curve,
	index,
	segments: Array.from({ length: curve.places.length - (curve.closed ? 0 : 1) }, (_, k) => k)
});

const direction = (from: Place, to: Place): Place => [to[0] - from[0], to[1] - from[1]];

/** The turn (rad, 0 up to 2π) to the right from one direction to another. */
function turnToRight(from: Place, to: Place): number {
	const turn = -Math.atan2(from[0] * to[1] - from[1] * to[0], from[0] * to[0] + from[1] * to[1]);
	return turn < 0 ? turn + 2 * Math.PI : turn;
}

/**
 * How far along the rim it is from where a stretch ends to where another starts. Where they meet, the one goes
 * on in the other when it comes before the rim does, turning to the right from where it came: less than nothing,
 * the nearer the less.
 */
function ahead(polygon: readonly Place[], from: Stretch, to: Stretch): number {
	const n = polygon.length;
	const way = (((to.from - from.to) % n) + n) % n;
	if (way > NOTHING && way < n - NOTHING) return way;
	const end = from.corners.at(-1)!.at;
	const back = direction(end, from.corners.at(-2)!.at);
	const rim = direction(end, polygon[(Math.floor(from.to + NOTHING) + 1) % n]!);
	const turn = turnToRight(back, direction(to.corners[0]!.at, to.corners[1]!.at));
	return turn < turnToRight(back, rim) ? turn - 2 * Math.PI : n;
}

/** Pieces along the stretches and the polygon's rim between them. */
function piecesAlong(polygon: readonly Place[], stretches: readonly Stretch[]): PieceCorner[][] {
	const n = polygon.length;
	const used = new Set<Stretch>();
	const pieces: PieceCorner[][] = [];
	for (const start of stretches) {
		if (used.has(start)) continue;
		used.add(start);
		const corners = [...start.corners];
		for (let here = start; ;) {
			// On along the rim, counter-clockwise, to where a curve comes in next.
			let next = start;
			let way = ahead(polygon, here, start);
			for (const one of stretches) {
				if (used.has(one)) continue;
				const far = ahead(polygon, here, one);
				if (far < way) {
					way = far;
					next = one;
				}
			}
			for (let k = Math.floor(here.to) + 1; k - here.to < way - NOTHING; k++)
				corners.push({ corner: { is: 'polygon', corner: k % n }, at: polygon[k % n]! });
			// Where one goes on in the other, both have the corner between them.
			if (way < 0) corners.pop();
			if (next === start) break;
			used.add(next);
			for (const corner of next.corners) corners.push(corner);
			here = next;
		}
		pieces.push(corners);
	}
	return pieces;
}

/**
 * @param polygon simple, counter-clockwise
 *
 * ```ts
 * const { outlines, holes } = clipPolygon(ring, [wholeCurve(trimCurve, 0)]);
 * ```
 * @param convex what `isConvex` says of it
 */
export function clipPolygon(
	polygon: readonly Place[],
	curves: readonly NearCurve[],
	convex = isConvex(polygon)
): ClippedPolygon {
	const stretches: Stretch[] = [];
	const loops: PieceCorner[][] = [];
	curves.forEach((curve, index) => {
		const found = stretchesOf(polygon, convex, curve, index);
		if (found === 'all')
			loops.push(curve.places.map((at, k) => ({ corner: { is: 'curve', curve: index, k }, at })));
		else stretches.push(...found);
	});
	if (stretches.length + loops.length === 0) return { outlines: [], holes: [], untouched: true };

	const outlines = piecesAlong(polygon, stretches);
	const holes: PieceCorner[][] = [];
	for (const loop of loops) (areaOf(loop) > 0 ? outlines : holes).push(loop);
	if (stretches.length === 0) {
		// The outermost curve tells what is left along the rim.
		const outermost = loops.reduce((a, b) => (Math.abs(areaOf(b)) > Math.abs(areaOf(a)) ? b : a));
		if (areaOf(outermost) < 0)
			outlines.push(polygon.map((at, corner) => ({ corner: { is: 'polygon', corner }, at })));
	}
	const least = LEAST_SHARE * polygonArea(polygon);
	return { outlines: outlines.filter((corners) => areaOf(corners) > least), holes, untouched: false };
}

/** The pieces of a clipped polygon, each with a hole cut in two through it. */
export const piecesOf = ({ outlines, holes }: ClippedPolygon): readonly (readonly PieceCorner[])[] =>
	holes.length ? aroundHoles(outlines, holes) : outlines;
