import type { Model } from '../cladding/model';
import type { GroupSource } from '../schedule/sources';
import type { Ink } from './drawing';
import { unrolledFace } from './unrolled';
import { sheetNumber, type Planned, type BookSettings } from './planned';
import { viewSheet, overall, VIEW_TEXT } from './view-sheet';
import type { Titles } from './sheet';

/** Heads closer to each other (mm of paper) are told every other time, and so on. */
const HEAD_STEP = 7;

/** A sheet for every face of a zone that has cells, laid flat. */
export function unrolled(
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
			const name = { number: sheetNumber('U', found.length + 1), title };
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
					ink.text('heads', here[0], here[1] - 0.8, VIEW_TEXT, text, { from: 'middle' });
				}
			};
			const draw = () => {
				let laid: ReturnType<typeof unrolledFace> | null = null;
				return viewSheet(
					settings,
					titles,
					name,
					(scaleOf) => (laid = unrolledFace(zone!, f, sources, scaleOf, settings.revised)),
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
