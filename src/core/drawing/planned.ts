import type { Paper } from '../project/drawings-schema';
import type { Revised } from './clouds';
import type { Page } from './drawing';
import type { LaidSheet } from './laid-sheet';

/** What sheets are offered by. */
export const sheetGroups = {
	cover: 'Cover',
	own: 'Own sheets',
	elevations: 'Elevations',
	sections: 'Sections',
	unrolled: 'Unrolled',
	pieces: 'Pieces',
	bars: 'Bars',
	nodes: 'Nodes'
} as const;
export type SheetGroup = keyof typeof sheetGroups;

/** A sheet, or several that go on from one another, before they are drawn. */
export interface Planned {
	/** As in E-01; a project has each once. */
	readonly number: string;
	readonly title: string;
	readonly group: SheetGroup;
	/** What sheets of which there may be hundreds are told as, all together. */
	readonly series?: string;
	/** How many sheets it comes to. */
	readonly count: number;
	draw(): Page[];
	/** Where its views lie, of one that is laid out by hand. */
	layout?(): LaidSheet;
}

/** What was released before sheets are drawn. */
export interface Issued {
	/** The last release as the title block tells it, as in: 2, 27 Nov 2026; null for none. */
	readonly last: string | null;
	/** What is clouded on views of the model; null where nothing is. */
	readonly revised: Revised | null;
}
export const NOT_ISSUED: Issued = { last: null, revised: null };

/** How the sheets of a project are drawn. */
export interface BookSettings {
	readonly paper: Paper;
	/** The day they are of, as in 2026-11-27. */
	readonly date: string;
	/** What is clouded; null where nothing is. */
	readonly revised: Revised | null;
}

/**
 * The number of a sheet: a letter for what it shows, and which of them it is.
 * @param n from 1
 */
export const sheetNumber = (letter: string, n: number, digits = 2): string =>
	`${letter}-${String(n).padStart(digits, '0')}`;
