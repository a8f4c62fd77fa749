import type { ColumnReader } from '../../field/column';
import { twoLanes } from '../evaluate/two-lanes';
import type { Program } from '../program';
import { runProgram, type PartRun } from '../run';
import type { SheetOf } from '../sheet/site-sheet';

/** A program that is to be run for rows. */
export interface ProgramWork {
	readonly program: Program;
	readonly column: (name: string) => ColumnReader;
	readonly count: number;
	/** Mesh positions are relative to it (mm). */
	readonly origin: readonly [number, number, number];
	/** The surface of each row's cell, for programs that make a sheet of it. */
	readonly sheetOf: SheetOf;
}

/** Who runs programs: the thread that asks, or others beside it. */
export interface ProgramRunner {
	/** How many works it is worth asking for at once. */
	readonly abreast: number;
	run(work: ProgramWork): PartRun | Promise<PartRun>;
}

/**
 * In the thread that asks.
 *
 * ```ts
 * const chain = new Chain(files, 0, inThisThread);
 * ```
 */
export const inThisThread: ProgramRunner = {
	abreast: 1,
	run: ({ program, column, count, origin, sheetOf }) =>
		runProgram(program, column, count, origin, twoLanes, sheetOf)
};
