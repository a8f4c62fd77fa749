import { instancesOf } from '../part/element-table';
import { barViews } from './bar-views';
import type { Ink, View } from './drawing';
import { inStrips, STRIP_TEXT } from './in-strips';
import { piecesByKind, type PiecesOfKind } from './pieces-of-kinds';
import type { BookSettings, Planned } from './planned';
import { dimensionChain, placeView, scaleAtWhich, type Room, type Titles } from './sheet';
import { shortened } from './shortened';
import type { GroupSource } from '../schedule/sources';
import { endWords } from '../schedule/columns';

/** Between both views, around them, and of the section beside them (mm of paper). */
const [APART, AROUND, SECTION] = [5, 4, 52];
/** Under the views: of the dimension and what is written at the ends (mm of paper). */
const UNDER = 9;
/** Between the ends of a bar that is too long to be drawn as a whole (mm of paper). */
const GAP = 5;
/** A break's line reaches over the bar by so much (mm of paper), and is bent so much. */
const [OVER, BENT] = [2, 1.2];

const heightOf = ({ bounds }: View) => bounds[3] - bounds[1];
const widthOf = ({ bounds }: View) => bounds[2] - bounds[0];

/** What is to be known of a bar. */
function factsOf({ source: { group, quantities }, row }: PiecesOfKind): string {
	const { mass, cutLength } = quantities();
	const made = group.run.elements.flatMap((table) => {
		const { element } = table;
		return instancesOf(table).has(row)
			? [`${group.ready.elements[element]!.label} of ${group.ready.materials[element]!.label}`]
			: [];
	});
	const ends = ([0, 1] as const).map((end) => endWords(group, row, end));
	const lines = group.bars?.[row]?.length ?? 1;
	return [
		`cut length ${cutLength[row]!.toFixed(1)}`,
		`mass ${mass[row]!.toFixed(2)} kg`,
		ends[0] && `start ${ends[0]}, end ${ends[1]}`,
		lines > 1 && `joined of ${lines} lines`,
		[...new Set(made)].join(', ')
	]
		.filter(Boolean)
		.join(' · ');
}

/** Where a view is broken: bent lines across it. */
function inkBreaks(ink: Ink, at: readonly number[], foot: number, head: number): void {
	const middle = (foot + head) / 2;
	for (const x of at) {
		const places = [
			[x, foot - OVER],
			[x, middle - BENT],
			[x - BENT, middle - BENT / 3],
			[x + BENT, middle + BENT / 3],
			[x, middle + BENT],
			[x, head + OVER]
		] as const;
		for (let k = 1; k < places.length; k++) ink.line('dimensions', ...places[k - 1]!, ...places[k]!);
	}
}

/** A bar from outside and from the side, its section, its length and how its ends are cut. */
function drawBar(ink: Ink, of: PiecesOfKind, { left, foot, width, height }: Room): void {
	const { outside, side, section } = barViews(of);
	const room = {
		wide: width - SECTION - 2 * AROUND,
		high: height - UNDER - APART - 2 * AROUND
	};
	if (!outside.inked.length) {
		ink.text('text', left, foot + height / 2, STRIP_TEXT, 'Nothing of it could be made');
		return;
	}
	const denominator = scaleAtWhich((one) => (heightOf(outside) + heightOf(side)) / one <= room.high);
	const scale = 1 / denominator;
	let head = foot + height - AROUND;
	for (const view of [outside, side]) {
		const drawn = shortened(view, room.wide * denominator, GAP * denominator);
		const [from, low, to, high] = drawn.bounds;
		const [wide, tall] = [(to - from) * scale, (high - low) * scale];
		const place = { left: left + AROUND, foot: head - tall, width: wide, height: tall };
		placeView(ink, drawn, scale, place);
		if (drawn.breaks)
			inkBreaks(
				ink,
				drawn.breaks.map((x) => place.left + (x - from) * scale),
				place.foot,
				head
			);
		head -= tall + APART;
		if (view !== side) continue;
		const ends = [place.left, place.left + wide];
		dimensionChain(
			ink,
			[
				{ paper: ends[0]!, model: 0 },
				{ paper: ends[1]!, model: widthOf(view) }
			],
			head - 1,
			false,
			1
		);
	}
	ink.text('text', left, foot + 1.6, STRIP_TEXT, `1 : ${denominator}, from outside and from the side`);
	if (section) inkSection(ink, section, { left: left + width - SECTION, foot, width: SECTION, height });
}

/** The section beside the views, with its width and its depth. */
function inkSection(ink: Ink, section: View, { left, foot, width, height }: Room): void {
	const room = { left, foot: foot + UNDER + 2, width, height: height - UNDER - AROUND - 2 };
	const [wide, tall] = [widthOf(section), heightOf(section)];
	const denominator = scaleAtWhich(
		(one) => wide / one <= room.width - 4 * AROUND && tall / one <= room.height - 2 * AROUND
	);
	const at = placeView(ink, section, 1 / denominator, room);
	const [x1, y1, x2, y2] = section.bounds;
	const [[near, low], [far, high]] = [at(x1, y1), at(x2, y2)];
	const chain = (from: number, to: number, size: number, ordinate: number, isUpright: boolean) =>
		dimensionChain(
			ink,
			[
				{ paper: from, model: 0 },
				{ paper: to, model: size }
			],
			ordinate,
			isUpright,
			1
		);
	chain(near, far, wide, low - 4, false);
	chain(low, high, tall, near - 4, true);
	ink.text('text', left + width / 2, foot + 1.6, STRIP_TEXT, `Section 1 : ${denominator}`, {
		from: 'middle'
	});
}

/** Kinds of bars, one by one. */
export const barSheets = (
	sources: readonly GroupSource[],
	settings: BookSettings,
	titles: Titles
): Planned[] =>
	inStrips(
		piecesByKind(sources, 'line'),
		{
			letters: 'BD',
			group: 'bars',
			title: 'Bars',
			series: 'Bars, kind by kind',
			width: null,
			height: 58,
			called: ['bar', 'bars'],
			facts: factsOf,
			draw: drawBar
		},
		settings,
		titles
	);
