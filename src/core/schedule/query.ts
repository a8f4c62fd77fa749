import { everySite } from '../field/column';
import type { Filter } from '../project/schedules-schema';
import { once } from '../units/once';
import { cellOf, wordAt, wordsOf, type Column, type ColumnHead, type TextColumn } from './column';
import { ranksOf } from './natural-order';
import { inOrder } from '../units/in-order';

/** A schedule, or the columns of it that are there. */
export interface Listed {
	readonly rows: number;
	readonly heads: readonly ColumnHead[];
	column(key: string): Column | undefined;
}

/** What a person wants to see of a schedule. Filters all have to hold; one whose value is not said yet keeps all. */
export interface Query {
	readonly filters: readonly Filter[];
	readonly sort: { readonly key: string; readonly descending: boolean } | null;
	readonly groupBy: string | null;
}
/** One run of rows under a heading; without grouping there is one group with no label. */
export interface RowGroup {
	readonly label: string | null;
	readonly rows: Uint32Array;
	/** Sums of the columns that can be summed, by key. */
	readonly totals: Readonly<Record<string, number>>;
}

/**
 * Sums of the summable columns over some rows.
 *
 * ```ts
 * const { area } = totalsOf(schedule, Uint32Array.of(0, 1, 2));
 * ```
 */
export function totalsOf(schedule: Listed, rows: Uint32Array): Record<string, number> {
	const totals: Record<string, number> = {};
	for (const { key, total } of schedule.heads) {
		const column = total ? schedule.column(key) : undefined;
		if (column && column.kind !== 'text') totals[key] = sumOf(column.numbers, rows);
	}
	return totals;
}

function sumOf(numbers: Float64Array, rows: Uint32Array): number {
	let sum = 0;
	for (let k = 0; k < rows.length; k++) {
		const value = numbers[rows[k]!]!;
		if (!Number.isNaN(value)) sum += value;
	}
	return sum;
}

const wordsThatAre = (column: TextColumn, wanted: string): Uint8Array =>
	Uint8Array.from(wordsOf(column), (word) => Number(word === wanted && word !== ''));

/** Which words have a text in them, capitals aside: all of them are looked through at once, as the one text they are. */
function wordsWith(column: TextColumn, wanted: string): Uint8Array {
	const small = column.text.toLowerCase();
	const sought = wanted.toLowerCase();
	const kept = new Uint8Array(column.ends.length);
	// Few letters become longer as small ones; where any does, the words are asked one by one.
	if (small.length !== column.text.length)
		return Uint8Array.from(wordsOf(column), (word) => Number(word.toLowerCase().includes(sought)));
	let word = 0;
	for (let at = small.indexOf(sought); at >= 0; at = small.indexOf(sought, at)) {
		while (column.ends[word]! <= at) word++;
		const end = column.ends[word]!;
		if (at + sought.length > end) at++;
		else {
			kept[word] = 1;
			at = end;
		}
	}
	return kept;
}

/** Which rows of a column a filter keeps: every word is asked once. */
function keeps(column: Column, { is, value }: Filter): (row: number) => boolean {
	if (column.kind === 'text') {
		const kept = is === 'equal' ? wordsThatAre(column, String(value)) : wordsWith(column, String(value));
		const { of } = column;
		return (row) => kept[of[row]!] === 1;
	}
	const { numbers } = column;
	const bound = Number(value);
	if (is === 'at least') return (row) => numbers[row]! >= bound;
	if (is === 'at most') return (row) => numbers[row]! <= bound;
	if (is === 'equal') return (row) => numbers[row] === bound;
	return (row) => !Number.isNaN(numbers[row]!) && String(numbers[row]).includes(String(value));
}

/** Sorted ranks of the words of a column: a list is sorted by it again and again. */
const ranks = new WeakMap<TextColumn, () => Uint32Array>();
function ranksOfColumn(column: TextColumn): Uint32Array {
	const made = ranks.get(column) ?? once(() => ranksOf(column));
	ranks.set(column, made);
	return made();
}

