import { followChain } from '../geometry/follow';
import { boxOf } from '../geometry/polygon';
import { bezierChain, type BezierChain } from '../geometry/path';
import type { Vector } from '../geometry/vector';
import { makeFace, type Face } from './face';
import { strip } from './patch';
import { END_WITHIN } from './trim/trims';

/**
 * The flat top of a form: what lies within an outline, on the rectangle around it.
 * @param outline about its own origin, counter-clockwise
 * @param place puts the outline's plane where the top is
 */
export function capFace(outline: BezierChain, place: (chain: BezierChain) => BezierChain): Face {
	const points = followChain(outline, END_WITHIN);
	const { low, high } = boxOf(points.map(([x, y]) => [x, y]));
	const line = (from: Vector, to: Vector) => place(bezierChain([from, to], ['line']));
	const surface = strip(
		line([low[0], low[1], 0], [high[0], low[1], 0]),
		line([low[0], high[1], 0], [high[0], high[1], 0])
	);
	return { ...makeFace('cap', surface), ends: [followChain(place(outline), END_WITHIN)] };
}
