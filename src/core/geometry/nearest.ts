import { evaluateGrid, type Surface } from './surface';

const ROUNDS = 12;

/**
 * The distance from a point to a surface, found from a nearby place by Gauss-Newton steps.
 * @param at parameters to start from
 * @param ring whether the surface meets itself across, so that the way goes on over its seam
 * @returns mm, never more than the distance at the start
 */
export function distanceTo(
	surface: Surface,
	point: readonly [number, number, number],
	at: readonly [number, number],
	ring: boolean
): number {
	const { knotsU, knotsV } = surface;
	const held = (t: number, knots: Float64Array) => Math.min(knots.at(-1)!, Math.max(knots[0]!, t));
	const low = knotsU[0]!;
	const period = knotsU.at(-1)! - low;
	const round = (t: number) => low + ((((t - low) % period) + period) % period);
	let [u, v] = at;
	let best = Infinity;
	for (let k = 0; k < ROUNDS; k++) {
		const { points, du, dv } = evaluateGrid(surface, [u], [v]);
		const [x, y, z] = [point[0] - points[0]!, point[1] - points[1]!, point[2] - points[2]!];
		const here = Math.hypot(x, y, z);
		if (here < best) best = here;
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
