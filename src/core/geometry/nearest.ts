import { distinctKnots } from './curve';
import { evaluateGrid, evaluateRows, type Surface } from './surface';
import type { Vector } from './vector';

const ROUNDS = 12;

export interface NearestPlace {
	readonly u: number;
	readonly v: number;
	/** mm */
	readonly distance: number;
}

/**
 * The places of a surface nearest to points, found from nearby places by Gauss-Newton steps, all at once.
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
			const det = a * c - b * b;
			// At a pole only one direction leads anywhere.
			const both = det > 1e-12 * (a + c) ** 2;
			const stepU = both ? (c * p - b * q) / det : a > c ? p / a : 0;
			const stepV = both ? (a * q - b * p) / det : c > 0 ? q / c : 0;
			let nextU = u[n]! + stepU;
			if (ring) nextU = lowU + ((((nextU - lowU) % period) + period) % period);
			else nextU = Math.min(highU, Math.max(lowU, nextU));
			const nextV = Math.min(highV, Math.max(lowV, v[n]! + stepV));
			if (Math.abs(nextU - u[n]!) + Math.abs(nextV - v[n]!) < 1e-12) continue;
			u[kept] = nextU;
			v[kept] = nextV;
			looking[kept++] = k;
		}
		left = kept;
	}
	return distances;
}

/** The same for one point. */
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

/** The distance from a point to a surface (mm), sought from a nearby place. */
export const distanceTo = (
	surface: Surface,
	point: Vector,
	at: readonly [number, number],
	ring: boolean
): number => nearestFrom(surface, point, at, ring).distance;

/** A place of a surface. */
export interface Seed {
	readonly u: number;
	readonly v: number;
	readonly point: Vector;
}

const SEEDS = 40;

/** Places spread over a surface, on its knots too, to start a search from. */
export function seedsOf(surface: Surface): Seed[] {
	const spread = (knots: Float64Array) => {
		const even = Array.from(
			{ length: SEEDS + 1 },
			(_, k) => knots[0]! + (k / SEEDS) * (knots.at(-1)! - knots[0]!)
		);
		return [...new Set([...even, ...distinctKnots(knots)])];
	};
	const [us, vs] = [spread(surface.knotsU), spread(surface.knotsV)];
	const { points } = evaluateGrid(surface, us, vs);
	return vs.flatMap((v, j) =>
		us.map((u, i): Seed => {
			const o = 3 * (j * us.length + i);
			return { u, v, point: [points[o]!, points[o + 1]!, points[o + 2]!] };
		})
	);
}

/** The seed for which something is least. */
export function leastSeed(seeds: readonly Seed[], of: (point: Vector) => number): [number, number] {
	let best = seeds[0]!;
	let least = Infinity;
	for (const seed of seeds) {
		const value = of(seed.point);
		if (value < least) [least, best] = [value, seed];
	}
	return [best.u, best.v];
}
