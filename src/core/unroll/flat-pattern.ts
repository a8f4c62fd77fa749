import { crosses, polygonArea, type Place } from '../geometry/polygon';
import { fills } from '../geometry/triangulate';
import { cross, dot, length, pointAt, subtract } from '../geometry/vector';
import { bestFit } from './best-fit';
import { cutOpen, peaksOf } from './cut-open';
import type { Side } from './outer-side';
import { Unfolding } from './unfolding';

/** Where a sheet is folded: a line of its pattern. */
export interface Fold {
	readonly from: Place;
	readonly to: Place;
	/** rad; more than nothing where the sheet is bent towards the one who looks at its outer side. */
	readonly angle: number;
}

/** A side of a sheet laid flat, seen from outside (mm). */
export interface FlatPattern {
	/** Anticlockwise. */
	readonly outline: readonly Place[];
	/** Clockwise. */
	readonly openings: readonly (readonly Place[])[];
	readonly folds: readonly Fold[];
	/** mm² */
	readonly area: number;
	/** The most that a length is longer or shorter flat than it is (mm); nought where it is developed exactly. */
	readonly off: number;
	/** How many cuts open it so that it lies flat. */
	readonly cuts: number;
	/** It is flat as it is. */
	readonly flat: boolean;
}

/** Lengths that are so near (mm) are the same: meshes are kept in single precision. */
const EXACT = 0.05;
/** Sides turned by less (rad) are no folds: 2°, a sheet takes it up. */
const FOLD = (2 / 180) * Math.PI;
/** Sides turned by less (rad) are not turned: what single precision does to short ones. */
const LEVEL = 1e-3;
/** Corners that stand off the line between their neighbours by less (mm) are none. */
const STRAIGHT = 0.02;
/** Peaks and rims within, up to which a sheet is cut open; where there are more it is curved both ways. */
const FEW = 4;
/** Outlines of more corners are not looked through for places where they cross. */
const MANY = 600;

/** A side laid flat. */
interface Laid {
	readonly side: Side;
	readonly flat: Float64Array;
	readonly unfolding: Unfolding;
	readonly off: number;
	readonly cuts: number;
}

function lay(side: Side, cuts: number): Laid {
	const unfolding = Unfolding.of(side.triangles);
	const flat = new Float64Array(2 * unfolding.corners);
	unfolding.lay(side.points, flat);
	const off = unfolding.worst(side.points, flat);
	return { side, flat, unfolding, off: off > EXACT ? off : 0, cuts };
}

const placeAt = (flat: Float64Array, k: number): Place => [flat[2 * k]!, flat[2 * k + 1]!];

/** Whether a rim crosses itself: a pattern that lies over itself cannot be cut from one sheet. */
function crossesItself({ flat, unfolding }: Laid): boolean {
	const sides = unfolding.rings.flatMap((ring) =>
		ring.map((corner, k) => [corner, ring[(k + 1) % ring.length]!] as const)
	);
	if (sides.length > MANY) return false;
	return sides.some(([a, b], k) =>
		sides
			.slice(k + 1)
			.some(([c, d]) => crosses(placeAt(flat, a), placeAt(flat, b), placeAt(flat, c), placeAt(flat, d)))
	);
}

/** A side laid flat: as it is, or cut open, or as nearly as can be. */
function laidFlat(side: Side): Laid {
	const plain = lay(side, 0);
	if (!plain.off) return plain;
	const [outer, ...inner] = [...plain.unfolding.rings].sort((a, b) => lengthOf(side, b) - lengthOf(side, a));
	const peaks = peaksOf(side);
	if (outer && peaks.length + inner.length <= FEW) {
		const open = cutOpen(side, peaks, inner, outer);
		const laid = lay(open.side, open.cuts);
		if (!laid.off && !crossesItself(laid)) return laid;
	}
	const flat = bestFit(side, plain.unfolding, plain.flat);
	const off = plain.unfolding.worst(side.points, flat);
	return { ...plain, flat, off: fills(flat, side.triangles) ? off : Infinity };
}

const lengthOf = ({ points }: Side, ring: readonly number[]): number =>
	ring.reduce(
		(sum, corner, k) =>
			sum + length(subtract(pointAt(points, ring[(k + 1) % ring.length]!), pointAt(points, corner))),
		0
	);

