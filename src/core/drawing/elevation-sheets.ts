import type { Model } from '../cladding/model';
import type { Vector } from '../geometry/vector';
import type { Looking } from '../project/drawings-schema';
import { formatNumber } from '../units/quantity';
import type { Ink, Page, View } from './drawing';
import { elevationOf } from './elevation';
import { lookingAlong } from './frame';
import { sheetNumber, type Planned, type BookSettings } from './planned';
import { viewSheet, overall, VIEW_TEXT } from './view-sheet';
import type { Titles } from './sheet';

/** Where a model is looked at from, by what the elevation is called. */
export const wholeViews: readonly (readonly [title: string, way: Vector])[] = [
	['Elevation from the south', [0, 1, 0]],
	['Elevation from the east', [-1, 0, 0]],
	['Elevation from the north', [0, -1, 0]],
	['Elevation from the west', [1, 0, 0]],
	['Plan from above', [0, 0, -1]]
];

/** The way that a zone looks, all in all, turned round. */
function wayTo(model: Model, z: number): Vector {
	const sum = [0, 0, 0];
	for (const { measures, cells } of model.zones[z]!.model?.faces ?? [])
		for (let c = 0; c < cells.count; c++)
			for (let k = 0; k < 3; k++) sum[k]! -= measures.normal[3 * c + k]! * measures.area[c]!;
	const [x, y, up] = sum as [number, number, number];
	const flat = Math.hypot(x, y);
	// A roof is seen from above; what closes round on itself from the south.
	if (Math.abs(up) > flat) return [0, 0, Math.sign(up)];
	return flat > 0 ? [x / flat, y / flat, 0] : [0, 1, 0];
}

/** How the whole of a model, or some zones of it, is looked at. */
interface Look {
	readonly way: Vector;
	/** Places in the project; null for all. */
	readonly zones: readonly number[] | null;
	/** What is nearer to the eye is cut away (mm of depth). */
	readonly from: number;
}

/** Levels past a view, each with its name and its height (m). */
export function drawLevels(
	ink: Ink,
	at: (x: number, y: number) => [number, number],
	[left, foot, right, head]: View['bounds'],
	levels: Model['project']['levels']
): void {
	for (const level of levels) {
		const y = at(0, level.height)[1];
		if (level.height < foot - 2000 || level.height > head + 2000) continue;
		const [x0, x1] = [at(left, 0)[0], at(right, 0)[0]];
		ink.dashed('levels', [x0 - 20, y], [x1 + 5, y], [2.6, 1.4]);
		const called = `${level.name} ${level.height >= 0 ? '+' : ''}${(level.height / 1000).toFixed(3)}`;
		ink.text('levels', x0 - 22, y + 0.8, VIEW_TEXT, called);
	}
}

/** A sheet of a look at the model, with its levels and its sizes. */
function lookSheet(
	model: Model,
	settings: BookSettings,
	titles: Titles,
	name: { readonly number: string; readonly title: string },
	{ way, zones, from }: Look
): Page {
	const frame = lookingAlong(way);
	const isUpright = Math.abs(way[2]) < 1e-9;
	const levels = isUpright ? model.project.levels : [];
	return viewSheet(
		settings,
		titles,
		name,
		(scaleOf) => elevationOf(model, frame, zones, scaleOf, from, settings.revised),
		(ink, at, { bounds }) => {
			drawLevels(ink, at, bounds, levels);
			overall(
				ink,
				at,
				bounds,
				levels.map(({ height }) => height)
			);
		}
	);
}

/** Elevations from the four sides, a plan, and each zone as it looks. */
export function elevations(model: Model, settings: BookSettings, titles: Titles): Planned[] {
	const make = (n: number, title: string, way: Vector, zones: readonly number[] | null): Planned => {
		const name = { number: sheetNumber('E', n), title };
		const draw = () => [lookSheet(model, settings, titles, name, { way, zones, from: -Infinity })];
		return { ...name, group: 'elevations', count: 1, draw };
	};
	const whole = wholeViews.map(([title, way], k) => make(k + 1, title, way, null));
	const zones = model.zones.flatMap(({ model: zone }, z) =>
		zone ? [make(wholeViews.length + z + 1, zone.zone.name, wayTo(model, z), [z])] : []
	);
	return [...whole, ...zones];
}

export const wayOfLooking: Record<Looking, Vector> = {
	north: [0, 1, 0],
	east: [1, 0, 0],
	south: [0, -1, 0],
	west: [-1, 0, 0]
};

/** The model cut by upright planes, as the project says. */
export function sections(model: Model, settings: BookSettings, titles: Titles): Planned[] {
	return model.project.drawings.sections.map(({ looking, at }, k): Planned => {
		const way = wayOfLooking[looking];
		const axis = way[0] === 0 ? 'y' : 'x';
		const name = {
			number: sheetNumber('S', k + 1),
			title: `Section at ${axis} = ${formatNumber(at, 1)} mm, looking ${looking}`
		};
		const look = { way, zones: null, from: (way[0] + way[1]) * at };
		return {
			...name,
			group: 'sections',
			count: 1,
			draw: () => [lookSheet(model, settings, titles, name, look)]
		};
	});
}
