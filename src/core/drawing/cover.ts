import type { Model } from '../cladding/model';
import { sourcesOf } from '../schedule/sources';
import { summarise } from '../schedule/summary';
import { elevationOf } from './elevation';
import { lookingAlong } from './frame';
import type { Planned, BookSettings } from './planned';
import { placeView, sheetOf, type Titles } from './sheet';
import { drawTable, plainTable, TABLE_LINE, widthOfTable } from './table';

/** Of the plan on the cover: what lies between it and the tables, how wide it is at least, how far codes are apart (mm). */
const [KEY_APART, LEAST_KEY, CODE_APART] = [10, 40, 9];
/** Of a code on it (mm). */
const CODE = 4;

/** Cover: what the project comes to, where its zones stand, and which sheets there are. */
export function cover(
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
				ink.tag(...here, CODE, zone!.zone.code);
			}
		});
	return { ...name, group: 'cover', count: 1, draw: () => [draw()] };
}

/** Sheets of one series are told in one line. */
function inShort(sheets: readonly Planned[]) {
	const series = new Map<string, { numbers: string; title: string; count: number }>();
	return sheets.flatMap(({ number, title, count, series: name }) => {
		const known = name === undefined ? undefined : series.get(name);
		if (known) {
			known.count += count;
			return [];
		}
		if (name === undefined) return [{ numbers: number, title, count }];
		const line = { numbers: `${number} …`, title: name, count };
		series.set(name, line);
		return [line];
	});
}
