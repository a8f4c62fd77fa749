import { polygonArea, type Place } from '../../geometry/polygon';
import type { ReadCurve } from './read-curve';

/** A closed line that lies level: the outline of what is built over it. mm */
export interface ReadOutline {
	readonly layer: string;
	/** Anticlockwise. */
	readonly points: readonly Place[];
	readonly height: number;
}

/** Corners that rise by no more (mm) are level. */
const LEVEL = 1;

/**
 * Of the lines of a drawing those that close and lie level, the largest first.
 *
 * ```ts
 * const [plan] = outlinesOf(readDxfCurves(text).curves);
 * ```
 */
export function outlinesOf(curves: readonly ReadCurve[]): ReadOutline[] {
	return curves
		.flatMap(({ layer, points, closed }): ReadOutline[] => {
			const height = points[0]![2];
			if (!closed || points.length < 3 || points.some(([, , z]) => Math.abs(z - height) > LEVEL)) return [];
			const flat = points.map(([x, y]): Place => [x, y]);
			const area = polygonArea(flat);
			return area === 0 ? [] : [{ layer, points: area < 0 ? flat.reverse() : flat, height }];
		})
		.sort((a, b) => polygonArea(b.points) - polygonArea(a.points));
}
