import type { Model } from '../cladding/model';
import type { GroupSource } from '../schedule/sources';
import type { Ink, View } from './drawing';
import { unrolledFace, type Unrolled } from './unrolled';
import { sheetNumber, type Planned, type BookSettings } from './planned';
import { viewSheet, overall, VIEW_TEXT } from './view-sheet';
import type { Titles } from './sheet';

/** Heads closer to each other (mm of paper) are told every other time, and so on. */
const HEAD_STEP = 7;

/** Heads along one side of a face that is laid flat. */
function headsAlong(
	ink: Ink,
	list: readonly { readonly number: number; readonly at: number }[],
	letter: string,
	place: (at: number) => readonly [number, number]
): void {
	let last: readonly [number, number] | null = null;
	for (const { number: n, at } of list) {
		const here = place(at);
		if (last && Math.hypot(here[0] - last[0], here[1] - last[1]) < HEAD_STEP) continue;
		last = here;
		const text = `${letter}${String(n).padStart(2, '0')}`;
		ink.text('heads', here[0], here[1] - 0.8, VIEW_TEXT, text, { from: 'middle' });
	}
}

/** The heads of its bays under a face that is laid flat, and those of its courses to the left. */
export function drawHeads(
	ink: Ink,
	at: (x: number, y: number) => readonly [number, number],
	[left, foot]: View['bounds'],
	{ bays, courses }: Pick<Unrolled, 'bays' | 'courses'>
): void {
	const [x0, y0] = at(left, foot);
	headsAlong(ink, bays, 'B', (x) => [at(x, 0)[0], y0 - 3.5]);
	headsAlong(ink, courses, 'C', (y) => [x0 - 5, at(0, y)[1]]);
}

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
			const draw = () => {
				let laid: ReturnType<typeof unrolledFace> | null = null;
				return viewSheet(
					settings,
					titles,
					name,
					(scaleOf) => (laid = unrolledFace(zone!, f, sources, scaleOf, settings.revised)),
					(ink, at, { bounds }) => {
						drawHeads(ink, at, bounds, laid!);
						overall(ink, at, bounds);
					}
				);
			};
			// A net of lines has no length to be laid out by.
			if (face.cells.count) found.push({ ...name, group: 'unrolled', count: 1, draw: () => [draw()] });
		}
	return found;
}
