import type { Flag } from '../units/flag';
import type { Program } from './program';
import type { PartRun } from './run';

/**
 * What a program has to tell of one of its rows.
 *
 * ```ts
 * const sentences = rowFlags(program, run, 3).map(flagSentence);
 * ```
 */
export function rowFlags(program: Program, run: PartRun, row: number): Flag[] {
	const bits = run.flags[row]!;
	if (bits === 0) return [];
	const read = (name: string | null) => (name === null ? null : run.results.get(name)![row]!);
	const told: Flag[] = [];
	for (let k = 0; k < program.flags.length; k++) {
		if (!(bits & (1 << k))) continue;
		const { value, bound, ...flag } = program.flags[k]!;
		told.push({ ...flag, value: read(value), bound: read(bound) });
	}
	return told;
}
