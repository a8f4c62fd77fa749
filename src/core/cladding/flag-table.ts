import type { Flag } from '../units/flag';

/** What is told of pieces, without the numbers of each. */
export type Said = Omit<Flag, 'value' | 'bound'>;

/**
 * Everything that is told of the pieces of a group, in columns: a flag becomes a thing, and then a sentence, only when
 * somebody asks for it. Thousands of panes can go beyond a limit while a point is dragged.
 */
export interface FlagTable {
	readonly said: readonly Said[];
	/** The row of each flag, ascending; those of one row in the order they are told in. */
	readonly row: Uint32Array;
	/** Its place in `said`. */
	readonly what: Uint16Array;
	/** In kernel units; NaN where it has none. */
	readonly value: Float64Array;
	readonly bound: Float64Array;
}

/** Takes flags one after the other. */
export class FlagRecorder {
	private readonly said: Said[] = [];
	private readonly places = new Map<string, number>();
	private readonly columns: [row: number[], what: number[], value: number[], bound: number[]] = [
		[],
		[],
		[],
		[]
	];

	/** @returns the place of what is said, the same for the same words */
	say({ code, level, subject, says, kind }: Said): number {
		const key = JSON.stringify([code, level, subject, says, kind]);
		const known = this.places.get(key);
		if (known !== undefined) return known;
		const place = this.said.push({ code, level, subject, says, kind }) - 1;
		this.places.set(key, place);
		return place;
	}

	/** @param row not below the last @param value NaN where it has none */
	add(row: number, what: number, value: number, bound: number): void {
		const [rows, whats, values, bounds] = this.columns;
		rows.push(row);
		whats.push(what);
		values.push(value);
		bounds.push(bound);
	}

	table(): FlagTable {
		const [row, what, value, bound] = this.columns;
		return {
			said: this.said,
			row: Uint32Array.from(row),
			what: Uint16Array.from(what),
			value: Float64Array.from(value),
			bound: Float64Array.from(bound)
		};
	}
}

const numberOf = (value: number) => (Number.isNaN(value) ? null : value);

/** The first flag of a row or of one after it. */
function firstOf({ row: rows }: FlagTable, row: number): number {
	let [low, high] = [0, rows.length];
	while (low < high) {
		const middle = (low + high) >> 1;
		if (rows[middle]! < row) low = middle + 1;
		else high = middle;
	}
	return low;
}

/**
 * What is told of one row.
 *
 * ```ts
 * const sentences = flagsAt(group.group.flags.table(), 0).map(flagSentence);
 * ```
 */
export function flagsAt(table: FlagTable, row: number): Flag[] {
	const found: Flag[] = [];
	for (let k = firstOf(table, row); table.row[k] === row; k++)
		found.push({
			...table.said[table.what[k]!]!,
			value: numberOf(table.value[k]!),
			bound: numberOf(table.bound[k]!)
		});
	return found;
}

/** Rows, and how bad the worst is that is told of each. */
export interface WorstFlags {
	readonly rows: readonly number[];
	readonly badness: readonly number[];
}

const LEVELS = { failed: 2e6, flagged: 0, held: -1e6 } as const;
const MOST_SHARE = 1e5;

/** How bad a flag is: by its level, then by the share that it goes beyond its bound. */
function badnessAt({ said, what, value, bound }: FlagTable, k: number): number {
	const share = Math.abs(value[k]! - bound[k]!) / Math.max(1e-9, Math.abs(bound[k]!));
	return LEVELS[said[what[k]!]!.level] + (Number.isNaN(share) ? 0 : Math.min(MOST_SHARE, share));
}

/**
 * Rows that something is told of, ascending, and how bad the worst of it is: what could not be made is worse than what
 * goes beyond a bound by any share.
 *
 * ```ts
 * const { rows, badness } = worstFlags(group.group.flags.table());
 * ```
 */
export function worstFlags(table: FlagTable): WorstFlags {
	const [rows, badness]: [number[], number[]] = [[], []];
	for (let k = 0; k < table.row.length; k++) {
		const bad = badnessAt(table, k);
		const last = rows.length - 1;
		if (table.row[k] === rows[last]) badness[last] = Math.max(badness[last]!, bad);
		else {
			rows.push(table.row[k]!);
			badness.push(bad);
		}
	}
	return { rows, badness };
}

/**
 * Rows that go beyond a limit, ascending, and how bad the worst is that is told of each.
 *
 * ```ts
 * const { rows } = worstBeyond(group.group.flags.table(), 'glass-sheet');
 * ```
 */
export function worstBeyond(table: FlagTable, limit: string): WorstFlags {
	const wanted = table.said.map(({ code, subject }) => code === 'limit.beyond' && subject === limit);
	const isBeyond = new Set<number>();
	for (let k = 0; k < table.row.length; k++) if (wanted[table.what[k]!]) isBeyond.add(table.row[k]!);
	const found: { rows: number[]; badness: number[] } = { rows: [], badness: [] };
	if (!isBeyond.size) return found;
	const { rows, badness } = worstFlags(table);
	rows.forEach((row, k) => {
		if (!isBeyond.has(row)) return;
		found.rows.push(row);
		found.badness.push(badness[k]!);
	});
	return found;
}

/**
 * Limits that some rows go beyond, by their ids.
 *
 * ```ts
 * for (const limit of limitsBeyond(group.group.flags.table())) worstBeyond(group.group.flags.table(), limit);
 * ```
 */
export const limitsBeyond = ({ said }: FlagTable): string[] => [
	...new Set(said.filter(({ code }) => code === 'limit.beyond').map(({ subject }) => subject))
];
