import { widthOfText, type Ink, type Page } from './drawing';
import { sheetNumber, type BookSettings, type Planned, type SheetGroup } from './planned';
import type { PiecesOfKind } from './pieces-of-kinds';
import { fitted, roomOf, sheetOf, type Room, type Titles } from './sheet';

/** How kinds of pieces are drawn that are small enough for many of them to share a sheet. */
export interface Strips {
	readonly letters: string;
	readonly group: SheetGroup;
	/** Before the names of the kinds on a sheet, as in Bars. */
	readonly title: string;
	/** What all of these sheets are told as on the cover. */
	readonly series: string;
	/** The room that each kind takes, at least (mm of paper); its width null for all there is. */
	readonly width: number | null;
	readonly height: number;
	/** What one of them is called, and several. */
	readonly called: readonly [one: string, several: string];
	/** What is to be known of a kind, in a line. */
	facts(of: PiecesOfKind): string;
	/** Draw it under its name, its facts and its marks. */
	draw(ink: Ink, of: PiecesOfKind, room: Room): void;
}

/** Of what is written in strips, and of its lines (mm of paper). */
export const [STRIP_TEXT, STRIP_LINE] = [2.3, 3.8];
/** Between strips beside each other (mm of paper). */
const ASIDE = 4;

/** As many marks as a line has room for. */
function marksIn(marks: readonly string[], width: number): string {
	let line = '';
	for (const [k, mark] of marks.entries()) {
		const next = line ? `${line}, ${mark}` : mark;
		const more = k + 1 < marks.length ? ` … and ${marks.length - k - 1} more` : '';
		if (line && widthOfText(`${next}${more}`, STRIP_TEXT) > width)
			return `${line} … and ${marks.length - k} more`;
		line = next;
	}
	return line;
}

/** The name of a kind with how many there are, its facts, its marks; a line under the strip. @returns the room between */
function inkHead(
	ink: Ink,
	of: PiecesOfKind,
	{ called, facts }: Pick<Strips, 'called' | 'facts'>,
	{ left, foot, width, height }: Room
): Room {
	const { kind, marks, source } = of;
	const own = width - ASIDE;
	const count = `${marks.length} ${called[marks.length === 1 ? 0 : 1]}`;
	const told = [
		`${kind.name} · ${count} · ${source.group.ready.variant.name}`,
		facts(of),
		marksIn(marks, own)
	];
	const heads = foot + height;
	for (const [k, text] of told.entries())
		ink.text(
			k === 2 ? 'marks' : 'text',
			left,
			heads - (k + 1) * STRIP_LINE,
			STRIP_TEXT,
			fitted(text, STRIP_TEXT, own),
			{ bold: k === 0 }
		);
	ink.line('tables', left, foot + 1, left + own, foot + 1);
	return { left, foot: foot + 1, width: own, height: height - 1 - told.length * STRIP_LINE };
}

/** Sheets on which kinds of pieces are drawn one by one, several on each. */
export function inStrips(
	kinds: readonly PiecesOfKind[],
	{ letters, group, title, series, width, height, called, facts, draw }: Strips,
	{ paper }: BookSettings,
	titles: Titles
): Planned[] {
	const room = roomOf(paper);
	const columns = width === null ? 1 : Math.max(1, Math.floor(room.width / width));
	const rows = Math.max(1, Math.floor(room.height / height));
	const [wide, high] = [room.width / columns, room.height / rows];
	const each = columns * rows;
	return Array.from({ length: Math.ceil(kinds.length / each) }, (_, page): Planned => {
		const own = kinds.slice(page * each, (page + 1) * each);
		const names = [own[0]!, own.at(-1)!].map(({ kind }) => kind.name);
		const name = {
			number: sheetNumber(letters, page + 1, 3),
			title: own.length > 1 ? `${title} ${names.join(' to ')}` : `${title} ${names[0]!}`,
			scale: 'as told'
		};
		const drawn = (): Page =>
			sheetOf(paper, titles, name, (ink) =>
				own.forEach((of, k) => {
					const left = room.left + (k % columns) * wide;
					const foot = room.foot + room.height - (Math.floor(k / columns) + 1) * high;
					draw(ink, of, inkHead(ink, of, { called, facts }, { left, foot, width: wide, height: high }));
				})
			);
		return { ...name, group, series, count: 1, draw: () => [drawn()] };
	});
}
