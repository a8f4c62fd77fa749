import { isWithin, polygonArea, side, type Place } from '../geometry/polygon';
import type { ClipCurve, NearCurve } from './curve-bins';
import { aroundHoles } from './around-holes';

/**
 * Clipping a cell by curves whose kept side lies to their left, in the plane of the lattice. None of the
 * curves crosses another. What runs exactly along a cell's side cuts nothing; pieces without area are dropped.
 */

/** A corner of a piece: of the cell, of a curve, or where a curve crosses a side of the cell. */
export type Corner =
	| { readonly is: 'cell'; readonly corner: number }
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

export interface ClippedCell {
	/** Counter-clockwise; and the holes in them, clockwise. */
	readonly outlines: readonly (readonly PieceCorner[])[];
	readonly holes: readonly (readonly PieceCorner[])[];
	/** No curve comes into the cell. */
	readonly untouched: boolean;
}

/** Lengths in the lattice that count as nothing: a thousandth of a millionth of a step and less. */
const NOTHING = 1e-9;
/** Pieces with less of the cell's area are what rounding leaves. */
const LEAST_SHARE = 1e-10;

const areaOf = (corners: readonly PieceCorner[]) => polygonArea(corners.map(({ at }) => at));
const distance = (a: Place, b: Place) => Math.hypot(a[0] - b[0], a[1] - b[1]);

/** A part of a curve that runs from one place of the cell's rim to another. */
interface Stretch {
	readonly corners: PieceCorner[];
	/** Places on the cell's rim: side number plus the share of it. */
	readonly from: number;
	readonly to: number;
}

/** Where a point of the rim lies on it. */
function rimPlace(cell: readonly Place[], p: Place): number {
	let best = 0;
	let least = Infinity;
	cell.forEach((a, k) => {
		const b = cell[(k + 1) % cell.length]!;
		const size = distance(a, b);
		const along = ((p[0] - a[0]) * (b[0] - a[0]) + (p[1] - a[1]) * (b[1] - a[1])) / (size * size);
		const share = Math.min(1, Math.max(0, along));
		const far = distance(p, [a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])]);
		if (far < least - NOTHING) {
			least = far;
			best = (k + share) % cell.length;
		}
	});
	return best;
}

/** A part of a segment within the cell, in shares of it, and the sides it comes in and goes out by. */
interface Part {
	readonly from: number;
	readonly to: number;
	readonly inBy: number;
	readonly outBy: number;
}

/** How far a point is to the left of a side, times the side's length; nothing when it is on it. */
function leftOf(a: Place, b: Place, p: Place): number {
	const value = side(a, b, p);
	return Math.abs(value) < NOTHING * distance(a, b) ? 0 : value;
}

function partOfConvex(cell: readonly Place[], p: Place, q: Place): Part[] {
	let [from, to, inBy, outBy] = [0, 1, -1, -1];
	for (let k = 0; k < cell.length; k++) {
		const a = cell[k]!;
		const b = cell[k + 1 < cell.length ? k + 1 : 0]!;
		const dp = leftOf(a, b, p);
		const dq = leftOf(a, b, q);
		// What runs along a side, or outside it, cuts nothing.
		if (dp <= 0 && dq <= 0) return [];
		if (dp < 0) {
			const t = dp / (dp - dq);
			if (t > from) [from, inBy] = [t, k];
		} else if (dq < 0) {
			const t = dp / (dp - dq);
			if (t < to) [to, outBy] = [t, k];
		}
	}
	return from < to ? [{ from, to, inBy, outBy }] : [];
}

function partsOfAny(cell: readonly Place[], p: Place, q: Place): Part[] {
	const size = distance(p, q);
	if (size < NOTHING) return [];
	const cuts: { t: number; by: number }[] = [
		{ t: 0, by: -1 },
		{ t: 1, by: -1 }
	];
	cell.forEach((a, k) => {
		const b = cell[(k + 1) % cell.length]!;
		const [dp, dq] = [leftOf(a, b, p), leftOf(a, b, q)];
		const share = (c: Place) =>
			((c[0] - p[0]) * (q[0] - p[0]) + (c[1] - p[1]) * (q[1] - p[1])) / (size * size);
		if (dp === 0 && dq === 0) cuts.push({ t: share(a), by: k }, { t: share(b), by: k });
		else if (dp * dq <= 0) {
			const [da, db] = [leftOf(p, q, a), leftOf(p, q, b)];
			if (da * db <= 0) cuts.push({ t: dp / (dp - dq), by: k });
		}
	});
	const sorted = cuts.filter(({ t }) => t >= 0 && t <= 1).sort((one, other) => one.t - other.t);
	const parts: Part[] = [];
	for (let k = 0; k + 1 < sorted.length; k++) {
		const [a, b] = [sorted[k]!, sorted[k + 1]!];
		if ((b.t - a.t) * size < NOTHING) continue;
		const t = (a.t + b.t) / 2;
		const middle: Place = [p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])];
		if (isOnRim(cell, middle) || !isWithin(cell, middle)) continue;
		parts.push({ from: a.t, to: b.t, inBy: a.by, outBy: b.by });
	}
	return parts;
}

function isOnRim(cell: readonly Place[], p: Place): boolean {
	return cell.some((a, k) => {
		const b = cell[(k + 1) % cell.length]!;
		if (leftOf(a, b, p) !== 0) return false;
		return distance(a, p) + distance(p, b) < distance(a, b) + NOTHING;
	});
}

export function isConvex(cell: readonly Place[]): boolean {
	return cell.every((b, k) => {
		const [a, c] = [cell[(k + cell.length - 1) % cell.length]!, cell[(k + 1) % cell.length]!];
		return side(a, b, c) > -NOTHING * distance(a, b);
	});
}

