import { headingOf } from '../../schedule/listed';
import { wordAt, type Column } from '../../schedule/column';
import { letters } from '../../units/letters';
import { scales } from '../../units/scale';
import { styles } from './styles';
import type { Texts } from './texts';

/** One sheet: a schedule, or what of it is listed. */
export interface Sheet {
	readonly name: string;
	readonly columns: readonly Column[];
	/** Rows of the columns, in the order they are listed. */
	readonly rows: Uint32Array;
}

/** Numbers in listed units keep six decimals. */
const DIGITS = 1e6;

/** What a number is in its listed unit. */
const listed = (value: number, size: number): number => Math.round((value / size) * DIGITS) / DIGITS;

const textCell = (at: string, place: number, style = 0): string =>
	`<c r="${at}"${style ? ` s="${style}"` : ''} t="s"><v>${place}</v></c>`;

/** A column's cells as they are written; empty ones are left out. */
function cellsOf(column: Column, letter: string, texts: Texts): (row: number, line: string) => string {
	const begun = `<c r="${letter}`;
	if (column.kind === 'text') {
		const { of, ends } = column;
		// A word's place among the texts of the workbook is looked for once, when it is first said.
		const places = new Int32Array(ends.length).fill(-1);
		return (row, line) => {
			const word = of[row]!;
			if (ends[word] === (word ? ends[word - 1] : 0)) return '';
			if (places[word]! < 0) places[word] = texts.placeOf(wordAt(column, word));
			return begun + line + '" t="s"><v>' + places[word] + '</v></c>';
		};
	}
	const { numbers, kind } = column;
	const { size } = scales[kind];
	const asNumber = `" s="${styles.number(kind)}"><v>`;
	return (row, line) => {
		const value = numbers[row]!;
		return Number.isNaN(value) ? '' : begun + line + asNumber + listed(value, size) + '</v></c>';
	};
}

/** The sum of a column as a formula that follows the filter, with what it comes to now. */
function totalCell(column: Column, rows: Uint32Array, letter: string): string {
	if (!column.total || column.kind === 'text') return '';
	const { kind, numbers } = column;
	const { size } = scales[kind];
	let sum = 0;
	for (let k = 0; k < rows.length; k++) {
		const value = numbers[rows[k]!]!;
		if (!Number.isNaN(value)) sum += listed(value, size);
	}
	const line = rows.length + 2;
	const formula = `SUBTOTAL(9,${letter}2:${letter}${rows.length + 1})`;
	return `<c r="${letter}${line}" s="${styles.total(kind)}"><f>${formula}</f><v>${listed(sum, 1)}</v></c>`;
}

/** Characters; in narrower columns heads cannot be read. */
const [NARROWEST, WIDEST] = [9, 34];
const SAMPLE = 200;

/** As wide as its head and what stands in its first rows. */
function widthOf(column: Column, rows: Uint32Array): number {
	let most = Math.min(headingOf(column).length, 14);
	if (column.kind === 'text')
		for (let k = 0; k < Math.min(SAMPLE, rows.length); k++)
			most = Math.max(most, wordAt(column, column.of[rows[k]!]!).length);
	return Math.min(WIDEST, Math.max(NARROWEST, most + 2));
}

/** Characters between two pieces of a sheet. */
const AT_ONCE = 1 << 18;

/**
 * The XML of a sheet, piece by piece: the head stands still and filters, totals are below. ECMA-376 part 1, 18.3.
 * @param sheet of no more rows than a sheet can have @param texts takes what stands in its cells
 */
export function* sheetXml({ columns, rows }: Sheet, texts: Texts): Generator<string> {
	const names = columns.map((_, k) => letters(k));
	const all = `A1:${names.at(-1)}${rows.length + 1}`;
	const widths = columns.map(
		(column, k) => `<col min="${k + 1}" max="${k + 1}" width="${widthOf(column, rows)}" customWidth="1"/>`
	);
	const heads = columns.map((column, k) =>
		textCell(`${names[k]}1`, texts.placeOf(headingOf(column)), styles.head)
	);
	yield (
		`<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">` +
		`<sheetViews><sheetView workbookViewId="0"><pane xSplit="1" ySplit="1" topLeftCell="B2" activePane="bottomRight" state="frozen"/></sheetView></sheetViews>` +
		`<cols>${widths.join('')}</cols><sheetData><row r="1">${heads.join('')}</row>`
	);
	const cells = columns.map((column, k) => cellsOf(column, names[k]!, texts));
	let text = '';
	for (let k = 0; k < rows.length; k++) {
		const row = rows[k]!;
		const line = String(k + 2);
		text += '<row r="' + line + '">';
		for (const cell of cells) text += cell(row, line);
		text += '</row>';
		if (text.length < AT_ONCE) continue;
		yield text;
		text = '';
	}
	const totals = columns.map((column, k) => totalCell(column, rows, names[k]!)).join('');
	if (rows.length && totals)
		text += `<row r="${rows.length + 2}">${textCell(`A${rows.length + 2}`, texts.placeOf('Total'), styles.totalText)}${totals}</row>`;
	yield `${text}</sheetData><autoFilter ref="${all}"/></worksheet>`;
}
