import { bezierChain, type BezierChain } from '../geometry/path';
import { distance, type Vector } from '../geometry/vector';
import type { PathDefinition } from '../project/form-schema';
import { refuse } from '../units/problem';
import { segmentsOf } from './drawn-curve';
import { ROUNDED } from '../geometry/tolerance';

/** A curve in space as a chain of cubic pieces. @throws ProblemError at the path's place */
export function chainOf(path: PathDefinition, at: string): BezierChain {
	const points: Vector[] = [...path.points];
	if (points.length < 2) refuse(at, `a path needs at least 2 points; it has ${points.length}`);
	if (path.closed && distance(points[0]!, points.at(-1)!) > ROUNDED) points.push(points[0]!);
	if (path.closed && points.length < 4) refuse(at, 'a closed path needs at least 3 different points');
	const segments = segmentsOf(path.joins, points.length - 1, at);
	try {
		return bezierChain(points, segments);
	} catch (error) {
		return refuse(at, `${(error as Error).message}; move or remove one of them`);
	}
}
