import type { Ink, Page } from './drawing';
import { sheetNumber, type BookSettings, type Planned, type SheetGroup } from './planned';
import type { PiecesOfKind } from './pieces-of-kinds';
import { roomOf, sheetOf, type Room, type Titles } from './sheet';

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
	draw(ink: Ink, of: PiecesOfKind, room: Room): void;
}

/** Sheets on which kinds of pieces are drawn one by one, several on each. */
export function inStrips(
	kinds: readonly PiecesOfKind[],
	{ letters, group, title, series, width, height, draw }: Strips,
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
					draw(ink, of, { left, foot, width: wide, height: high });
				})
			);
		return { ...name, group, series, count: 1, draw: () => [drawn()] };
	});
}
