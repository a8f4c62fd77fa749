import { followCurve } from '../geometry/follow';
import { evaluateCurve } from '../geometry/curve';
import { bezierChain, chainCurve } from '../geometry/path';
import type { Vector } from '../geometry/vector';
import type { Guide } from '../project/guide-schema';
import { refuse } from '../units/problem';
import { formatNumber } from '../units/quantity';
import type { Face } from './face';
import { flatPlaces } from './trim/flat';
import { isBeside, onFace } from './trim/project';
import { pathTo } from '../project/typed-path';

/** Guides are followed to within so many mm. */
const WITHIN = 2;

/** The points of a polyline through which a guide runs, in its own coordinates. */
function followed(points: readonly Vector[], { joins, closed }: Guide, at: string): Vector[] {
	if (points.length === 0) return refuse(`${at}/points`, 'a guide needs at least one point');
	if (points.length === 1) return [points[0]!];
	const ring = closed && points.length > 2 ? [...points, points[0]!] : [...points];
	try {
		const chain = bezierChain(ring, new Array<'line' | 'smooth'>(ring.length - 1).fill(joins));
		const curve = chainCurve(chain);
		return followCurve((t) => evaluateCurve(curve, t).points, chain.breaks, WITHIN);
	} catch (error) {
		return refuse(`${at}/points`, `${(error as Error).message}; move or remove one of them`);
	}
}

/**
 * A guide as points in space that follow one another (mm).
 *
 * ```ts
 * const line = guidePoints(guide, () => face);
 * ```
 * @param faceOf the face a guide on the map was drawn on
 * @throws ProblemError at the guide
 */
export function guidePoints(
	guide: Guide,
	faceOf: (mass: string, face: string) => Face | undefined
): Vector[] {
	const at = pathTo('guides', guide.id);
	if (guide.on === 'space') return followed(guide.points, guide, at);
	const face = faceOf(guide.mass, guide.face);
	if (!face) return refuse(at, `the face ${guide.face} of "${guide.mass}" is not there; draw the guide anew`);
	const placeOf = flatPlaces(face);
	const flat = followed(
		guide.points.map(([x, y]): Vector => [x, y, 0]),
		guide,
		at
	);
	return flat.map(([x, y]) => {
		const place = placeOf([x, y]);
		if (isBeside(face, place))
			refuse(
				at,
				`it leaves ${face.name} ${formatNumber(Math.round(x))} mm from its middle line, ${formatNumber(Math.round(y))} mm up; move it or make it smaller`
			);
		return onFace(face, place);
	});
}
