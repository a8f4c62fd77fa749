import type { Spacing } from '../project/schema';
import { refuse } from '../units/problem';
import { formatNumber } from '../units/quantity';

/** Lengths of the lines that are divided, in mm. */
export interface LineLengths {
	/** The line an exact size is measured on: the belt line. */
	readonly belt: number;
	/** The longest one, on which a largest size has to hold; that of the belt where none is asked for. */
	readonly longest: number;
}

/** The odd steps that an exact size leaves at the two ends, in mm; 0 where it comes out even. */
export interface MakeUp {
	readonly first: number;
	readonly last: number;
}

export interface Division {
	/** Where the grid lines lie, 0 to 1 of true length, both ends included. */
	readonly fractions: Float64Array;
	readonly makeUp: MakeUp;
}

type Start = 'first' | 'middle' | 'last';
const startOf: Record<string, Start> = {
	left: 'first',
	foot: 'first',
	middle: 'middle',
	right: 'last',
	head: 'last'
};

/** A remainder below this (mm) is spread over the other steps rather than made a piece. */
const LEAST_MAKE_UP = 0.1;
export const MOST_STEPS = 20_000;

/** How many whole steps fit into a length, and what is left over. */
function wholeSteps(length: number, size: number): { steps: number; rest: number } {
	const steps = Math.floor(length / size + LEAST_MAKE_UP / size);
	const rest = length - steps * size;
	return { steps, rest: rest > LEAST_MAKE_UP ? rest : 0 };
}

/** What would be left over for each start line, so that it can be seen before it is chosen. */
export function makeUpFor(size: number, length: number, start: Start): MakeUp {
	if (start === 'middle') {
		const { rest } = wholeSteps(length / 2, size);
		return { first: rest, last: rest };
	}
	const { rest } = wholeSteps(length, size);
	return start === 'first' ? { first: 0, last: rest } : { first: rest, last: 0 };
}

function evenly(count: number): Division {
	return {
		fractions: Float64Array.from({ length: count + 1 }, (_, k) => k / count),
		makeUp: { first: 0, last: 0 }
	};
}

function exactly(size: number, length: number, start: Start): Division {
	const makeUp = makeUpFor(size, length, start);
	const whole = Math.round((length - makeUp.first - makeUp.last) / size);
	const step = (length - makeUp.first - makeUp.last) / whole;
	const at: number[] = [0];
	if (makeUp.first > 0) at.push(makeUp.first / length);
	for (let k = 1; k <= whole; k++) at.push((makeUp.first + k * step) / length);
	if (makeUp.last > 0) at.push(1);
	at[at.length - 1] = 1;
	return { fractions: Float64Array.from(at), makeUp };
}

/**
 * Divide lines by count or by size.
 * @param at the clause's path, for problems
 * @param what "bays" or "courses"
 * @throws ProblemError for counts and sizes that cannot be
 */
export function divide(spacing: Spacing, lengths: LineLengths, at: string, what: string): Division {
	if (spacing.by === 'count') {
		const { count } = spacing;
		if (!Number.isInteger(count) || count < 1 || count > MOST_STEPS)
			refuse(
				at,
				`${formatNumber(count, 3)} ${what} cannot be made; a whole number from 1 to ${formatNumber(MOST_STEPS)} is accepted`,
				[{ label: `1 of ${what}`, path: `${at}/count`, value: 1 }]
			);
		return evenly(count);
	}
	const { size } = spacing;
	if (!(size > 0))
		refuse(
			at,
			`a size of ${formatNumber(size, 1)} mm for ${what} cannot be made; more than 0 mm is accepted`
		);
	const steps = lengths.longest / size;
	if (steps > MOST_STEPS)
		refuse(
			at,
			`${formatNumber(size, 3)} mm would make ${formatNumber(steps)} ${what}; at most ${formatNumber(MOST_STEPS)} are accepted`
		);
	if (spacing.by === 'at most') return evenly(Math.max(1, Math.ceil(steps - 1e-9)));
	const start = startOf[spacing.start]!;
	const room = start === 'middle' ? lengths.belt / 2 : lengths.belt;
	if (size > room)
		refuse(
			at,
			`${formatNumber(size, 1)} mm is more than the ${formatNumber(room, 1)} mm there is from the start line; at most that is accepted`
		);
	return exactly(size, lengths.belt, start);
}
