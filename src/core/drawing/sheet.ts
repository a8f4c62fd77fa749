import type { BlockLine, Paper } from '../project/drawings-schema';
import { Ink, widthOfText, type Page, type View } from './drawing';

/** Of sheets on their long side, mm: ISO 216. */
const papers = {
	A4: [297, 210],
	A3: [420, 297],
	A2: [594, 420],
	A1: [841, 594],
	A0: [1189, 841]
} as const satisfies Record<Paper, readonly [number, number]>;

/** What stands in the title block of every sheet. */
export interface Titles {
	readonly project: string;
	/** The day it is of, as in 2026-11-27. */
	readonly date: string;
	/** The project's own, beside the others. */
	readonly lines: readonly Pick<BlockLine, 'label' | 'text'>[];
}

/** What a sheet is called. */
export interface SheetName {
	/** As in E-01. */
	readonly number: string;
	readonly title: string;
	/** As in 1 : 100; the empty one where nothing is to scale. */
	readonly scale: string;
}

/** Where there is room to draw: mm of paper. */
export interface Room {
	readonly left: number;
	readonly foot: number;
	readonly width: number;
	readonly height: number;
}

/** From the edges of the paper to the frame: wide on the left for binding (ISO 5457, from memory). */
const [BINDING, EDGE] = [20, 10];
/** Between the frame and what is drawn. */
const INSIDE = 6;
/** Of the title block, and of its lines. */
const [BLOCK_WIDTH, BLOCK_LINE] = [120, 7];
export const BLOCK_HEIGHT = 3 * BLOCK_LINE;

const SCALES = [1, 2, 5, 10, 20, 25, 50, 100, 200, 250, 500, 1000, 2000, 5000, 10_000];

/**
 * The largest scale of those in use at which something fits: 1 to so many.
 *
 * ```ts
 * scaleThatFits(36_000, 12_000, 380, 240); // 100
 * ```
 * @param wide mm of the model @param high mm of the model @param width of the room (mm of paper)
 */
export const scaleThatFits = (wide: number, high: number, width: number, height: number): number =>
	scaleAtWhich((one) => wide / one <= width && high / one <= height);

/** The same, by whether all has its room at 1 to so many; the smallest where it has none. */
export const scaleAtWhich = (fits: (one: number) => boolean): number => SCALES.find(fits) ?? SCALES.at(-1)!;

/** Text that goes on where there is no room for it ends with … @param width mm */
export function fitted(text: string, size: number, width: number): string {
	if (widthOfText(text, size) <= width) return text;
	const letters = Math.max(1, Math.floor(width / widthOfText('n', size)) - 1);
	return `${text.slice(0, letters)}…`;
}

/** Lines of the title block, one above the other. */
const ROWS = 3;
/** Of a column of own lines (mm). */
const WIDEST_COLUMN = 70;

function titleBlock(ink: Ink, right: number, { project, date, lines }: Titles, name: SheetName): void {
	const left = right - BLOCK_WIDTH;
	ink.box('frame', left, EDGE, BLOCK_WIDTH, BLOCK_HEIGHT);
	const split = left + BLOCK_WIDTH - 38;
	for (const k of [1, 2]) ink.line('tables', left, EDGE + k * BLOCK_LINE, right, EDGE + k * BLOCK_LINE);
	ink.line('tables', split, EDGE, split, EDGE + BLOCK_HEIGHT);
	const at = (k: number) => EDGE + k * BLOCK_LINE + 2.2;
	const room = split - left - 4;
	ink.text('text', left + 2, at(2), 3, fitted(project, 3, room), { bold: true });
	ink.text('text', left + 2, at(1), 3, fitted(name.title, 3, room));
	ink.text('text', left + 2, at(0), 2.4, 'All lengths in millimetres', {});
	ink.text('text', split + 2, at(2), 3, `Sheet ${name.number}`, { bold: true });
	ink.text('text', split + 2, at(1), 3, name.scale ? `Scale ${name.scale}` : 'Not to scale');
	ink.text('text', split + 2, at(0), 2.4, date);
	ownLines(ink, left, lines);
}