/** Corners where a ring turns. */
function turning(ring: readonly Place[]): Place[] {
	const kept: Place[] = [];
	ring.forEach((place, k) => {
		const [ax, ay] = kept.at(-1) ?? ring[(k + ring.length - 1) % ring.length]!;
		const [bx, by] = ring[(k + 1) % ring.length]!;
		const chord = Math.hypot(bx - ax, by - ay);
		const off = Math.abs((bx - ax) * (place[1] - ay) - (by - ay) * (place[0] - ax));
		if (chord === 0 || off / chord > STRAIGHT) kept.push(place);
	});
	return kept;
}

/** Two folds that go on from one another as one; null where they do not. */
function joined(a: Fold, b: Fold): Fold | null {
	if (Math.abs(a.angle - b.angle) > FOLD / 4) return null;
	for (const [start, middle] of [
		[a.from, a.to],
		[a.to, a.from]
	] as const)
		for (const [next, end] of [
			[b.from, b.to],
			[b.to, b.from]
		] as const) {
			if (Math.hypot(next[0] - middle[0], next[1] - middle[1]) > EXACT) continue;
			const chord = Math.hypot(end[0] - start[0], end[1] - start[1]);
			const off = Math.abs(
				(end[0] - start[0]) * (middle[1] - start[1]) - (end[1] - start[1]) * (middle[0] - start[0])
			);
			const isOn =
				(middle[0] - start[0]) * (end[0] - middle[0]) + (middle[1] - start[1]) * (end[1] - middle[1]) > 0;
			if (isOn && off <= EXACT * chord) return { from: start, to: end, angle: a.angle };
		}
	return null;
}

/** How each side that two triangles have is turned (rad), and its two corners. */
function turnsOf({
	side: { points },
	unfolding: { inner }
}: Laid): { a: number; b: number; angle: number }[] {
	return Array.from({ length: inner.length / 4 }, (_, n) => {
		const [a, b] = [inner[4 * n]!, inner[4 * n + 1]!];
		const start = pointAt(points, a);
		const way = subtract(pointAt(points, b), start);
		const left = cross(way, subtract(pointAt(points, inner[4 * n + 2]!), start));
		const right = cross(subtract(pointAt(points, inner[4 * n + 3]!), start), way);
		return { a, b, angle: Math.atan2(-dot(cross(left, right), way) / (length(way) || 1), dot(left, right)) };
	});
}

/** Lines where the sheet is folded, those that go on from one another as one. */
function foldsOf(turns: ReturnType<typeof turnsOf>, flat: Float64Array): Fold[] {
	const folds: Fold[] = [];
	for (const { a, b, angle } of turns) {
		if (Math.abs(angle) < FOLD) continue;
		let fold: Fold = { from: placeAt(flat, a), to: placeAt(flat, b), angle };
		for (let n = folds.length - 1; n >= 0; n--) {
			const one = joined(folds[n]!, fold);
			if (!one) continue;
			folds.splice(n, 1);
			fold = one;
		}
		folds.push(fold);
	}
	return folds;
}

/**
 * A side of a sheet laid flat: developed exactly where it can be, cut open for that where few cuts do, or else fitted, and
 * how far off that is.
 *
 * ```ts
 * const { outline, off } = flatPattern({ points: Float64Array.of(0, 0, 0, 9, 0, 0, 9, 9, 0), triangles: [0, 1, 2] });
 * ```
 */
export function flatPattern(side: Side): FlatPattern {
	const laid = laidFlat(side);
	const rings = laid.unfolding.rings.map((ring) => ring.map((corner) => placeAt(laid.flat, corner)));
	const byArea = rings.map((ring) => ({ ring, area: polygonArea(ring) })).sort((a, b) => b.area - a.area);
	const [outline, ...openings] = byArea.map(({ ring }) => turning(ring)).filter((ring) => ring.length > 2);
	const turns = turnsOf(laid);
	return {
		outline: outline ?? [],
		openings,
		// What is fitted is curved all over.
		folds: laid.off ? [] : foldsOf(turns, laid.flat),
		flat: turns.every(({ angle }) => Math.abs(angle) <= LEVEL),
		area: byArea.reduce((sum, { area }) => sum + area, 0),
		off: laid.off,
		cuts: laid.cuts
	};
}
