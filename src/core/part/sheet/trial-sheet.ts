import type { Place } from '../../geometry/polygon';
import { flattened } from '../../geometry/triangulate';
import { triangulateAround } from '../../geometry/triangulate-around';
import { centreOf, cross, length, mix, scale, subtract, type Vector } from '../../geometry/vector';
import type { Anchor } from '../../project/part-definition';
import { cornersOfTrial } from '../trials';
import type { SheetOf } from './site-sheet';

/** Of the size of a trial cell: the opening in its middle. */
const OPENING = 0.45;

/** The mean normal of a ring, length 1; nothing for one without area. */
function normalOf(ring: readonly Vector[], centre: Vector): Vector {
	const [x, y, z] = ring.reduce<Vector>(
		(sum, p, k) => {
			const part = cross(subtract(p, centre), subtract(ring[(k + 1) % ring.length]!, centre));
			return [sum[0] + part[0], sum[1] + part[1], sum[2] + part[2]];
		},
		[0, 0, 0]
	);
	return scale([x, y, z], 1 / (length([x, y, z]) || 1));
}

/**
 * The surface of a trial cell (mm), with one opening in its middle, so that it is seen what becomes of it.
 *
 * ```ts
 * const sheetOf = trialSheet(part.anchor, trialsOf(part.anchor)[0]!.points);
 * ```
 * @throws RangeError when it is asked for and the anchor has no cell
 */
export function trialSheet(anchor: Anchor, points: readonly Vector[]): SheetOf {
	return () => {
		if (anchor.kind !== 'ring' && anchor.kind !== 'double ring')
			throw new RangeError('a sheet fills a cell, and there is none here');
		const rim = cornersOfTrial(anchor, points.length);
		const ring = points.slice(0, rim);
		const centre = centreOf(ring);
		const all = [...ring, ...ring.map((p) => mix(centre, p, OPENING))];
		const loop = ring.map((_, k) => k);
		const seen = flattened(ring.flat(), loop);
		const [x, y] = [0, 1].map((a) => seen.reduce((sum, p) => sum + p[a]! / rim, 0)) as [number, number];
		const inner = seen.map((p): Place => [x + OPENING * (p[0] - x), y + OPENING * (p[1] - y)]);
		const triangles = triangulateAround([...seen, ...inner], loop, [loop.map((k) => rim + k)]);
		const normal = normalOf(ring, centre);
		return {
			points: Float64Array.from(all.flat()),
			normals: Float64Array.from(all.flatMap(() => normal)),
			rim,
			triangles
		};
	};
}
