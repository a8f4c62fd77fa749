import { besideName } from '../cladding/beside';
import type { Model } from '../cladding/model';
import type { Vector } from '../geometry/vector';
import type { Looking, Paper } from '../project/drawings-schema';
import type { Column } from '../schedule/column';
import { sourcesOf, type GroupSource } from '../schedule/sources';
import { summarise } from '../schedule/summary';
import { makeSchedule } from '../schedule/table';
import { once } from '../units/once';
import { formatNumber } from '../units/quantity';
import { Ink, type Page, type View } from './drawing';
import { elevationOf } from './elevation';
import { lookingAlong } from './frame';
import { pieceSheet, type PiecesOfKind } from './piece-sheet';
import { dimensionChain, placeView, roomOf, scaleThatFits, sheetOf, type Room, type Titles } from './sheet';
import { BETWEEN, blocksOf, drawTable, plainTable, tableOf, TABLE_LINE, widthOfTable } from './table';
import { unrolledFace } from './unrolled';

/** What sheets are offered by. */
export const sheetGroups = {
	cover: 'Cover',
	elevations: 'Elevations',
	sections: 'Sections',
	unrolled: 'Unrolled',
	pieces: 'Pieces',
	bars: 'Bars',
	nodes: 'Setting-out points'
} as const;
export type SheetGroup = keyof typeof sheetGroups;

/** A sheet, or several that go on from one another, before they are drawn. */
export interface Planned {
	/** As in E-01; a project has each once. */
	readonly number: string;
	readonly title: string;
	readonly group: SheetGroup;
	/** How many sheets it comes to. */
	readonly count: number;
	draw(): Page[];
}

/** How the sheets of a project are drawn. */
interface BookSettings {
	readonly paper: Paper;
	/** The day they are of, as in 2026-11-27. */
	readonly date: string;
}

/** Round a view: for the names of levels and heads, for dimensions, for what it is called (mm of paper). */
const [BESIDE, BELOW] = [26, 18];
const TEXT = 2.4;

const number = (letter: string, n: number, digits = 2) => `${letter}-${String(n).padStart(digits, '0')}`;

const within = ({ left, foot, width, height }: Room): Room => ({
	left: left + BESIDE,
	foot: foot + BELOW,
	width: width - 2 * BESIDE,
	height: height - BELOW - 6
});

/** A sheet with one view as large as fits. @param finish draws what goes round it */
function viewSheet(
	settings: BookSettings,
	titles: Titles,
	name: { readonly number: string; readonly title: string },
	view: (scaleOf: (bounds: View['bounds']) => number) => View & { readonly left: number },
	finish: (ink: Ink, at: (x: number, y: number) => [number, number], drawn: View) => void
): Page {
	const room = within(roomOf(settings.paper));
	let denominator = 1;
	const drawn = view(([left, foot, right, head]) => {
		denominator = scaleThatFits(right - left, head - foot, room.width, room.height);
		return 1 / denominator;
	});
	const scale = `1 : ${denominator}`;
	return sheetOf(settings.paper, titles, { ...name, scale }, (ink, whole) => {
		const at = placeView(ink, drawn, 1 / denominator, room);
		finish(ink, at, drawn);
		const left =
			drawn.left > 0 ? ` · ${drawn.left} marks have no room at this scale; the schedule has them` : '';
		ink.text('text', whole.left, whole.foot, TEXT, `${name.title} · ${scale}${left}`);
	});
}

/** Overall sizes below and beside a view. @param heights further places up the side (mm of the model) */
function overall(
	ink: Ink,
	at: (x: number, y: number) => [number, number],
	[left, foot, right, head]: View['bounds'],
	heights: readonly number[] = []
): void {
	const [x0, y0] = at(left, foot);
	const [x1, y1] = at(right, head);
	dimensionChain(
		ink,
		[
			{ paper: x0, model: left },
			{ paper: x1, model: right }
		],
		y0 - 9,
		false
	);
	const inside = heights.filter((one) => one > foot + 1 && one < head - 1).sort((a, b) => a - b);
	const up = [foot, ...inside, head].map((model) => ({ paper: at(0, model)[1], model }));
	dimensionChain(ink, up, x1 + 9, true);
	if (inside.length)
		dimensionChain(
			ink,
			[
				{ paper: y0, model: foot },
				{ paper: y1, model: head }
			],
			x1 + 17,
			true
		);
}

