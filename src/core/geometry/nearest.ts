import { distinctKnots } from './curve';
import { evaluateGrid, type Surface } from './surface';
import type { Vector } from './vector';

const ROUNDS = 12;

export interface NearestPlace {
	readonly u: number;
	readonly v: number;
	/** mm */
	readonly distance: number;
}

/**
 * The place of a surface nearest to a point, found from a nearby place by Gauss-Newton steps.
 * @param at parameters to start from
 * @param ring whether the surface meets itself across, so that the way goes on over its seam
 * @returns never further than the place it starts from
 */
export function nearestFrom(
	surface: Surface,
	point: Vector,
	at: readonly [number, number],
	ring: boolean
): NearestPlace {
	const { knotsU, knotsV } = surface;
	const held = (t: number, knots: Float64Array) => Math.min(knots.at(-1)!, Math.max(knots[0]!, t));
	const low = knotsU[0]!;
	const period = knotsU.at(-1)! - low;
	const round = (t: number) => low + ((((t - low) % period) + period) % period);
	let [u, v] = at;
	let best: NearestPlace = { u, v, distance: Infinity };
	for (let k = 0; k < ROUNDS; k++) {
		const { points, du, dv } = evaluateGrid(surface, [u], [v]);
		const [x, y, z] = [point[0] - points[0]!, point[1] - points[1]!, point[2] - points[2]!];
		const distance = Math.hypot(x, y, z);
		if (distance < best.distance) best = { u, v, distance };
		const a = du[0]! ** 2 + du[1]! ** 2 + du[2]! ** 2;
		const b = du[0]! * dv[0]! + du[1]! * dv[1]! + du[2]! * dv[2]!;
		const c = dv[0]! ** 2 + dv[1]! ** 2 + dv[2]! ** 2;
		const p = du[0]! * x + du[1]! * y + du[2]! * z;
		const q = dv[0]! * x + dv[1]! * y + dv[2]! * z;
		const det = a * c - b * b;
		// At a pole only one direction leads anywhere.
		const [stepU, stepV] =
			det > 1e-12 * (a + c) ** 2
				? [(c * p - b * q) / det, (a * q - b * p) / det]
				: [a > c ? p / a : 0, c > 0 ? q / c : 0];
		const across = ring ? round(u + stepU) : held(u + stepU, knotsU);
		const next = [across, held(v + stepV, knotsV)] as const;
		if (Math.abs(next[0] - u) + Math.abs(next[1] - v) < 1e-12) break;
		[u, v] = next;
	}
	return best;
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
