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

/** A polygon in space seen along its normal, as places in a plane. */
export function flattened(points: ArrayLike<number>, nodes: ArrayLike<number>): Place[] {
	let [x, y, z] = [0, 0, 0];
	const n = nodes.length;
	for (let k = 0; k < n; k++) {
		const [a, b] = [3 * nodes[k]!, 3 * nodes[(k + 1) % n]!];
		x += (points[a + 1]! - points[b + 1]!) * (points[a + 2]! + points[b + 2]!);
		y += (points[a + 2]! - points[b + 2]!) * (points[a]! + points[b]!);
		z += (points[a]! - points[b]!) * (points[a + 1]! + points[b + 1]!);
	}
	const most = Math.max(Math.abs(x), Math.abs(y), Math.abs(z));
	// The axis nearest to the normal is left out; the others keep the polygon counter-clockwise.
	const [p, q, sign] =
		Math.abs(z) === most
			? [0, 1, Math.sign(z)]
			: Math.abs(y) === most
				? [2, 0, Math.sign(y)]
				: [1, 2, Math.sign(x)];
	return Array.from({ length: n }, (_, k): Place => {
		const o = 3 * nodes[k]!;
		return [sign * points[o + p]!, points[o + q]!];
	});
}
