import type { Program } from '../program';
import type { ProgramWork } from './program-runner';

/** A row is believed to take so many times longer than before, at most. */
const RISE = 1.2;

/** What of a work is needed to know what a row of it takes. */
type Rows = Pick<ProgramWork, 'program' | 'count'>;

/**
 * Take a time into what a row has taken of late. Now and then one comes with what is reckoned once for all works, or is
 * held up by something else: such a time counts little.
 */
function lately(known: WeakMap<Program, number>, { program, count }: Rows, ms: number): void {
	if (!count) return;
	const before = known.get(program) || Infinity;
	known.set(program, Math.min(ms / count, RISE * before));
}

/**
 * How long rows of programs take of late, to be made here and to be packed for another thread.
 *
 * ```ts
 * const times = new RowTimes(5);
 * times.isWorthSending(program); // not before one of its works was made here
 * ```
 */
export class RowTimes {
	private readonly made = new WeakMap<Program, number>();
	/** 0 where only the first was packed yet. */
	private readonly packed = new WeakMap<Program, number>();

	/** @param worth how many times longer than packing it a work has to take to be sent */
	constructor(private readonly worth: number) {}

	/** @param ms that all of its rows took */
	wasMade(work: Rows, ms: number): void {
		lately(this.made, work, ms);
	}

	wasPacked(work: Rows, ms: number): void {
		// For the first of a program all columns are reckoned that the others only read: what it took says nothing.
		if (this.packed.has(work.program)) lately(this.packed, work, ms);
		else this.packed.set(work.program, 0);
	}

	/** Whether its works are better sent than made here: what a row takes is known once one was made here. */
	isWorthSending(program: Program): boolean {
		const made = this.made.get(program);
		return made !== undefined && made >= this.worth * (this.packed.get(program) ?? 0);
	}
}
