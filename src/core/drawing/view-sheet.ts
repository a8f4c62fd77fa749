import { boxOf, type Box } from '../geometry/polygon';
import { drawClouds, type Revised } from './clouds';
import type { Ink, Page, View } from './drawing';
import type { BookSettings } from './planned';
import { dimensionChain, placeView, roomOf, scaleThatFits, sheetOf, type Room, type Titles } from './sheet';

/** Round a view: for the names of levels and heads, for dimensions, for what it is called (mm of paper). */
const [BESIDE, BELOW] = [26, 18];
/** Of what is written beside a view (mm of paper). */
export const VIEW_TEXT = 2.4;

const within = ({ left, foot, width, height }: Room): Room => ({
	left: left + BESIDE,
	foot: foot + BELOW,
	width: width - 2 * BESIDE,
	height: height - BELOW - 6
});

/** A view, and what of it could not be written, and what of it is clouded. */
export interface DrawnView extends View {
	/** Marks that are too small to be read at the scale. */
	readonly left: number;
	readonly revised: readonly Box[];
}

/** What is said of clouds on a sheet. */
const toldOf = (revised: Revised | null, drawn: DrawnView): string =>
	revised && drawn.revised.length
		? ` · clouded: ${drawn.revised.length === 1 ? 'one place' : `${drawn.revised.length} places`} where it differs from ${revised.since}`
		: '';

/**
 * A sheet with one view as large as fits.
 * @param view is told how a scale follows from its bounds (mm of the model): mm of paper to a mm of the model
 * @param finish draws what goes round it; it is told where a place of the model lies on the paper (mm)
 */
export function viewSheet(
	settings: BookSettings,
	titles: Titles,
	name: { readonly number: string; readonly title: string },
	view: (scaleOf: (bounds: View['bounds']) => number) => DrawnView,
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
		const clouded = drawn.revised.map(({ low, high }) => boxOf([at(...low), at(...high)]));
		drawClouds(ink, clouded);
		const left =
			drawn.left > 0 ? ` · ${drawn.left} marks have no room at this scale; the schedule has them` : '';
		ink.text(
			'text',
			whole.left,
			whole.foot,
			VIEW_TEXT,
			`${name.title} · ${scale}${left}${toldOf(settings.revised, drawn)}`
		);
	});
}

/** Overall sizes below and beside a view. @param heights further places up the side (mm of the model) */
export function overall(
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
