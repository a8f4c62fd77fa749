import { add, cross, dot, length, scale, subtract, type Vector } from './vector';

/** Corners sharper than this are moved in less than a joint wants, or they would end far from where they were (rad). */
export const SHARP = Math.acos(0.9);

/**
 * A corner of a ring, moved in so that a width stays open along both its sides.
 *
 * ```ts
 * const corner = movedIn([0, 0, 1], [0, 0, 0], [1, 0, 0], [0, -1, 0], 0.1);
 * ```
 * @param before, after its neighbours, counter-clockwise @param normal of the ring, length 1
 * @param width in the unit of the corners
 */
export function movedIn(before: Vector, here: Vector, after: Vector, normal: Vector, width: number): Vector {
	const inward = (from: Vector, to: Vector) => {
		const way = cross(normal, subtract(to, from));
		return scale(way, 1 / (length(way) || 1));
	};
	const [m, n] = [inward(before, here), inward(here, after)];
	return add(here, scale(add(m, n), width / Math.max(1 - Math.cos(SHARP), 1 + dot(m, n))));
}