/** Where a model is looked at from, by what the elevation is called. */
const ways: readonly (readonly [title: string, way: Vector])[] = [
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
		(scaleOf) => elevationOf(model, frame, zones, scaleOf, from),
		(ink, at, { bounds }) => {
			const [left, foot, right, head] = bounds;
			for (const level of levels) {
				const y = at(0, level.height)[1];
				if (level.height < foot - 2000 || level.height > head + 2000) continue;
				const [x0, x1] = [at(left, 0)[0], at(right, 0)[0]];
				for (let x = x0 - 20; x < x1 + 5; x += 4) ink.line('levels', x, y, Math.min(x + 2.6, x1 + 5), y);
				const called = `${level.name} ${level.height >= 0 ? '+' : ''}${(level.height / 1000).toFixed(3)}`;
				ink.text('levels', x0 - 22, y + 0.8, TEXT, called);
			}
			overall(
				ink,
				at,
				bounds,
				levels.map(({ height }) => height)
			);
		}
	);
}

function elevations(model: Model, settings: BookSettings, titles: Titles): Planned[] {
	const make = (n: number, title: string, way: Vector, zones: readonly number[] | null): Planned => {
		const name = { number: number('E', n), title };
		const draw = () => [lookSheet(model, settings, titles, name, { way, zones, from: -Infinity })];
		return { ...name, group: 'elevations', count: 1, draw };
	};
	const whole = ways.map(([title, way], k) => make(k + 1, title, way, null));
	const zones = model.zones.flatMap(({ model: zone }, z) =>
		zone ? [make(ways.length + z + 1, zone.zone.name, wayTo(model, z), [z])] : []
	);
	return [...whole, ...zones];
}

const wayOfLooking: Record<Looking, Vector> = {
	north: [0, 1, 0],
	east: [1, 0, 0],
	south: [0, -1, 0],
	west: [-1, 0, 0]
};

