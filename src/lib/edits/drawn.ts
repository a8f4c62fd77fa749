import type { Edit } from '$core/project/edits';
import type { Guide } from '$core/project/guide-schema';
import type { Mass } from '$core/project/form-schema';
import { bezierChain } from '$core/geometry/path';
import type { Vector } from '$core/geometry/vector';
import { sampleChain } from '$core/mass/drawn-curve';
import { freshId } from './fresh-id';

type Place = readonly [number, number];

/** The edit that adds an opening as it was drawn on a face laid flat, about its own middle. */
export function trimEdit(mass: Mass, face: string, places: readonly Place[]): Edit {
	const middle = [0, 1].map((k) =>
		Math.round(places.reduce((sum, one) => sum + one[k]!, 0) / places.length)
	) as [number, number];
	return {
		do: 'insert',
		path: `masses/${mass.id}/trims`,
		index: mass.trims.length,
		value: {
			by: 'map',
			id: freshId('opening', mass.trims),
			face,
			outline: {
				shape: 'drawn',
				points: places.map(([x, y]) => [x - middle[0], y - middle[1]]),
				joins: 'line'
			},
			at: middle
		}
	};
}

/** The edit that adds a guide through points, on a face laid flat or in space. */
function guideThrough(guides: readonly Guide[], where: object, points: readonly number[][]): Edit {
	return {
		do: 'insert',
		path: 'guides',
		index: guides.length,
		value: {
			id: freshId('guide', guides),
			name: `Guide ${guides.length + 1}`,
			...where,
			points,
			joins: points.length > 2 ? 'smooth' : 'line'
		}
	};
}

/** A guide as it was drawn on a face laid flat. */
export const guideEdit = (
	guides: readonly Guide[],
	on: { readonly mass: string; readonly face: string },
	places: readonly Place[]
): Edit =>
	guideThrough(
		guides,
		{ on: 'map', ...on },
		places.map((place) => [...place])
	);

/** A guide as it was drawn in the model, through points in space (mm). */
export const guideInSpace = (guides: readonly Guide[], points: readonly Vector[]): Edit =>
	guideThrough(
		guides,
		{ on: 'space' },
		points.map((point) => point.map(Math.round))
	);

/** Points along a guide on the map, to draw it by; those it was drawn through when it cannot be followed. */
export function guideLine(guide: Extract<Guide, { on: 'map' }>): readonly Place[] {
	if (guide.points.length < 2) return guide.points;
	const ring = guide.closed ? [...guide.points, guide.points[0]!] : guide.points;
	try {
		const joins = new Array<'line' | 'smooth'>(ring.length - 1).fill(guide.joins);
		return sampleChain(
			bezierChain(
				ring.map(([x, y]) => [x, y, 0]),
				joins
			)
		);
	} catch {
		return guide.points;
	}
}