/** The stretches of one curve within the cell; a closed one that never comes to the rim as `'all'`. */
function stretchesOf(
	cell: readonly Place[],
	convex: boolean,
	curve: NearCurve,
	index: number
): Stretch[] | 'all' {
	const { places, segments, closed } = curve;
	const n = places.length;
	const found: { corners: PieceCorner[]; goesOn: boolean; startsAt: number }[] = [];
	for (const k of segments) {
		const [p, q] = [places[k]!, places[(k + 1) % n]!];
		for (const part of convex ? partOfConvex(cell, p, q) : partsOfAny(cell, p, q)) {
			const on = (t: number): Place => [p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])];
			const corner = (t: number, by: number): PieceCorner => {
				if (distance(on(t), p) < NOTHING) return { corner: { is: 'curve', curve: index, k }, at: p };
				if (distance(on(t), q) < NOTHING)
					return { corner: { is: 'curve', curve: index, k: (k + 1) % n }, at: q };
				return { corner: { is: 'crossing', curve: index, k, side: by, at: on(t) }, at: on(t) };
			};
			const [start, end] = [corner(part.from, part.inBy), corner(part.to, part.outBy)];
			if (distance(start.at, end.at) < NOTHING) continue;
			const last = found.at(-1);
			// Where a curve comes to the rim and goes in again, one stretch ends and another begins.
			if (last?.goesOn && part.from === 0 && distance(last.corners.at(-1)!.at, start.at) < NOTHING)
				last.corners.push(end);
			else found.push({ corners: [start, end], goesOn: false, startsAt: part.from === 0 ? k : -1 });
			found.at(-1)!.goesOn = part.to === 1 && !isOnRim(cell, q);
		}
	}
	const [first, last] = [found[0], found.at(-1)];
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
		from: rimPlace(cell, corners[0]!.at),
		to: rimPlace(cell, corners.at(-1)!.at)
	}));
}

/** All of a curve, for cells that nothing is known of. */
export const wholeCurve = (curve: ClipCurve, index: number): NearCurve => ({
	...curve,
	index,
	segments: Array.from({ length: curve.places.length - (curve.closed ? 0 : 1) }, (_, k) => k)
});

const direction = (from: Place, to: Place): Place => [to[0] - from[0], to[1] - from[1]];

/** Whether a stretch that starts where another ends lies to the left of it, so that one goes on in the other. */
function leadsOn(one: Stretch, next: Stretch): boolean {
	const back = direction(one.corners.at(-1)!.at, one.corners.at(-2)!.at);
	const on = direction(next.corners[0]!.at, next.corners[1]!.at);
	return on[0] * back[1] - on[1] * back[0] > 0;
}

/** Pieces along the stretches and the cell's rim between them. */
function piecesAlong(cell: readonly Place[], stretches: readonly Stretch[]): PieceCorner[][] {
	const n = cell.length;
	const unused = new Set(stretches);
	const ahead = (from: Stretch, to: Stretch) => {
		const way = (((to.from - from.to) % n) + n) % n;
		if (way > NOTHING && way < n - NOTHING) return way;
		return leadsOn(from, to) ? 0 : n;
	};
	const pieces: PieceCorner[][] = [];
	for (const start of stretches) {
		if (!unused.delete(start)) continue;
		const corners = [...start.corners];
		for (let here = start; ;) {
			// On along the rim, counter-clockwise, to where a curve comes in next.
			let next = start;
			for (const one of unused) if (ahead(here, one) < ahead(here, next)) next = one;
			const way = ahead(here, next);
			for (let k = Math.floor(here.to) + 1; k - here.to < way - NOTHING; k++)
				corners.push({ corner: { is: 'cell', corner: k % n }, at: cell[k % n]! });
			if (next === start) break;
			unused.delete(next);
			corners.push(...next.corners);
			here = next;
		}
		pieces.push(corners);
	}
	return pieces;
}

/** @param cell simple, counter-clockwise @param convex what `isConvex` says of it */
export function clipCell(
	cell: readonly Place[],
	curves: readonly NearCurve[],
	convex = isConvex(cell)
): ClippedCell {
	const stretches: Stretch[] = [];
	const loops: PieceCorner[][] = [];
	curves.forEach((curve, index) => {
		const found = stretchesOf(cell, convex, curve, index);
		if (found === 'all')
			loops.push(curve.places.map((at, k) => ({ corner: { is: 'curve', curve: index, k }, at })));
		else stretches.push(...found);
	});
	if (stretches.length + loops.length === 0) return { outlines: [], holes: [], untouched: true };

	const pieces = piecesAlong(cell, stretches);
	const islands = loops.filter((loop) => areaOf(loop) > 0);
	const holes = loops.filter((loop) => areaOf(loop) < 0);
	if (stretches.length === 0) {
		// The outermost curve tells what is left along the rim.
		const outermost = loops.reduce((a, b) => (Math.abs(areaOf(b)) > Math.abs(areaOf(a)) ? b : a));
		if (areaOf(outermost) < 0)
			pieces.push(cell.map((at, corner) => ({ corner: { is: 'cell', corner }, at })));
	}
	const least = LEAST_SHARE * polygonArea(cell);
	return {
		outlines: [...pieces, ...islands].filter((corners) => areaOf(corners) > least),
		holes,
		untouched: false
	};
}

/** The pieces of a clipped cell, each with a hole cut in two through it. */
export const piecesOf = ({ outlines, holes }: ClippedCell): readonly (readonly PieceCorner[])[] =>
	holes.length ? aroundHoles(outlines, holes) : outlines;
