import type { Edit } from '$core/project/edits';
import type { Guide } from '$core/project/guide-schema';
import type { Mass } from '$core/project/form-schema';
import { bezierChain } from '$core/geometry/path';
import type { Vector } from '$core/geometry/vector';
import { sampleChain } from '$core/mass/drawn-curve';
import { freshId } from './fresh-id';
import { insertAt, pathTo } from '$core/project/typed-path';

type Place = readonly [number, number];

/** The edit that adds an opening as it was drawn on a face laid flat, about its own middle. */
export function trimEdit(mass: Mass, face: string, places: readonly Place[]): Edit {
	const middle = [0, 1].map((k) =>
		Math.round(places.reduce((sum, one) => sum + one[k]!, 0) / places.length)
	) as [number, number];
	return insertAt(pathTo('masses', mass.id, 'trims'), mass.trims.length, {
		by: 'map',
		id: freshId('opening', mass.trims),
		face,
		outline: {
			shape: 'drawn',
			points: places.map(([x, y]): [number, number] => [x - middle[0], y - middle[1]]),
			joins: 'line'
		},
		at: middle
	});
}

/** What somebody draws of a guide; the rest is given. */
type Drawn =
	Pick<GuideOn<'map'>, 'on' | 'mass' | 'face' | 'points'> | Pick<GuideOn<'space'>, 'on' | 'points'>;
type GuideOn<Where extends Guide['on']> = Extract<Guide, { on: Where }>;

/** The edit that adds a guide through points, on a face laid flat or in space. */
function addGuide(guides: readonly Guide[], drawn: Drawn): Edit {
	return insertAt(pathTo('guides'), guides.length, {
		id: freshId('guide', guides),
		name: `Guide ${guides.length + 1}`,
		...drawn,
		joins: drawn.points.length > 2 ? 'smooth' : 'line'
	});
}

/** A guide as it was drawn on a face laid flat. */
export const guideEdit = (
	guides: readonly Guide[],
	on: { readonly mass: string; readonly face: string },
	places: readonly Place[]
): Edit => addGuide(guides, { on: 'map', ...on, points: places.map(([x, y]) => [x, y]) });

/** A guide as it was drawn in the model, through points in space (mm). */
export const guideInSpace = (guides: readonly Guide[], points: readonly Vector[]): Edit =>
	addGuide(guides, {
		on: 'space',
		points: points.map(([x, y, z]) => [Math.round(x), Math.round(y), Math.round(z)])
	});

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
