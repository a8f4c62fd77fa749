import { isWithin, side, type Place } from '../polygon';
import { SAME_SHARE } from '../tolerance';

/** Lengths in the lattice that count as nothing: a thousandth of a millionth of a step and less. */
export const NOTHING = 1e-9;

export function distance(a: Place, b: Place): number {
	const [x, y] = [a[0] - b[0], a[1] - b[1]];
	return Math.sqrt(x * x + y * y);
}

/** A part of a segment within the polygon, in shares of it, and the sides it comes in and goes out by. */
export interface Part {
	readonly from: number;
	readonly to: number;
	readonly inBy: number;
	readonly outBy: number;
	/** Its end lies within the polygon, on none of its sides. */
	readonly endsInside: boolean;
}

/** How far a point is to the left of a side, times the side's length; nothing when it is on it. */
function leftOf(a: Place, b: Place, p: Place): number {
	const value = side(a, b, p);
	return Math.abs(value) < NOTHING * distance(a, b) ? 0 : value;
}

const NO_PARTS: Part[] = [];

/** What of a segment lies within a convex polygon: one part, or none. */
export function partOfConvex(polygon: readonly Place[], p: Place, q: Place): Part[] {
	let from = 0;
	let to = 1;
	let inBy = -1;
	let outBy = -1;
	let endsInside = true;
	for (let k = 0; k < polygon.length; k++) {
		const a = polygon[k]!;
		const b = polygon[k + 1 < polygon.length ? k + 1 : 0]!;
		const dx = b[0] - a[0];
		const dy = b[1] - a[1];
		const nothing = NOTHING * NOTHING * (dx * dx + dy * dy);
		let dp = dx * (p[1] - a[1]) - dy * (p[0] - a[0]);
		let dq = dx * (q[1] - a[1]) - dy * (q[0] - a[0]);
		if (dp * dp < nothing) dp = 0;
		if (dq * dq < nothing) dq = 0;
		// What runs along a side, or outside it, cuts nothing.
		if (dp <= 0 && dq <= 0) return NO_PARTS;
		if (dq <= 0) endsInside = false;
		if (dp < 0) {
			const t = dp / (dp - dq);
			if (t > from) {
				from = t;
				inBy = k;
			}
		} else if (dq < 0) {
			const t = dp / (dp - dq);
			if (t < to) {
				to = t;
				outBy = k;
			}
		}
	}
	if (!(from < to)) return NO_PARTS;
	return [
		{
			from,
			to,
			inBy: sideWith(polygon, inBy, p, q, from),
			outBy: sideWith(polygon, outBy, p, q, to),
			endsInside
		}
	];
}

/** Of sides that lie in one line with a side, the one that has a place of a segment; -1 stays. */
function sideWith(polygon: readonly Place[], by: number, p: Place, q: Place, t: number): number {
	if (by < 0) return by;
	const n = polygon.length;
	const x = p[0] + t * (q[0] - p[0]);
	const y = p[1] + t * (q[1] - p[1]);
	let k = by;
	for (let tries = 0; tries < n; tries++) {
		const a = polygon[k]!;
		const b = polygon[k + 1 < n ? k + 1 : 0]!;
		const dx = b[0] - a[0];
		const dy = b[1] - a[1];
		const share = ((x - a[0]) * dx + (y - a[1]) * dy) / (dx * dx + dy * dy);
		if (share < -SAME_SHARE) k = k > 0 ? k - 1 : n - 1;
		else if (share > 1 + SAME_SHARE) k = k + 1 < n ? k + 1 : 0;
		else return k;
	}
	return by;
}

/** What of a segment lies within any simple polygon. */
export function partsOfAny(polygon: readonly Place[], p: Place, q: Place): Part[] {
	const size = distance(p, q);
	if (size < NOTHING) return [];
	const cuts: { t: number; by: number }[] = [
		{ t: 0, by: -1 },
		{ t: 1, by: -1 }
	];
	polygon.forEach((a, k) => {
		const b = polygon[(k + 1) % polygon.length]!;
		const [dp, dq] = [leftOf(a, b, p), leftOf(a, b, q)];
		const share = (c: Place) =>
			((c[0] - p[0]) * (q[0] - p[0]) + (c[1] - p[1]) * (q[1] - p[1])) / (size * size);
		if (dp === 0 && dq === 0) cuts.push({ t: share(a), by: k }, { t: share(b), by: k });
		else if (dp * dq <= 0) {
			const [da, db] = [leftOf(p, q, a), leftOf(p, q, b)];
			if (da * db <= 0) cuts.push({ t: dp / (dp - dq), by: k });
		}
	});
	const sorted = cuts.filter(({ t }) => t >= 0 && t <= 1).sort((one, other) => one.t - other.t);
	const parts: Part[] = [];
	for (let k = 0; k + 1 < sorted.length; k++) {
		const [a, b] = [sorted[k]!, sorted[k + 1]!];
		if ((b.t - a.t) * size < NOTHING) continue;
		const t = (a.t + b.t) / 2;
		const middle: Place = [p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])];
		if (isOnRim(polygon, middle) || !isWithin(polygon, middle)) continue;
		const endsInside = b.t === 1 && !isOnRim(polygon, q);
		parts.push({ from: a.t, to: b.t, inBy: a.by, outBy: b.by, endsInside });
	}
	return parts;
}

function isOnRim(polygon: readonly Place[], p: Place): boolean {
	return polygon.some((a, k) => {
		const b = polygon[(k + 1) % polygon.length]!;
		if (leftOf(a, b, p) !== 0) return false;
		return distance(a, p) + distance(p, b) < distance(a, b) + NOTHING;
	});
}