/** The project's own lines: columns to the left of the title block, read from its left. @param right where they end (mm) */
function ownLines(ink: Ink, right: number, lines: Titles['lines']): void {
	const columns = Math.ceil(lines.length / ROWS);
	const width = Math.min(WIDEST_COLUMN, (right - BINDING) / columns);
	for (const [k, { label, text }] of lines.entries()) {
		const left = right - (columns - Math.floor(k / ROWS)) * width;
		const foot = EDGE + (ROWS - 1 - (k % ROWS)) * BLOCK_LINE;
		ink.box('tables', left, foot, width, BLOCK_LINE);
		ink.text('text', left + 1.5, foot + 4.8, 1.5, fitted(label, 1.5, width - 3));
		ink.text('text', left + 1.5, foot + 1.5, 2.6, fitted(text, 2.6, width - 3));
	}
}

/**
 * A sheet with its frame and title block.
 * @param draw what stands in the room that is left above the title block
 */
export function sheetOf(
	paper: Paper,
	titles: Titles,
	name: SheetName,
	draw: (ink: Ink, room: Room) => void
): Page {
	const [width, height] = papers[paper];
	const ink = new Ink();
	ink.box('frame', BINDING, EDGE, width - BINDING - EDGE, height - 2 * EDGE);
	titleBlock(ink, width - EDGE, titles, name);
	draw(ink, roomOf(paper));
	return { title: `${name.number} ${name.title}`, width, height, inked: ink.done() };
}

/** The room above the title block. */
export function roomOf(paper: Paper): Room {
	const [width, height] = papers[paper];
	const foot = EDGE + BLOCK_HEIGHT + INSIDE;
	return {
		left: BINDING + INSIDE,
		foot,
		width: width - BINDING - EDGE - 2 * INSIDE,
		height: height - EDGE - INSIDE - foot
	};
}

/** A view in the middle of a room. @returns where a place of the model comes to lie on the paper */
export function placeView(
	ink: Ink,
	{ inked, bounds: [left, foot, right, head] }: View,
	scale: number,
	room: Room
): (x: number, y: number) => [number, number] {
	const x = room.left + room.width / 2 - ((left + right) / 2) * scale;
	const y = room.foot + room.height / 2 - ((foot + head) / 2) * scale;
	ink.place(inked, scale, x, y);
	return (mx, my) => [mx * scale + x, my * scale + y];
}

/** Of a dimension: its ticks, and its text (mm of paper). */
const [TICK, DIMENSION_TEXT] = [1.2, 2.2];

/**
 * A chain of dimensions: places along a line, and how far they are apart. As lines and text.
 * @param places mm of paper, ascending, with what each is in the model (mm)
 * @param at the other ordinate of the line @param digits after the point
 */
export function dimensionChain(
	ink: Ink,
	places: readonly { readonly paper: number; readonly model: number }[],
	at: number,
	isUpright: boolean,
	digits = 0
): void {
	const line = (u1: number, v1: number, u2: number, v2: number) =>
		isUpright ? ink.line('dimensions', v1, u1, v2, u2) : ink.line('dimensions', u1, v1, u2, v2);
	for (const [k, { paper, model }] of places.entries()) {
		line(paper, at - 2 * TICK, paper, at + TICK);
		line(paper - TICK / 2, at - TICK / 2, paper + TICK / 2, at + TICK / 2);
		const next = places[k + 1];
		if (!next) continue;
		line(paper, at, next.paper, at);
		const text = (next.model - model).toFixed(digits);
		if (widthOfText(text, DIMENSION_TEXT) > next.paper - paper) {
			// The only one of its chain stands beside it.
			if (places.length > 2) continue;
			if (isUpright)
				ink.text('dimensions', at - 0.8, next.paper + 1, DIMENSION_TEXT, text, { turn: Math.PI / 2 });
			else ink.text('dimensions', next.paper + 1.5, at - 0.7, DIMENSION_TEXT, text);
			continue;
		}
		const middle = (paper + next.paper) / 2;
		if (isUpright)
			ink.text('dimensions', at - 0.8, middle, DIMENSION_TEXT, text, { from: 'middle', turn: Math.PI / 2 });
		else ink.text('dimensions', middle, at + 0.8, DIMENSION_TEXT, text, { from: 'middle' });
	}
}
