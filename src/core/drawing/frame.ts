import { cross, dot, unit, type Vector } from '../geometry/vector';

/** How a model is looked at: unit vectors to the right, up, and away from the eye. */
export interface Frame {
	readonly right: Vector;
	readonly up: Vector;
	readonly away: Vector;
}

/**
 * Looking along a way, the heights upright; straight down or up with the north above.
 *
 * ```ts
 * const fromTheSouth = lookingAlong([0, 1, 0]); // east to the right
 * ```
 * @param way of any length
 */
export function lookingAlong(way: Vector): Frame {
	const away = unit(way);
	const isPlan = Math.abs(away[2]) > 1 - 1e-9;
	const right = unit(cross(away, isPlan ? [0, 1, 0] : [0, 0, 1]));
	return { right, up: cross(right, away), away };
}

/** The place of a point to the right, up and away (mm). */
export const seenAt = ({ right, up, away }: Frame, p: Vector): Vector => [
	dot(p, right),
	dot(p, up),
	dot(p, away)
];