/** The model cut by upright planes, as the project says. */
function sections(model: Model, settings: BookSettings, titles: Titles): Planned[] {
	return model.project.drawings.sections.map(({ looking, at }, k): Planned => {
		const way = wayOfLooking[looking];
		const axis = way[0] === 0 ? 'y' : 'x';
		const name = {
			number: number('S', k + 1),
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

/** Heads closer to each other (mm of paper) are told every other time, and so on. */
const HEAD_STEP = 7;

function unrolled(
	model: Model,
	sources: readonly GroupSource[],
	settings: BookSettings,
	titles: Titles
): Planned[] {
	const found: Planned[] = [];
	for (const { model: zone } of model.zones)
		for (const f of zone?.faces.keys() ?? []) {
			const face = zone!.faces[f]!;
			const title = `${zone!.zone.name}${zone!.faces.length > 1 ? `, face ${f + 1}` : ''}, unrolled`;
			const name = { number: number('U', found.length + 1), title };
			const heads = (
				ink: Ink,
				list: readonly { readonly number: number; readonly at: number }[],
				letter: string,
				place: (at: number) => [number, number]
			) => {
				let last: readonly [number, number] | null = null;
				for (const { number: n, at } of list) {
					const here = place(at);
					if (last && Math.hypot(here[0] - last[0], here[1] - last[1]) < HEAD_STEP) continue;
					last = here;
					const text = `${letter}${String(n).padStart(2, '0')}`;
					ink.text('heads', here[0], here[1] - 0.8, TEXT, text, { from: 'middle' });
				}
			};
			const draw = () => {
				let laid: ReturnType<typeof unrolledFace> | null = null;
				return viewSheet(
					settings,
					titles,
					name,
					(scaleOf) => (laid = unrolledFace(zone!, f, sources, scaleOf)),
					(ink, at, { bounds }) => {
						const [left, foot] = bounds;
						const [x0, y0] = at(left, foot);
						heads(ink, laid!.bays, 'B', (x) => [at(x, 0)[0], y0 - 3.5]);
						heads(ink, laid!.courses, 'C', (y) => [x0 - 5, at(0, y)[1]]);
						overall(ink, at, bounds);
					}
				);
			};
			// A net of lines has no length to be laid out by.
			if (face.cells.count) found.push({ ...name, group: 'unrolled', count: 1, draw: () => [draw()] });
		}
	return found;
}

/** Pieces on cells by their kinds, in the order of the kinds. */
function piecesByKind(sources: readonly GroupSource[]): PiecesOfKind[] {
	const [first] = sources;
	if (!first) return [];
	const { kinds, of } = first.kinds();
	const found = new Map<number, { source: GroupSource; row: number; marks: string[] }>();
	for (const source of sources) {
		const { group, clause, z, marks } = source;
		if (group.over !== 'cell' || besideName(clause)) continue;
		const called = marks();
		group.sites.forEach((site, row) => {
			const kind = of[z]![clause.face]![site]!;
			const known = found.get(kind) ?? { source, row, marks: [] };
			found.set(kind, known);
			known.marks.push(called[row]!);
		});
	}
	return kinds.flatMap((kind, k) => (found.has(k) ? [{ kind, ...found.get(k)! }] : []));
}

/** Whether anything stands in a column. */
const isSaid = (column: Column) =>
	column.kind === 'text' ? column.text !== '' : column.numbers.some((one) => !Number.isNaN(one));

/** A list on as many sheets as it needs. */
function listSheets(
	model: Model,
	list: 'bars' | 'nodes',
	keys: readonly string[],
	letter: string,
	title: string,
	settings: BookSettings,
	titles: Titles
): Planned[] {
	const schedule = makeSchedule(model, list);
	if (!schedule.rows) return [];
	const table = once(() => {
		const columns = keys.flatMap((key): Column[] => {
			const column = schedule.column(key);
			return column && isSaid(column) ? [column] : [];
		});
		return tableOf(
			columns,
			Array.from({ length: schedule.rows }, (_, row) => row)
		);
	});
	const room = roomOf(settings.paper);
	const layout = once(() => blocksOf(table(), room));
	const count = () => Math.ceil(schedule.rows / (layout().beside * layout().rows));
	const draw = () =>
		Array.from({ length: count() }, (_, page) => {
			const { beside, rows } = layout();
			const name = `${title}${count() > 1 ? `, ${page + 1} of ${count()}` : ''}`;
			return sheetOf(
				settings.paper,
				titles,
				{ number: number(letter, page + 1, 3), title: name, scale: '' },
				(ink, { left, foot, height }) => {
					for (let block = 0; block < beside; block++) {
						const from = (page * beside + block) * rows;
						if (from >= schedule.rows) break;
						const to = Math.min(schedule.rows, from + rows);
						drawTable(
							ink,
							table(),
							left + block * (widthOfTable(table()) + BETWEEN),
							foot + height,
							from,
							to
						);
					}
				}
			);
		});
	return [
		{
			number: number(letter, 1, 3),
			title,
			group: list,
			get count() {
				return count();
			},
			draw
		}
	];
}

/** Of the plan on the cover: what lies between it and the tables, how wide it is at least, how far codes are apart (mm). */
const [KEY_APART, LEAST_KEY, CODE_APART] = [10, 40, 9];

/** Cover: what the project comes to, where its zones stand, and which sheets there are. */
function cover(
	model: Model,
	settings: BookSettings,
	titles: Titles,
	others: () => readonly Planned[]
): Planned {
	const name = { number: 'A-01', title: 'Cover' };
	const draw = () =>
		sheetOf(settings.paper, titles, { ...name, scale: '' }, (ink, room) => {
			const top = room.foot + room.height;
			ink.text('text', room.left, top - 9, 9, titles.project, { bold: true });
			const sums = summarise(model);
			const metres = (value: number) => `${value.toFixed(1)} m`;
			const totals = plainTable(
				['In all', ''].map((text, k) => ({ text, isNumber: k > 0 })),
				[
					['Panels', String(sums.panels)],
					['Kinds of cells', String(sourcesOf(model)[0]?.kinds().kinds.length ?? 0)],
					['Glass', `${sums.glass_m2.toFixed(1)} m²`],
					['Bars', `${sums.bars.count} bars, ${metres(sums.bars.length_m)}`],
					['Parts on nodes', String(sums.connectors)],
					['Blades', `${sums.blades.count} blades, ${metres(sums.blades.length_m)}`],
					['Structure', `${sums.structure.count} pieces, ${metres(sums.structure.length_m)}`],
					['Mass', `${(sums.mass_kg / 1000).toFixed(2)} t`],
					['Pieces with a flag', String(sums.flags)]
				]
			);
			const down = drawTable(ink, totals, room.left, top - 16);
			const zones = plainTable(
				['Zone', 'Name', 'Cells (m2)', 'Warp (mm)'].map((text, k) => ({ text, isNumber: k > 1 })),
				sums.zones.map((zone) => [
					zone.code,
					zone.name,
					zone.cell_area_m2.toFixed(1),
					zone.warp_mm.max.toFixed(1)
				])
			);
			drawTable(ink, zones, room.left, top - 22 - down);
			const sheets = plainTable(
				['Sheet', 'Title', 'Sheets'].map((text, k) => ({ text, isNumber: k > 1 })),
				inShort(others()).map(({ numbers, title, count }) => [numbers, title, String(count)])
			);
			const most = Math.floor(room.height / TABLE_LINE) - 1;
			const right = room.left + room.width - widthOfTable(sheets);
			drawTable(ink, sheets, right, top, 0, Math.min(most, sheets.rows.length));
			// Between them: the whole from above.
			const beside = room.left + Math.max(widthOfTable(totals), widthOfTable(zones)) + KEY_APART;
			const key = { ...room, left: beside, width: right - beside - KEY_APART, height: room.height };
			if (key.width < LEAST_KEY) return;
			const frame = lookingAlong([0, 0, -1]);
			const plan = elevationOf(model, frame, null, () => 0);
			const [left, foot, wide, high] = plan.bounds;
			const scale = Math.min(key.width / (wide - left || 1), key.height / (high - foot || 1));
			const at = placeView(ink, plan, scale, key);
			const told: (readonly [number, number])[] = [];
			for (const { model: zone } of model.zones) {
				const centres = zone?.faces.flatMap(({ measures, cells }) =>
					Array.from({ length: cells.count }, (_, c) => [
						measures.centre[3 * c]!,
						measures.centre[3 * c + 1]!
					])
				);
				if (!centres?.length) continue;
				const [x, y] = [0, 1].map((k) => centres.reduce((sum, p) => sum + p[k]!, 0) / centres.length) as [
					number,
					number
				];
				const here = at(x, y);
				// What stands over another zone is told once.
				if (told.some(([tx, ty]) => Math.hypot(tx - here[0], ty - here[1]) < CODE_APART)) continue;
				told.push(here);
				ink.text('heads', ...here, 5, zone!.zone.code, { from: 'middle', bold: true });
			}
		});
	return { ...name, group: 'cover', count: 1, draw: () => [draw()] };
}

/** Sheets of pieces are told in one line. */
function inShort(sheets: readonly Planned[]) {
	const pieces = sheets.filter(({ group }) => group === 'pieces');
	const lines = sheets
		.filter(({ group }) => group !== 'pieces')
		.map(({ number: numbers, title, count }) => ({ numbers, title, count }));
	if (!pieces.length) return lines;
	const at = sheets.findIndex(({ group }) => group === 'pieces');
	const numbers = `${pieces[0]!.number} …`;
	lines.splice(at, 0, { numbers, title: 'Pieces, a sheet for each kind', count: pieces.length });
	return lines;
}

/**
 * The sheets of a project, none of them drawn yet.
 *
 * ```ts
 * const [cover] = bookOf(model, '2026-11-27');
 * const [page] = cover!.draw();
 * ```
 * @param date the day they are of, as in 2026-11-27
 */
export function bookOf(model: Model, date: string): Planned[] {
	const settings: BookSettings = { paper: model.project.drawings.paper, date };
	const sources = sourcesOf(model);
	const titles: Titles = { project: model.project.name, date: settings.date };
	const pieces = piecesByKind(sources).map((of, k): Planned => {
		const name = { number: number('P', k + 1, 3), title: `Piece ${of.kind.name}` };
		return {
			...name,
			group: 'pieces',
			count: 1,
			draw: () => [pieceSheet(settings.paper, titles, name.number, of)]
		};
	});
	const sheets: Planned[] = [
		...elevations(model, settings, titles),
		...sections(model, settings, titles),
		...unrolled(model, sources, settings, titles),
		...pieces,
		...listSheets(
			model,
			'bars',
			['mark', 'kind', 'variant', 'length', 'start', 'end', 'mass'],
			'B',
			'Bars: cut lengths and ends',
			settings,
			titles
		),
		...listSheets(model, 'nodes', ['mark', 'x', 'y', 'z'], 'N', 'Setting-out points', settings, titles)
	];
	return [cover(model, settings, titles, () => sheets), ...sheets];
}
