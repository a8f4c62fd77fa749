import { distinctKnots } from './curve';
import { evaluateGrid, evaluateRows, type Surface } from './surface';
import type { Vector } from './vector';
import { SINGULAR, STILL } from './tolerance';

const ROUNDS = 16;
/** What a step tells of the bending is taken when it is no rounding: the cosine of the two. */
const LEARNT = 1e-8;

export interface NearestPlace {
	readonly u: number;
	readonly v: number;
	/** mm */
	readonly distance: number;
}

/**
 * The places of a surface nearest to points, found from nearby places, all at once: by Gauss-Newton steps, to which what
 * the surface bends towards a point or away from it is learnt from step to step (a structured symmetric rank-one update:
 * Dennis, Gay and Welsch 1981), for a point may be as far off as the surface is round.
 *
 * ```ts
 * const uvd = nearestPlaces(surface, points, us, vs, false);
 * ```
 * @param points x y z of each (mm)
 * @param us, vs parameters to start from; those of the places found are put there
 * @param ring whether the surface meets itself across, so that the way goes on over its seam
 * @param enough a place so near is not sought further (mm)
 * @returns how far each is (mm), never further than the place it starts from
 */
export function nearestPlaces(
	surface: Surface,
	points: Float64Array,
	us: Float64Array,
	vs: Float64Array,
	ring: boolean,
	enough = 0
): Float64Array {
	const { knotsU, knotsV } = surface;
	const [lowU, highU, lowV, highV] = [knotsU[0]!, knotsU.at(-1)!, knotsV[0]!, knotsV.at(-1)!];
	const period = highU - lowU;
	const count = us.length;
	const distances = new Float64Array(count).fill(Infinity);
	// Where each looks next, and which still look.
	const [u, v] = [us.slice(), vs.slice()];
	const looking = Uint32Array.from(us.keys());
	// Of each: what its bending adds to the sums of squares (uu, uv, vv), its last slopes, and the step it took then.
	const bent = new Float64Array(3 * count);
	const slopes = new Float64Array(2 * count);
	const steps = new Float64Array(2 * count);
	let left = count;
	for (let round = 0; round < ROUNDS && left > 0; round++) {
		const samples = evaluateRows(surface, u.subarray(0, left), 1, v.subarray(0, left));
		const { points: at, du, dv } = samples;
		let kept = 0;
		for (let n = 0; n < left; n++) {
			const k = looking[n]!;
			const o = 3 * n;
			const x = points[3 * k]! - at[o]!;
			const y = points[3 * k + 1]! - at[o + 1]!;
			const z = points[3 * k + 2]! - at[o + 2]!;
			const distance = Math.hypot(x, y, z);
			if (distance < distances[k]!) {
				distances[k] = distance;
				us[k] = u[n]!;
				vs[k] = v[n]!;
			}
			if (distance <= enough) continue;
			const a = du[o]! ** 2 + du[o + 1]! ** 2 + du[o + 2]! ** 2;
			const b = du[o]! * dv[o]! + du[o + 1]! * dv[o + 1]! + du[o + 2]! * dv[o + 2]!;
			const c = dv[o]! ** 2 + dv[o + 1]! ** 2 + dv[o + 2]! ** 2;
			const p = du[o]! * x + du[o + 1]! * y + du[o + 2]! * z;
			const q = dv[o]! * x + dv[o + 1]! * y + dv[o + 2]! * z;
			let [uu, uv, vv] = [bent[3 * k]!, bent[3 * k + 1]!, bent[3 * k + 2]!];
			const [s, t] = [steps[2 * k]!, steps[2 * k + 1]!];
			if (s !== 0 || t !== 0) {
				const overU = slopes[2 * k]! - p - (a + uu) * s - (b + uv) * t;
				const overV = slopes[2 * k + 1]! - q - (b + uv) * s - (c + vv) * t;
				const along = overU * s + overV * t;
				if (Math.abs(along) > LEARNT * Math.sqrt((overU * overU + overV * overV) * (s * s + t * t))) {
					bent[3 * k] = uu += (overU * overU) / along;
					bent[3 * k + 1] = uv += (overU * overV) / along;
					bent[3 * k + 2] = vv += (overV * overV) / along;
				}
			}
			slopes[2 * k] = p;
			slopes[2 * k + 1] = q;
			let [h, i, j] = [a + uu, b + uv, c + vv];
			// Where it would lead uphill, or to a pole, the plain step stands.
			if (!(h * j - i * i > SINGULAR * (a + c) ** 2 && h + j > 0)) [h, i, j] = [a, b, c];
			const det = h * j - i * i;
			// At a pole only one direction leads anywhere.
			const both = det > SINGULAR * (a + c) ** 2;
			const stepU = both ? (j * p - i * q) / det : a > c ? p / a : 0;
			const stepV = both ? (h * q - i * p) / det : c > 0 ? q / c : 0;
			let nextU = u[n]! + stepU;
			if (ring) nextU = lowU + ((((nextU - lowU) % period) + period) % period);
			else nextU = Math.min(highU, Math.max(lowU, nextU));
			const nextV = Math.min(highV, Math.max(lowV, v[n]! + stepV));
			steps[2 * k] = ring ? stepU : nextU - u[n]!;
			steps[2 * k + 1] = nextV - v[n]!;
			if (Math.abs(nextU - u[n]!) + Math.abs(nextV - v[n]!) < STILL) continue;
			u[kept] = nextU;
			v[kept] = nextV;
			looking[kept++] = k;
		}
		left = kept;
	}
	return distances;
}

