import type { Program } from '../part/program';
import { rowFlags } from '../part/row-flags';
import type { PartRun } from '../part/run';
import type { Flag } from '../units/flag';
import { FlagRecorder, type FlagTable } from './flag-table';

/** What is told of many rows of a group: the same but for a value of each. */
export interface FlagRows {
	/** 1 where it is told. */
	readonly is: Uint8Array;
	readonly values: Float64Array;
	readonly flag: Flag;
}

/** What is told of the pieces of a group, by row; a flag becomes a thing only when it is asked for. */
export class PieceFlags {
	private flagged: Uint32Array | null = null;
	/** The bits of flags that stand for a piece that could not be made. */
	private readonly failing: number;

	/** @param more what is told beside what the part tells, by row */
	constructor(
		private readonly program: Program,
		private readonly run: PartRun,
		private readonly more: ReadonlyMap<number, readonly Flag[]>,
		private readonly columns: readonly FlagRows[] = []
	) {
		this.failing = program.flags.reduce(
			(bits, { level }, k) => (level === 'failed' ? bits | (1 << k) : bits),
			0
		);
	}

	/** Rows that something is told of, ascending. */
	rows(): Uint32Array {
		if (this.flagged) return this.flagged;
		const { flags } = this.run;
		const found: number[] = [];
		for (let row = 0; row < flags.length; row++) if (this.has(row)) found.push(row);
		return (this.flagged = Uint32Array.from(found));
	}

	/** Whether anything is told of a row. */
	has(row: number): boolean {
		if (this.run.flags[row] !== 0 || this.more.has(row)) return true;
		for (const { is } of this.columns) if (is[row] !== 0) return true;
		return false;
	}

	of(row: number): readonly Flag[] {
		const own = rowFlags(this.program, this.run, row);
		const more = this.more.get(row) ?? [];
		const others = this.columns
			.filter(({ is }) => is[row] !== 0)
			.map(({ flag, values }) => ({ ...flag, value: values[row]! }));
		return [...own, ...more, ...others];
	}

	/** All of them in columns. */
	table(): FlagTable {
		const { program, run, more, columns } = this;
		const told = new FlagRecorder();
		const column = (name: string | null) => (name === null ? null : run.results.get(name)!);
		const own = program.flags.map((flag) => ({
			what: told.say(flag),
			values: column(flag.value),
			bounds: column(flag.bound)
		}));
		const others = columns.map(({ flag, is, values }) => ({
			what: told.say(flag),
			is,
			values,
			bound: flag.bound ?? NaN
		}));
		const rows = this.rows();
		for (let n = 0; n < rows.length; n++) {
			const row = rows[n]!;
			const bits = run.flags[row]!;
			for (let k = 0; bits !== 0 && k < own.length; k++) {
				if (!(bits & (1 << k))) continue;
				const { what, values, bounds } = own[k]!;
				told.add(row, what, values?.[row] ?? NaN, bounds?.[row] ?? NaN);
			}
			for (const flag of more.get(row) ?? [])
				told.add(row, told.say(flag), flag.value ?? NaN, flag.bound ?? NaN);
			for (const { what, is, values, bound } of others)
				if (is[row] !== 0) told.add(row, what, values[row]!, bound);
		}
		return told.table();
	}

	/** The same, and more of some rows. */
	with(more: ReadonlyMap<number, Flag>): PieceFlags {
		const both = new Map(this.more);
		for (const [row, flag] of more) both.set(row, [...(both.get(row) ?? []), flag]);
		return new PieceFlags(this.program, this.run, both, this.columns);
	}

	/** The same, and more of many rows, none of which fails by it. */
	withColumns(more: readonly FlagRows[]): PieceFlags {
		return new PieceFlags(this.program, this.run, this.more, [...this.columns, ...more]);
	}

	/** All of them, row by row. */
	all(): Flag[] {
		return Array.from(this.rows()).flatMap((row) => this.of(row));
	}

	/** Whether the piece of a row could not be made. */
	hasFailed(row: number): boolean {
		if ((this.run.flags[row]! & this.failing) !== 0) return true;
		return this.more.get(row)?.some(({ level }) => level === 'failed') ?? false;
	}

	/** Rows of pieces that could not be made, ascending. */
	failed(): number[] {
		return Array.from(this.rows()).filter((row) => this.hasFailed(row));
	}
}
