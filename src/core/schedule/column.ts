import type { NumberKind } from '../units/dimension';

/** What stands in a row of a column: a number in kernel units, or nothing. */
export type Cell = string | number | null;

/** What a column says of itself; numbers are in kernel units. */
export interface ColumnHead {
	readonly key: string;
	readonly title: string;
	readonly kind: NumberKind | 'text';
	/** Whether summing it means something. */
	readonly total: boolean;
}

/** A number for every row, NaN where a row has no such value. */
export interface NumberColumn extends ColumnHead {
	readonly kind: NumberKind;
	readonly numbers: Float64Array;
}
/**
 * Words of a column, most of which are said of many rows. They are one text with their ends, for a thread gives that to
 * another at once where it takes long over a list of as many texts. The same word may stand in it twice.
 */
export interface TextColumn extends ColumnHead {
	readonly kind: 'text';
	readonly text: string;
	/** Where each word ends in the text. */
	readonly ends: Uint32Array;
	/** The word of each row. */
	readonly of: Uint32Array;
}
export type Column = NumberColumn | TextColumn;

export const textHead = (key: string, title: string): ColumnHead & { readonly kind: 'text' } => ({
	key,
	title,
	kind: 'text',
	total: false
});
export const numberHead = (
	key: string,
	title: string,
	kind: NumberKind,
	total = false
): ColumnHead & { readonly kind: NumberKind } => ({ key, title, kind, total });

/**
 * How many rows a column has.
 *
 * ```ts
 * rowsOf(columnOf(textHead('mark', 'Mark'), ['A1', 'A2'])); // 2
 * ```
 */
export const rowsOf = (column: Column): number =>
	column.kind === 'text' ? column.of.length : column.numbers.length;

/** A word of a column, by its place among them. */
export const wordAt = ({ text, ends }: TextColumn, word: number): string =>
	text.slice(word ? ends[word - 1]! : 0, ends[word]!);

/** All words of a column, by their places. */
export const wordsOf = (column: TextColumn): string[] =>
	Array.from(column.ends, (_, word) => wordAt(column, word));

/**
 * What stands in a row; null where it has no such value.
 *
 * ```ts
 * cellOf(columnOf(numberHead('size', 'Size', 'length'), [1200]), 0); // 1200
 * ```
 */
export function cellOf(column: Column, row: number): Cell {
	if (column.kind === 'text') return wordAt(column, column.of[row]!);
	const value = column.numbers[row]!;
	return Number.isNaN(value) ? null : value;
}

/** What stands in every row: for few rows, or once. */
export const cellsOf = (column: Column): Cell[] =>
	Array.from({ length: rowsOf(column) }, (_, row) => cellOf(column, row));

/** So many different words are looked for among those said before; in a column of more, most are of one row. */
const MOST_LOOKED_FOR = 4096;

/** Takes the words of a column, row by row, in any order. */
export class TextFiller {
	private readonly words: string[] = [''];
	private readonly known = new Map<string, number>([['', 0]]);
	private readonly of: Uint32Array;
	private last = '';
	private lastPlace = 0;

	constructor(rows: number) {
		this.of = new Uint32Array(rows);
	}

	/** Null stands for no word, as the empty one does. */
	set(row: number, word: string | null): void {
		if (word !== this.last) {
			this.last = word ?? '';
			this.lastPlace = this.placeOf(this.last);
		}
		this.of[row] = this.lastPlace;
	}

	private placeOf(word: string): number {
		if (this.known.size < MOST_LOOKED_FOR) {
			const known = this.known.get(word);
			if (known !== undefined) return known;
			this.known.set(word, this.words.length);
		}
		return this.words.push(word) - 1;
	}

	column(head: ColumnHead & { readonly kind: 'text' }): TextColumn {
		const ends = new Uint32Array(this.words.length);
		let end = 0;
		for (let word = 0; word < ends.length; word++) ends[word] = end += this.words[word]!.length;
		return { ...head, text: this.words.join(''), ends, of: this.of };
	}
}

/**
 * A column of what stands in its rows.
 *
 * ```ts
 * const column = columnOf(numberHead('area', 'Area', 'area'), [1200, null, 800]);
 * ```
 */
export function columnOf(head: ColumnHead, cells: readonly Cell[]): Column {
	const { kind } = head;
	if (kind !== 'text')
		return {
			...head,
			kind,
			numbers: Float64Array.from(cells, (cell) => (cell === null ? NaN : Number(cell)))
		};
	const filler = new TextFiller(cells.length);
	cells.forEach((cell, row) => filler.set(row, cell === null ? null : String(cell)));
	return filler.column({ ...head, kind });
}
