import { centreOf, type Vector } from '../geometry/vector';

/** Points in a plane: x and y of each, one after the other. */
type Plan = Float64Array;

/** Corners of the convex hull of points in a plane, anticlockwise. @param order of the points, from left to right */
function hullOf(points: Plan, order: readonly number[]): number[] {
	const [x, y] = [(k: number) => points[2 * k]!, (k: number) => points[2 * k + 1]!];
	const half = (sorted: readonly number[]) => {
		const chain: number[] = [];
		for (const p of sorted) {
			while (chain.length > 1) {
				const [a, b] = [chain[chain.length - 2]!, chain[chain.length - 1]!];
				if ((x(b) - x(a)) * (y(p) - y(a)) - (y(b) - y(a)) * (x(p) - x(a)) > 0) break;
				chain.pop();
			}
			chain.push(p);
		}
		chain.pop();
		return chain;
	};
	return [...half(order), ...half([...order].reverse())];
}

/** Points as they are seen along a way of length 1, about their middle. */
function inPlan(points: readonly Vector[], n: Vector): Plan {
	const centre = centreOf(points);
	// Any two directions square to the way and to each other.
	const sizes = n.map(Math.abs);
	const least = sizes.indexOf(Math.min(...sizes));
	const aside = [0, 1, 2].map((k) => (k === least ? 1 : 0) - n[least]! * n[k]!) as [number, number, number];
	const long = Math.hypot(...aside);
	const [ux, uy, uz] = aside.map((one) => one / long) as [number, number, number];
	const [vx, vy, vz] = [n[1] * uz - n[2] * uy, n[2] * ux - n[0] * uz, n[0] * uy - n[1] * ux];
	const plan = new Float64Array(2 * points.length);
	for (let k = 0; k < points.length; k++) {
		const p = points[k]!;
		const [x, y, z] = [p[0] - centre[0], p[1] - centre[1], p[2] - centre[2]];
		plan[2 * k] = ux * x + uy * y + uz * z;
		plan[2 * k + 1] = vx * x + vy * y + vz * z;
	}
	return plan;
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
	const plan = inPlan(points, [way[0] / size, way[1] / size, way[2] / size]);
	const order = points
		.map((_, k) => k)
		.sort((a, b) => plan[2 * a]! - plan[2 * b]! || plan[2 * a + 1]! - plan[2 * b + 1]!);
	const hull = hullOf(plan, order);
	let best: [number, number] = [Infinity, Infinity];
	for (let k = 0; k < hull.length; k++) {
		const [a, b] = [hull[k]!, hull[(k + 1) % hull.length]!];
		const [ex, ey] = [plan[2 * b]! - plan[2 * a]!, plan[2 * b + 1]! - plan[2 * a + 1]!];
		const edge = Math.hypot(ex, ey);
		if (!(edge > 0)) continue;
		const [cx, cy] = [ex / edge, ey / edge];
		let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity];
		for (const p of hull) {
			const along = cx * plan[2 * p]! + cy * plan[2 * p + 1]!;
			const up = cx * plan[2 * p + 1]! - cy * plan[2 * p]!;
			if (along < left) left = along;
			if (along > right) right = along;
			if (up < low) low = up;
			if (up > high) high = up;
		}
		const [wide, tall] = [right - left, high - low];
		if (wide * tall < best[0] * best[1]) best = [Math.max(wide, tall), Math.min(wide, tall)];
	}
	return Number.isFinite(best[0]) ? best : [0, 0];
}