/**
 * The same for one point.
 *
 * ```ts
 * const { u, v, distance: off } = nearestFrom(surface, [0, 0, 5000], [0.5, 0.5], false);
 * ```
 */
export function nearestFrom(
	surface: Surface,
	point: Vector,
	at: readonly [number, number],
	ring: boolean
): NearestPlace {
	const [us, vs] = [Float64Array.of(at[0]), Float64Array.of(at[1])];
	const [distance] = nearestPlaces(surface, Float64Array.from(point), us, vs, ring);
	return { u: us[0]!, v: vs[0]!, distance: distance! };
}

/**
 * The distance from a point to a surface (mm), sought from a nearby place.
 *
 * ```ts
 * distanceTo(surface, [0, 0, 5000], [0.5, 0.5], false); // mm from there to the face
 * ```
 */
export const distanceTo = (
	surface: Surface,
	point: Vector,
	at: readonly [number, number],
	ring: boolean
): number => nearestFrom(surface, point, at, ring).distance;

/** Places spread over a surface, on its knots too, to start a search from; columns, for there are thousands. */
export interface Seeds {
	readonly us: Float64Array;
	readonly vs: Float64Array;
	/** x y z of each (mm): all of a row across, row after row. */
	readonly points: Float64Array;
	/** The box round each row: low x y z, then high (mm). */
	readonly boxes: Float64Array;
}

const SEEDS = 40;

/**
 * ```ts
 * const seeds = seedsOf(surface); // once for each face
 * ```
 */
export function seedsOf(surface: Surface): Seeds {
	const spread = (knots: Float64Array) => {
		const even = Array.from(
			{ length: SEEDS + 1 },
			(_, k) => knots[0]! + (k / SEEDS) * (knots.at(-1)! - knots[0]!)
		);
		return Float64Array.from(new Set([...even, ...distinctKnots(knots)]));
	};
	const [us, vs] = [spread(surface.knotsU), spread(surface.knotsV)];
	const { points } = evaluateGrid(surface, us, vs);
	return { us, vs, points, boxes: boxesOf(points, us.length) };
}

/**
 * The seed for which something is least, as a place of the surface.
 *
 * ```ts
 * const [u, v] = leastSeed(seedsOf(surface), (x, y, z) => z); // near the lowest place
 * ```
 */
export function leastSeed(
	{ us, vs, points }: Seeds,
	of: (x: number, y: number, z: number) => number
): [number, number] {
	let best = 0;
	let least = Infinity;
	for (let k = 0; k < points.length; k += 3) {
		const value = of(points[k]!, points[k + 1]!, points[k + 2]!);
		if (value < least) {
			least = value;
			best = k / 3;
		}
	}
	return [us[best % us.length]!, vs[Math.floor(best / us.length)]!];
}

/**
 * The seed nearest to a point.
 *
 * ```ts
 * const start = nearestSeed(seedsOf(surface), [0, 0, 5000]);
 * ```
 */
export function nearestSeed(seeds: Seeds, [x, y, z]: Vector): [number, number] {
	const { us, vs, points, boxes } = seeds;
	const across = us.length;
	let best = 0;
	let least = Infinity;
	for (let row = 0; row < vs.length; row++) {
		const o = 6 * row;
		const bx = Math.max(boxes[o]! - x, 0, x - boxes[o + 3]!);
		const by = Math.max(boxes[o + 1]! - y, 0, y - boxes[o + 4]!);
		const bz = Math.max(boxes[o + 2]! - z, 0, z - boxes[o + 5]!);
		// Nothing in the row is as near.
		if (bx * bx + by * by + bz * bz >= least) continue;
		for (let k = row * across; k < (row + 1) * across; k++) {
			const dx = points[3 * k]! - x;
			const dy = points[3 * k + 1]! - y;
			const dz = points[3 * k + 2]! - z;
			const away = dx * dx + dy * dy + dz * dz;
			if (away >= least) continue;
			least = away;
			best = k;
		}
	}
	return [us[best % across]!, vs[Math.floor(best / across)]!];
}

/** The box round each row of seeds: low x y z, then high. */
function boxesOf(points: Float64Array, across: number): Float64Array {
	const rows = points.length / (3 * across);
	const boxes = new Float64Array(6 * rows);
	for (let row = 0; row < rows; row++)
		for (let axis = 0; axis < 3; axis++) {
			let [low, high] = [Infinity, -Infinity];
			for (let k = row * across; k < (row + 1) * across; k++) {
				const value = points[3 * k + axis]!;
				if (value < low) low = value;
				if (value > high) high = value;
			}
			boxes[6 * row + axis] = low;
			boxes[6 * row + 3 + axis] = high;
		}
	return boxes;
}
