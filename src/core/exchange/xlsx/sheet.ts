import { headingOf } from '../../schedule/listed';
import { wordAt, type Column, type NumberColumn, type TextColumn } from '../../schedule/column';
import { letters } from '../../units/letters';
import { scales } from '../../units/scale';
import { Bytes, bytesOf, phraseOf } from '../bytes';
import { isPlainXml, xmlText } from '../xml';
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

const ENDED = phraseOf('</v></c>');

/** A column's cells as they are written: of a row, on a line of the sheet; empty ones are left out. */
type WriteCell = (row: number, line: number) => void;

/** A space at an end of a text is only kept among the texts of the workbook. */
const SPACE = 0x20;
const hasSpaceAtEnd = (text: string, from: number, to: number): boolean =>
	text.charCodeAt(from) <= SPACE || text.charCodeAt(to - 1) <= SPACE;

/** Words of one row each, as marks are, stand in their cells; the others are told by their place among all texts. */
function textCells(column: TextColumn, letter: string, texts: Texts, into: Bytes): WriteCell {
	const [begun, told, here] = [`<c r="${letter}`, '" t="s"><v>', '" t="inlineStr"><is><t>'].map(phraseOf);
	const ended = phraseOf('</t></is></c>');
	const { of, text, ends } = column;
	const isOfOneRow = 2 * ends.length > of.length;
	const isPlain = isPlainXml(text);
	// A word's place among the texts of the workbook is looked for once, when it is first said.
	const places = new Int32Array(ends.length).fill(-1);
	return (row, line) => {
		const word = of[row]!;
		const from = word ? ends[word - 1]! : 0;
		const to = ends[word]!;
		if (from === to) return;
		into.phrase(begun!);
		into.count(line);
		if (isOfOneRow && !hasSpaceAtEnd(text, from, to)) {
			into.phrase(here!);
			if (isPlain) into.text(text, from, to);
			else into.text(xmlText(text.slice(from, to)));
			into.phrase(ended);
			return;
		}
		if (places[word]! < 0) places[word] = texts.placeOf(wordAt(column, word));
		into.phrase(told!);
		into.count(places[word]!);
		into.phrase(ENDED);
	};
}

function numberCells({ numbers, kind }: NumberColumn, letter: string, into: Bytes): WriteCell {
	const begun = phraseOf(`<c r="${letter}`);
	const { size } = scales[kind];
	const asNumber = phraseOf(`" s="${styles.number(kind)}"><v>`);
	return (row, line) => {
		const value = numbers[row]!;
		if (Number.isNaN(value)) return;
		into.phrase(begun);
		into.count(line);
		into.phrase(asNumber);
		into.number(value / size);
		into.phrase(ENDED);
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

/**
 * The XML of a sheet, piece by piece: the head stands still and filters, totals are below. ECMA-376 part 1, 18.3.
 * @param sheet of no more rows than a sheet can have @param texts takes what stands in its cells
 */
export function* sheetXml({ columns, rows }: Sheet, texts: Texts): Generator<Uint8Array<ArrayBuffer>> {
	const names = columns.map((_, k) => letters(k));
	const all = `A1:${names.at(-1)}${rows.length + 1}`;
	const widths = columns.map(
		(column, k) => `<col min="${k + 1}" max="${k + 1}" width="${widthOf(column, rows)}" customWidth="1"/>`
	);
	const heads = columns.map((column, k) =>
		textCell(`${names[k]}1`, texts.placeOf(headingOf(column)), styles.head)
	);
	yield bytesOf(
		`<worksheet xmlns="http://schemas.openxmlformats.org/spreadsheetml/2006/main">` +
			`<sheetViews><sheetView workbookViewId="0"><pane xSplit="1" ySplit="1" topLeftCell="B2" activePane="bottomRight" state="frozen"/></sheetView></sheetViews>` +
			`<cols>${widths.join('')}</cols><sheetData><row r="1">${heads.join('')}</row>`
	);
	const bytes = new Bytes();
	const cells = columns.map((column, k) =>
		column.kind === 'text'
			? textCells(column, names[k]!, texts, bytes)
			: numberCells(column, names[k]!, bytes)
	);
	const [begun, named, ended] = [phraseOf('<row r="'), phraseOf('">'), phraseOf('</row>')];
	for (let k = 0; k < rows.length; k++) {
		const line = k + 2;
		bytes.phrase(begun);
		bytes.count(line);
		bytes.phrase(named);
		for (const cell of cells) cell(rows[k]!, line);
		bytes.phrase(ended);
		yield* bytes.full();
	}
	yield* bytes.all();
	const totals = columns.map((column, k) => totalCell(column, rows, names[k]!)).join('');
	const last =
		rows.length && totals
			? `<row r="${rows.length + 2}">${textCell(`A${rows.length + 2}`, texts.placeOf('Total'), styles.totalText)}${totals}</row>`
			: '';
	yield bytesOf(`${last}</sheetData><autoFilter ref="${all}"/></worksheet>`);
}
