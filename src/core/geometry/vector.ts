import { ALONG, NO_DIRECTION } from './tolerance';

/** A point or direction in mm, as three numbers; for the friendly code, not for hot loops. */
export type Vector = readonly [x: number, y: number, z: number];

/**
 * ```ts
 * add([1, 0, 0], [0, 2, 0]); // 1, 2, 0
 * ```
 */
export const add = (a: Vector, b: Vector): Vector => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
/**
 * ```ts
 * subtract([1, 2, 3], [1, 1, 1]); // 0, 1, 2
 * ```
 */
export const subtract = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
/**
 * ```ts
 * scale([1, 2, 3], 2); // 2, 4, 6
 * ```
 */
export const scale = (a: Vector, s: number): Vector => [a[0] * s, a[1] * s, a[2] * s];
/**
 * ```ts
 * dot([1, 2, 3], [1, 0, 1]); // 4
 * ```
 */
export const dot = (a: Vector, b: Vector): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
/**
 * ```ts
 * length([3, 4, 0]); // 5
 * ```
 */
export const length = (a: Vector): number => Math.sqrt(a[0] * a[0] + a[1] * a[1] + a[2] * a[2]);
/**
 * ```ts
 * distance([0, 0, 0], [3, 4, 0]); // 5
 * ```
 */
export const distance = (a: Vector, b: Vector): number => length(subtract(a, b));
/**
 * ```ts
 * mix([0, 0, 0], [4, 0, 0], 0.25); // 1, 0, 0
 * ```
 */
export const mix = (a: Vector, b: Vector, t: number): Vector => [
	a[0] + (b[0] - a[0]) * t,
	a[1] + (b[1] - a[1]) * t,
	a[2] + (b[2] - a[2]) * t
];
/**
 * ```ts
 * cross([1, 0, 0], [0, 1, 0]); // 0, 0, 1
 * ```
 */
export const cross = (a: Vector, b: Vector): Vector => [
	a[1] * b[2] - a[2] * b[1],
	a[2] * b[0] - a[0] * b[2],
	a[0] * b[1] - a[1] * b[0]
];
/**
 * ```ts
 * centreOf([[0, 0, 0], [2, 0, 0]]); // 1, 0, 0
 * ```
 */
export const centreOf = (points: readonly Vector[]): Vector =>
	scale(points.reduce(add, [0, 0, 0]), 1 / points.length);

/**
 * The k-th point of a flat array of x y z triples.
 *
 * ```ts
 * pointAt(grid.positions, 12); // x, y, z of node 12
 * ```
 */
export const pointAt = (points: ArrayLike<number>, k: number): Vector => [
	points[3 * k]!,
	points[3 * k + 1]!,
	points[3 * k + 2]!
];

/** A control point multiplied by its weight: (wx, wy, wz, w). */
export type Weighted = readonly [x: number, y: number, z: number, w: number];

export const weighted = (p: Vector): Weighted => [p[0], p[1], p[2], 1];
/**
 * ```ts
 * unweighted([2, 4, 6, 2]); // 1, 2, 3
 * ```
 */
export const unweighted = (p: Weighted): Vector => [p[0] / p[3], p[1] / p[3], p[2] / p[3]];

/**
 * The same way, length 1; a vector that is none stays nothing.
 *
 * ```ts
 * unit([0, 0, 250]); // [0, 0, 1]
 * ```
 */
export function unit(v: Vector): Vector {
	const size = length(v);
	return size > NO_DIRECTION ? scale(v, 1 / size) : [0, 0, 0];
}

/**
 * The direction square to a way that is nearest to a wanted one, length 1. Where the wanted one goes along the way, it is
 * nearest to up; of a way that goes up itself, to north.
 *
 * ```ts
 * squareTo([1, 0, 0], [3, 1, 0]); // [0, 1, 0]
 * ```
 * @param way length 1
 */
export function squareTo(way: Vector, wanted: Vector): Vector {
	const found = [wanted, UP, NORTH]
		.map((one) => subtract(one, scale(way, dot(one, way))))
		.find((off) => length(off) > ALONG);
	return unit(found ?? NORTH);
}
const UP: Vector = [0, 0, 1];
const NORTH: Vector = [0, 1, 0];
