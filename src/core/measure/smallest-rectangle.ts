import { centreOf, type Vector } from '../geometry/vector';

type Plan = readonly [number, number];

/** Corners of the convex hull of points in a plane, anticlockwise. */
function hullOf(points: readonly Plan[]): Plan[] {
	const sorted = [...points].sort(([ax, ay], [bx, by]) => ax - bx || ay - by);
	const half = (list: readonly Plan[]) => {
		const chain: Plan[] = [];
		for (const p of list) {
			while (chain.length > 1) {
				const [a, b] = [chain.at(-2)!, chain.at(-1)!];
				if ((b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]) > 0) break;
				chain.pop();
			}
			chain.push(p);
		}
		return chain.slice(0, -1);
	};
	return [...half(sorted), ...half(sorted.reverse())];
}

/**
 * The sides of the smallest rectangle that holds a ring of points, seen along its own normal: what a sheet has to be to
 * cut it from. One side of it lies along an edge of the convex hull (H. Freeman and R. Shapira, *Determining the
 * minimum-area encasing rectangle for an arbitrary closed curve*, 1975; from memory).
 *
 * ```ts
 * const [long, short] = smallestRectangle([[0, 0, 0], [1200, 0, 0], [1200, 0, 900], [0, 0, 900]]); // 1200, 900
 * ```
 * @param ring three points or more, mm, in order
 * @returns the long side and the short one, mm; nought for points in one line or one place
 */
export function smallestRectangle(ring: readonly Vector[]): [number, number] {
	const centre = centreOf(ring);
	const normal: [number, number, number] = [0, 0, 0];
	for (const [k, a] of ring.entries()) {
		const b = ring[(k + 1) % ring.length]!;
		for (let n = 0; n < 3; n++) {
			const [p, q] = [(n + 1) % 3, (n + 2) % 3] as const;
			normal[n]! += (a[p]! - b[p]!) * (a[q]! + b[q]! - 2 * centre[q]!);
		}
	}
	return rectangleAlong(ring, normal);
}

/**
 * The same for any points, seen along a way that is given.
 *
 * ```ts
 * rectangleAlong([[0, 0, 0], [1200, 0, 6], [1200, 900, 0], [0, 900, 6]], [0, 0, 1]); // 1200, 900
 * ```
 * @param way of any length
 */
export function rectangleAlong(points: readonly Vector[], way: Vector): [number, number] {
	const size = Math.hypot(...way);
	if (!(size > 0)) return [0, 0];
	const n = way.map((one) => one / size);
	const centre = centreOf(points);
	// Any two directions square to the normal and to each other.
	const least = n.map(Math.abs).indexOf(Math.min(...n.map(Math.abs)));
	const aside = [0, 1, 2].map((k) => (k === least ? 1 : 0) - n[least]! * n[k]!);
	const long = Math.hypot(...aside);
	const u = aside.map((one) => one / long);
	const v = [0, 1, 2].map((k) => n[(k + 1) % 3]! * u[(k + 2) % 3]! - n[(k + 2) % 3]! * u[(k + 1) % 3]!);
	const along = (p: Vector, way: readonly number[]) =>
		way.reduce((sum, one, k) => sum + one * (p[k]! - centre[k]!), 0);
	const hull = hullOf(points.map((p): Plan => [along(p, u), along(p, v)]));
	let best: [number, number] = [Infinity, Infinity];
	for (const [k, [ax, ay]] of hull.entries()) {
		const [bx, by] = hull[(k + 1) % hull.length]!;
		const edge = Math.hypot(bx - ax, by - ay);
		if (!(edge > 0)) continue;
		const [cx, cy] = [(bx - ax) / edge, (by - ay) / edge];
		const [xs, ys] = [hull.map(([x, y]) => cx * x + cy * y), hull.map(([x, y]) => cx * y - cy * x)];
		const across = Math.max(...xs) - Math.min(...xs);
		const up = Math.max(...ys) - Math.min(...ys);
		if (across * up < best[0] * best[1]) best = [Math.max(across, up), Math.min(across, up)];
	}
	return Number.isFinite(best[0]) ? best : [0, 0];
}
