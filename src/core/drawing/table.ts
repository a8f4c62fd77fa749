import { cellOf, type Column } from '../schedule/column';
import { decimals, headingOf } from '../schedule/listed';
import { scales } from '../units/scale';
import { Ink, widthOfText } from './drawing';
import { fitted, type Room } from './sheet';

/** A table as it is drawn: its heads and its rows as texts. */
export interface DrawnTable {
	readonly heads: readonly { readonly text: string; readonly width: number; readonly isNumber: boolean }[];
	readonly rows: readonly (readonly string[])[];
}

/** Of a line of a table, and of its text (mm of paper). */
export const TABLE_LINE = 4.4;
const TABLE_TEXT = 2.3;
const ASIDE = 1.2;
/** Columns are as wide as what stands in them, within this. */
const [NARROWEST, WIDEST] = [12, 70];

/** What stands in a row of a column, as it is printed. */
export function printed(column: Column, row: number): string {
	const value = cellOf(column, row);
	if (value === null) return '';
	return column.kind === 'text'
		? String(value)
		: ((value as number) / scales[column.kind].size).toFixed(decimals[column.kind]);
}

/** Rows of some columns, each as wide as it has to be. */
export function tableOf(columns: readonly Column[], rows: readonly number[]): DrawnTable {
	const texts = rows.map((row) => columns.map((column) => printed(column, row)));
	return plainTable(
		columns.map((column) => ({ text: headingOf(column), isNumber: column.kind !== 'text' })),
		texts
	);
}

/** The same of texts. */
export function plainTable(
	heads: readonly { readonly text: string; readonly isNumber: boolean }[],
	rows: readonly (readonly string[])[]
): DrawnTable {
	return {
		heads: heads.map(({ text, isNumber }, k) => {
			let longest = widthOfText(text, TABLE_TEXT) * 1.08;
			for (const row of rows) longest = Math.max(longest, widthOfText(row[k]!, TABLE_TEXT));
			return { text, isNumber, width: Math.min(WIDEST, Math.max(NARROWEST, longest + 2 * ASIDE)) };
		}),
		rows
	};
}

export const widthOfTable = ({ heads }: DrawnTable): number =>
	heads.reduce((sum, { width }) => sum + width, 0);

/** Draw some rows of a table from its upper left corner on. @returns the height it takes */
export function drawTable(
	ink: Ink,
	{ heads, rows }: DrawnTable,
	left: number,
	top: number,
	from = 0,
	to = rows.length
): number {
	const width = heads.reduce((sum, head) => sum + head.width, 0);
	const line = (texts: readonly string[], y: number, bold: boolean) => {
		let x = left;
		for (const [k, { width: own, isNumber }] of heads.entries()) {
			const text = fitted(texts[k]!, TABLE_TEXT, own - 2 * ASIDE + 0.5);
			if (isNumber) ink.text('tables', x + own - ASIDE, y, TABLE_TEXT, text, { from: 'right', bold });
			else ink.text('tables', x + ASIDE, y, TABLE_TEXT, text, { bold });
			x += own;
		}
	};
	const base = (n: number) => top - (n + 1) * TABLE_LINE + 1.3;
	line(
		heads.map(({ text }) => text),
		base(0),
		true
	);
	const count = to - from;
	for (let n = 0; n <= count + 1; n++)
		ink.line('tables', left, top - n * TABLE_LINE, left + width, top - n * TABLE_LINE);
	for (let k = from; k < to; k++) line(rows[k]!, base(k - from + 1), false);
	return (count + 1) * TABLE_LINE;
}

/** How a long table is laid on sheets: blocks beside one another, as many rows in each. */
export function blocksOf(table: DrawnTable, room: Room): { readonly beside: number; readonly rows: number } {
	const width = widthOfTable(table);
	return {
		beside: Math.max(1, Math.floor((room.width + BETWEEN) / (width + BETWEEN))),
		rows: Math.max(1, Math.floor(room.height / TABLE_LINE) - 1)
	};
}
/** Between two blocks (mm). */
export const BETWEEN = 8;
