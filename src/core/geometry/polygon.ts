/** Polygons in a plane: of parameters, of the lattice, or of a drawing. */

export type Place = readonly [x: number, y: number];

/**
 * Twice the area of a triangle, positive when p lies to the left of the way from a to b.
 *
 * ```ts
 * side([0, 0], [1, 0], [0.5, 1]) > 0; // to the left
 * ```
 */
export const side = (a: Place, b: Place, p: Place): number =>
	(b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]);

/**
 * Signed area, positive when the points run anticlockwise, in the square of their unit.
 *
 * ```ts
 * polygonArea([[0, 0], [2, 0], [2, 3], [0, 3]]); // 6; less than nothing when clockwise
 * ```
 */
export function polygonArea(points: readonly Place[]): number {
	let sum = 0;
	points.forEach((p, k) => {
		const q = points[(k + 1) % points.length]!;
		sum += p[0] * q[1] - q[0] * p[1];
	});
	return sum / 2;
}

/**
 * Whether two segments cross, touching not counted.
 *
 * ```ts
 * crosses([0, 0], [2, 2], [0, 2], [2, 0]); // true
 * ```
 */
export function crosses(a: Place, b: Place, c: Place, d: Place): boolean {
	return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
}

/**
 * How many segments of a curve lie above a place.
 *
 * ```ts
 * crossingsAbove([[0, 0], [2, 0], [2, 2], [0, 2]], true, [1, 0.5]) % 2 === 1; // true: it is within
 * ```
 */
export function crossingsAbove(curve: readonly Place[], closed: boolean, place: Place): number {
	const x = place[0];
	let found = 0;
	let a = closed ? curve.at(-1)! : curve[0]!;
	for (let k = closed ? 0 : 1; k < curve.length; k++) {
		const b = curve[k]!;
		if (a[0] > x !== b[0] > x && place[1] < ((b[1] - a[1]) * (x - a[0])) / (b[0] - a[0]) + a[1]) found++;
		a = b;
	}
	return found;
}

/**
 * Whether a place lies within a closed curve (even-odd).
 *
 * ```ts
 * isWithin([[0, 0], [2, 0], [2, 2], [0, 2]], [1, 1]); // true
 * ```
 */
export const isWithin = (loop: readonly Place[], place: Place): boolean =>
	crossingsAbove(loop, true, place) % 2 === 1;

export interface Box {
	readonly low: Place;
	readonly high: Place;
}

/**
 * The upright box round the places; of none it is turned inside out (low Infinity).
 *
 * ```ts
 * const { low, high } = boxOf([[0, 3], [2, 1]]); // 0 1, 2 3
 * ```
 */
export function boxOf(places: readonly Place[]): Box {
	let [left, low, right, high] = [Infinity, Infinity, -Infinity, -Infinity];
	for (const [x, y] of places) {
		if (x < left) left = x;
		if (x > right) right = x;
		if (y < low) low = y;
		if (y > high) high = y;
	}
	return { low: [left, low], high: [right, high] };
}

/**
 * The shares of a segment between which it lies in a box; null when it does not meet it (Liang and Barsky).
 *
 * ```ts
 * shareWithin([-1, 1], [3, 1], { low: [0, 0], high: [2, 2] }); // 0.25, 0.75
 * ```
 */
export function shareWithin(a: Place, b: Place, { low, high }: Box): readonly [number, number] | null {
	let [from, to] = [0, 1];
	for (const k of [0, 1] as const) {
		const way = b[k] - a[k];
		if (way === 0) {
			if (a[k] < low[k] || a[k] > high[k]) return null;
			continue;
		}
		const [t, s] = [(low[k] - a[k]) / way, (high[k] - a[k]) / way];
		from = Math.max(from, Math.min(t, s));
		to = Math.min(to, Math.max(t, s));
	}
	return from < to ? [from, to] : null;
}
