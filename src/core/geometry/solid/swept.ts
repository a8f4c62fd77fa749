import { turnedOver } from '../triangulate';
import type { Vector } from '../vector';
import type { ClosedMesh } from './library';

/**
 * What a ring sweeps out along a direction at each of its corners: closed.
 *
 * ```ts
 * const out = [0, 0, 1] as const;
 * const ring = [[0, 0, 0], [900, 0, 0], [0, 900, 0]] as const;
 * const { vertices } = sweptRing(ring, [out, out, out], [0, 1, 2], 100, 300); // from 100 mm behind to 300 mm before
 * ```
 * @param points, ways counter-clockwise seen from where they are swept to
 * @param cap triangles of the ring, by its corners
 * @param behind, before how far (mm)
 */
export function sweptRing(
	points: readonly Vector[],
	ways: readonly Vector[],
	cap: readonly number[],
	behind: number,
	before: number
): ClosedMesh {
	const n = points.length;
	const moved = (by: number) => points.flatMap((p, k) => p.map((value, a) => value + by * ways[k]![a]!));
	const walls = points.flatMap((_, k) => {
		const next = (k + 1) % n;
		return [k, next, n + next, k, n + next, n + k];
	});
	return {
		vertices: [...moved(-behind), ...moved(before)],
		triangles: [...turnedOver(cap), ...cap.map((corner) => corner + n), ...walls]
	};
}