/** Every row's rank in a column as digits, the first counting most. */
function digitsOf(column: Column, rows: Uint32Array, descending: boolean): Uint32Array[] {
	if (column.kind === 'text') {
		const rank = ranksOfColumn(column);
		const none = rank.length;
		const { of } = column;
		return [
			rows.map((row) => {
				const own = rank[of[row]!]!;
				// What is missing comes last either way.
				return descending && wordAt(column, of[row]!) !== '' ? none - 1 - own : own + (descending ? none : 0);
			})
		];
	}
	return numberDigits(column.numbers, rows, descending);
}

const BITS = 16;
const DIGIT = (1 << BITS) - 1;

/**
 * Numbers as four digits of 16 bits that order as they do: IEEE 754 doubles order as whole numbers once the sign is
 * turned round. Those that are missing are after all others.
 */
function numberDigits(numbers: Float64Array, rows: Uint32Array, descending: boolean): Uint32Array[] {
	const digits = Array.from({ length: 4 }, () => new Uint32Array(rows.length));
	const [first, second, third, fourth] = digits as [Uint32Array, Uint32Array, Uint32Array, Uint32Array];
	const value = new Float64Array(1);
	const [low, high] = [0, 1];
	const words = new Uint32Array(value.buffer);
	for (let k = 0; k < rows.length; k++) {
		// Nought has two signs, and they are one number.
		value[0] = numbers[rows[k]!]! + 0;
		let [most, least] = [words[high]!, words[low]!];
		if (Number.isNaN(value[0])) most = least = 0xffffffff;
		else {
			if (most >>> 31) [most, least] = [~most >>> 0, ~least >>> 0];
			else most = (most | 0x80000000) >>> 0;
			if (descending) [most, least] = [~most >>> 0, ~least >>> 0];
		}
		first[k] = most >>> BITS;
		second[k] = most & DIGIT;
		third[k] = least >>> BITS;
		fourth[k] = least & DIGIT;
	}
	return digits;
}

/**
 * Filter, sort and group. Unsorted rows stay in building order; a sort keeps it among equals.
 *
 * ```ts
 * const [all] = queryRows(schedule, { filters: [], sort: { key: 'area', descending: true }, groupBy: null });
 * ```
 */
export function queryRows(schedule: Listed, query: Query): RowGroup[] {
	let rows = everySite(schedule.rows);
	for (const filter of query.filters) {
		const column = filter.value === '' ? undefined : schedule.column(filter.key);
		if (column) rows = rows.filter(keeps(column, filter));
	}
	const sorted = query.sort ? schedule.column(query.sort.key) : undefined;
	if (sorted) rows = pick(rows, inOrder(digitsOf(sorted, rows, query.sort!.descending), rows.length));
	const grouped = query.groupBy ? schedule.column(query.groupBy) : undefined;
	if (!grouped) return [{ label: null, rows, totals: totalsOf(schedule, rows) }];
	return [...runsOf(grouped, pick(rows, inOrder(digitsOf(grouped, rows, false), rows.length)))].map(
		(members) => {
			const cell = cellOf(grouped, members[0]!);
			return {
				label: cell === null || cell === '' ? '—' : String(cell),
				rows: members,
				totals: totalsOf(schedule, members)
			};
		}
	);
}

const pick = (rows: Uint32Array, order: Uint32Array): Uint32Array => order.map((k) => rows[k]!);

/** Rows that follow one another and say the same. */
function* runsOf(column: Column, rows: Uint32Array): Generator<Uint32Array> {
	for (let from = 0, to = 0; from < rows.length; from = to) {
		const cell = cellOf(column, rows[from]!);
		while (to < rows.length && cellOf(column, rows[to]!) === cell) to++;
		yield rows.slice(from, to);
	}
}
