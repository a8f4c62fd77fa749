import { bezierChain, type BezierChain, type Segment } from '../geometry/path';
import { distance, type Vector } from '../geometry/vector';
import type { PathDefinition } from '../project/schema';
import { refuse } from '../units/problem';

/** One segment per pair of neighbours, from one word or a list of words. */
export function segmentsOf(
	joins: Segment | readonly Segment[],
	pairs: number,
	at: string
): readonly Segment[] {
	if (typeof joins === 'string') return new Array<Segment>(pairs).fill(joins);
	if (joins.length !== pairs)
		refuse(
			at,
			`${joins.length} joins are given for ${pairs + 1} points; ${pairs} are needed, or one word for all`
		);
	return joins;
}

/** A path of the document as a chain of cubic pieces. @throws ProblemError at the path's place */
export function chainOf(path: PathDefinition, at: string): BezierChain {
	const points: Vector[] = [...path.points];
	if (points.length < 2) refuse(at, `a path needs at least 2 points; it has ${points.length}`);
	if (path.closed && distance(points[0]!, points.at(-1)!) > 1e-9) points.push(points[0]!);
	if (path.closed && points.length < 4) refuse(at, 'a closed path needs at least 3 different points');
	const segments = segmentsOf(path.joins, points.length - 1, at);
	try {
		return bezierChain(points, segments);
	} catch (error) {
		return refuse(at, `${(error as Error).message}; move or remove one of them`);
	}
}
