import { nearestPlaces, nearestSeed, seedsOf, type Seeds } from '../../geometry/nearest';
import { evaluateRows, type Surface } from '../../geometry/surface';
import { SAME_POINT } from '../../geometry/tolerance';
import { cross, dot, length, pointAt, scale, subtract, type Vector } from '../../geometry/vector';
import type { Parting } from './section';
import type { TrimmedFace } from './trim';

/** How far points are from a mass (mm), below nought within it, and the way in which that grows: x y z, length 1. */
interface Away {
	readonly away: Float64Array;
	readonly ways: Float64Array;
}

/** A face to which nearest places are sought. */
interface Seeded {
	readonly surface: Surface;
	readonly ring: boolean;
	readonly seeds: Seeds;
	/** All of it lies within: low x y z, then high (mm). */
	readonly box: Float64Array;
}

/** The box round the control points of a surface, which lies within their hull. */
function boxOfNet({ net }: Surface): Float64Array {
	const box = Float64Array.of(Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity);
	for (let k = 0; k < net.length; k += 4)
		for (let axis = 0; axis < 3; axis++) {
			const value = net[k + axis]! / net[k + 3]!;
			if (value < box[axis]!) box[axis] = value;
			if (value > box[3 + axis]!) box[3 + axis] = value;
		}
	return box;
}

/** The least that a point can be from something in a box (mm). */
function leastFrom(box: Float64Array, points: Float64Array, k: number): number {
	let sum = 0;
	for (let axis = 0; axis < 3; axis++) {
		const value = points[3 * k + axis]!;
		const off = Math.max(box[axis]! - value, 0, value - box[3 + axis]!);
		sum += off * off;
	}
	return Math.sqrt(sum);
}

/** Takes what is nearer on one face than on those before. @param square how squarely that face looks to each point */
function takeNearer(
	points: Float64Array,
	{ surface, ring, seeds, box }: Seeded,
	{ away, ways }: Away,
	square: Float64Array
): void {
	const asking = Array.from(away.keys()).filter(
		(k) => leastFrom(box, points, k) <= Math.abs(away[k]!) + SAME_POINT
	);
	if (!asking.length) return;
	const own = new Float64Array(3 * asking.length);
	const [us, vs] = [new Float64Array(asking.length), new Float64Array(asking.length)];
	for (const [n, k] of asking.entries()) {
		const point = pointAt(points, k);
		own.set(point, 3 * n);
		[us[n], vs[n]] = nearestSeed(seeds, point);
	}
	const distances = nearestPlaces(surface, own, us, vs, ring);
	const { points: at, du, dv } = evaluateRows(surface, us, 1, vs);
	for (const [n, k] of asking.entries()) {
		const distance = distances[n]!;
		const near = Math.abs(away[k]!);
		if (distance > near + SAME_POINT) continue;
		const across = cross(pointAt(du, n), pointAt(dv, n));
		const size = length(across);
		const normal: Vector = size > 0 ? scale(across, 1 / size) : [0, 0, 1];
		const off = subtract(pointAt(own, n), pointAt(at, n));
		const facing = distance > SAME_POINT ? dot(off, normal) / distance : 1;
		// Where two faces meet in an edge, the one that looks to the point says on which side it is.
		if (distance > near - SAME_POINT && Math.abs(facing) <= square[k]!) continue;
		square[k] = Math.abs(facing);
		const sign = facing < 0 ? -1 : 1;
		away[k] = sign * distance;
		ways.set(distance > SAME_POINT ? scale(off, sign / distance) : normal, 3 * k);
	}
}

/**
 * What lies outside the faces of a mass is ahead of it. Where the mass is open its faces part space as if they went on
 * straight over their rims.
 */
export function besideMass(faces: readonly TrimmedFace[]): Parting {
	const seeded = faces.map(({ surface, closedAcross }): Seeded => ({
		surface,
		ring: closedAcross,
		seeds: seedsOf(surface),
		box: boxOfNet(surface)
	}));
	const awayOf = (points: Float64Array): Away => {
		const count = points.length / 3;
		const found = { away: new Float64Array(count).fill(Infinity), ways: new Float64Array(3 * count) };
		const square = new Float64Array(count).fill(-1);
		for (const face of seeded) takeNearer(points, face, found, square);
		return found;
	};
	/** How far a point is away and in which way are asked one after the other. */
	let last: { readonly point: Vector; readonly found: Away } | null = null;
	const one = (point: Vector): Away => {
		if (last?.point !== point) last = { point, found: awayOf(Float64Array.from(point)) };
		return last.found;
	};
	return {
		ahead: (point) => one(point).away[0]!,
		aheadOfAll: (points) => awayOf(points).away,
		way: (point) => pointAt(one(point).ways, 0)
	};
}

/** The same the other way round. */
export const turnedRound = ({ ahead, aheadOfAll, way }: Parting): Parting => ({
	ahead: (point) => -ahead(point),
	aheadOfAll: (points) => aheadOfAll(points).map((away) => -away),
	way: (point) => scale(way(point), -1)
});
