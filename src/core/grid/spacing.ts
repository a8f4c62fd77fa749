import type { Spacing, Start } from '../project/setting-out-schema';
import { refuse } from '../units/problem';
import { formatNumber } from '../units/quantity';
import { WHOLE } from '../geometry/tolerance';

/** Lengths of the lines that are divided, in mm. */
export interface LineLengths {
	/** The line an exact size is measured on: the belt line. */
	readonly belt: number;
	/** The longest one, on which a largest size has to hold; that of the belt where none is asked for. */
	readonly longest: number;
}

/** Places along the belt line (mm from its first end) that hang on more than the line itself. */
export interface Places {
	readonly startOf: (start: Exclude<Start, string>) => number;
	/** Where levels cross it, ascending. */
	readonly levels: () => readonly number[];
}

/** The odd steps that a size leaves at the two ends, in mm; 0 where it comes out even. */
export interface MakeUp {
	readonly first: number;
	readonly last: number;
}

export interface Division {
	/** Where the grid lines lie, 0 to 1 of true length (or of the own parameter), both ends included. */
	readonly fractions: Float64Array;
	readonly makeUp: MakeUp;
	/** Every step that is no make-up (mm), where all of them are of one size. */
	readonly whole: number | null;
}

/** A remainder below this (mm) is spread over the step beside it rather than made a piece. */
const LEAST_MAKE_UP = 0.1;
export const MOST_STEPS = 20_000;

/**
 * Where a start line that has a name lies on a line of a length.
 *
 * ```ts
 * startAt('middle', 10_400); // 5 200
 * ```
 */
export function startAt(start: Start & string, length: number): number {
	if (start === 'middle') return length / 2;
	return start === 'right' || start === 'head' ? length : 0;
}

/**
 * What would be left over for a start line, so that it can be seen before it is chosen.
 *
 * ```ts
 * makeUpFor(1500, 10_400, 0); // nothing at the start, 1 400 mm at the end
 * ```
 */
export function makeUpFor(size: number, length: number, from: number): MakeUp {
	const rest = (room: number) => {
		const left = room - Math.floor(room / size + LEAST_MAKE_UP / size) * size;
		return left > LEAST_MAKE_UP ? left : 0;
	};
	const inside = ((from % size) + size) % size;
	return { first: rest(inside), last: rest(length - inside) };
}

/**
 * The size nearest to one that leaves nothing over from a named start line, and how many steps it makes.
 *
 * ```ts
 * const { size, steps } = balanced(1500, 10_400, 'middle');
 * ```
 */
export function balanced(
	size: number,
	length: number,
	start: Start & string
): { size: number; steps: number } {
	// From the middle both halves have to come out even.
	const parts = start === 'middle' ? 2 : 1;
	const steps = parts * Math.max(1, Math.round(length / parts / size));
	return { size: length / steps, steps };
}

/**
 * Lines within a length as a division; both ends are lines in any case.
 * @param whole the size of every step between them (mm), where they have one
 */
function divisionOf(lines: readonly number[], length: number, whole: number | null): Division {
	const inner = lines.filter((at) => at > LEAST_MAKE_UP && at < length - LEAST_MAKE_UP);
	const has = (end: number) => lines.some((at) => Math.abs(at - end) <= LEAST_MAKE_UP);
	return {
		fractions: Float64Array.from([0, ...inner.map((at) => at / length), 1]),
		makeUp: {
			first: has(0) || !inner.length ? 0 : inner[0]!,
			last: has(length) || !inner.length ? 0 : length - inner.at(-1)!
		},
		whole
	};
}

function evenly(count: number, shift: number, length: number): Division {
	const even = Array.from({ length: count + 1 }, (_, k) => (k * length) / count);
	const step = length / count;
	const off = ((shift % step) + step) % step;
	if (off <= LEAST_MAKE_UP || step - off <= LEAST_MAKE_UP)
		return {
			fractions: Float64Array.from({ length: count + 1 }, (_, k) => k / count),
			makeUp: { first: 0, last: 0 },
			whole: step
		};
	return divisionOf(
		even.map((at) => at + off).filter((at) => at < length),
		length,
		step
	);
}

/** Lines at multiples of a size to both sides of a place. */
function multiples(size: number, from: number, length: number): number[] {
	const low = -Math.floor(from / size + LEAST_MAKE_UP / size);
	const high = Math.floor((length - from) / size + LEAST_MAKE_UP / size);
	return Array.from({ length: Math.max(0, high - low + 1) }, (_, k) => from + (low + k) * size);
}

/** Lines of a rhythm to both sides of a place, where it starts. */
function rhythm(sizes: readonly number[], from: number, length: number): number[] {
	const lines = [from];
	for (let at = from, k = 0; at < length; k++) lines.push((at += sizes[k % sizes.length]!));
	for (let at = from, k = sizes.length - 1; at > 0; k--)
		lines.unshift((at -= sizes[((k % sizes.length) + sizes.length) % sizes.length]!));
	return lines.filter((at) => at > -LEAST_MAKE_UP && at < length + LEAST_MAKE_UP);
}

const noPlaces: Places = {
	startOf: (start) => ('at' in start ? start.at : Number.NaN),
	levels: () => []
};

/** What is asked of a division, and where. */
class Asked {
	constructor(
		readonly lengths: LineLengths,
		readonly at: string,
		readonly what: string,
		private readonly places: Places,
		readonly shift: number
	) {}

	get belt(): number {
		return this.lengths.belt;
	}

	/** @param asked what would make them, in words @throws ProblemError for more steps than are made */
	checkSteps(steps: number, asked: string): void {
		if (steps > MOST_STEPS)
			refuse(
				this.at,
				`${asked} would make ${formatNumber(Math.ceil(steps))} ${this.what}; at most ${formatNumber(MOST_STEPS)} are accepted`
			);
	}

	/** @throws ProblemError for what is no size (mm) */
	checkSize(size: number): void {
		if (!(size > 0))
			refuse(
				this.at,
				`a size of ${formatNumber(size, 1)} mm for ${this.what} cannot be made; more than 0 mm is accepted`
			);
	}

	/** Where a start line lies (mm along the belt). @throws ProblemError when it is not on it */
	startOf(start: Start): number {
		const { belt } = this;
		const from = typeof start === 'string' ? startAt(start, belt) : this.places.startOf(start);
		if (!(from >= -LEAST_MAKE_UP && from <= belt + LEAST_MAKE_UP))
			refuse(
				`${this.at}/start`,
				`the start line lies ${formatNumber(Math.round(from))} mm along a line of ${formatNumber(Math.round(belt))} mm; a place on it is accepted`
			);
		return from + this.shift;
	}

	/** Heights of the levels (mm from the foot) that cross the face. @throws ProblemError where there is none */
	levels(): number[] {
		const inner = this.places.levels().filter((height) => height > 1 && height < this.belt - 1);
		if (inner.length === 0)
			refuse(this.at, `no level crosses the face between its foot and its head; add one there, or move one`);
		return inner;
	}
}

/** A spacing of one kind. */
type By<Kind extends Spacing['by']> = Extract<Spacing, { by: Kind }>;

function byCount({ count }: By<'count'>, { at, what, shift, belt }: Asked): Division {
	if (!Number.isInteger(count) || count < 1 || count > MOST_STEPS) {
		const nearest = Math.min(MOST_STEPS, Math.max(1, Math.round(count)));
		refuse(
			at,
			`${formatNumber(count, 3)} ${what} cannot be made; a whole number from 1 to ${formatNumber(MOST_STEPS)} is accepted`,
			[{ label: `${formatNumber(nearest)} ${what}`, path: `${at}/count`, value: nearest }]
		);
	}
	return evenly(count, shift, belt);
}

function byLargest({ size }: By<'at most'>, asked: Asked): Division {
	asked.checkSize(size);
	const steps = asked.lengths.longest / size;
	asked.checkSteps(steps, `${formatNumber(size, 3)} mm`);
	return evenly(Math.max(1, Math.ceil(steps - WHOLE)), asked.shift, asked.belt);
}

/** @throws ProblemError for a size larger than the room there is for it */
function checkRoom(size: number, room: number, where: string, { at }: Asked): void {
	if (size > room)
		refuse(
			at,
			`${formatNumber(size, 1)} mm is more than the ${formatNumber(room, 1)} mm ${where}; at most that is accepted`,
			[{ label: `${formatNumber(Math.floor(room))} mm`, path: `${at}/size`, value: Math.floor(room) }]
		);
}

function bySmallest({ size }: By<'at least'>, asked: Asked): Division {
	const { belt, shift } = asked;
	asked.checkSize(size);
	asked.checkSteps(belt / size, `${formatNumber(size, 3)} mm`);
	checkRoom(size, belt, 'of the belt line', asked);
	return evenly(Math.max(1, Math.floor(belt / size + WHOLE)), shift, belt);
}

function byExactSize({ size, start }: By<'exact size'>, asked: Asked): Division {
	const { belt } = asked;
	asked.checkSize(size);
	asked.checkSteps(belt / size, `${formatNumber(size, 3)} mm`);
	const from = asked.startOf(start);
	checkRoom(size, Math.max(from, belt - from), 'there is from the start line', asked);
	return divisionOf(multiples(size, from, belt), belt, size);
}

function byList({ sizes, run, start }: By<'list'>, asked: Asked): Division {
	const { belt, at, what } = asked;
	const from = asked.startOf(start);
	if (sizes.length === 0)
		refuse(`${at}/sizes`, `the list of ${what} is empty; at least one size is accepted`);
	for (const size of sizes) asked.checkSize(size);
	const sum = sizes.reduce((a, b) => a + b, 0);
	if (run === 'repeated') {
		asked.checkSteps((belt / sum) * sizes.length, 'the list');
		return divisionOf(rhythm(sizes, from, belt), belt, null);
	}
	const last = start === 'right' || start === 'head';
	const first = start === 'middle' ? from - sum / 2 : last ? from - sum : from;
	if (first < -LEAST_MAKE_UP || first + sum > belt + LEAST_MAKE_UP) {
		const over = Math.max(-first, first + sum - belt);
		refuse(
			`${at}/sizes`,
			`the list comes to ${formatNumber(Math.round(sum))} mm and reaches ${formatNumber(Math.ceil(over))} mm beyond the belt line of ${formatNumber(Math.round(belt))} mm; take so much off it`
		);
	}
	const lines = [first];
	for (const size of sizes) lines.push(lines.at(-1)! + size);
	return divisionOf(lines, belt, null);
}

/** Lines at shares of the belt (both ends among them), with nothing to make up. */
const atShares = (fractions: Float64Array): Division => ({
	fractions,
	makeUp: { first: 0, last: 0 },
	whole: null
});

function byParameters(spacing: By<'parameters'>, { at }: Asked): Division {
	const inner = [...spacing.at].sort((a, b) => a - b);
	inner.forEach((share, k) => {
		if (!(share > 0 && share < 1) || share === inner[k - 1])
			refuse(
				at,
				`the parameter ${share} cannot be a line; different shares between 0 and 1, without the ends, are accepted`
			);
	});
	return atShares(Float64Array.from([0, ...inner, 1]));
}

function byLevels({ each, sizes }: By<'levels'>, asked: Asked): Division {
	const { belt, at } = asked;
	if (!sizes && (!Number.isInteger(each) || each < 1 || each > 200))
		refuse(`${at}/each`, `${each} courses from level to level cannot be made; 1 to 200 are accepted`);
	const wrong = sizes?.find((size) => !(size >= LEAST_COURSE));
	if (wrong !== undefined)
		refuse(`${at}/sizes`, `a course of ${wrong} mm cannot be made; ${LEAST_COURSE} mm or more is accepted`);
	const storeys = [0, ...asked.levels(), belt];
	const lines = storeys.slice(1).flatMap((head, k) => {
		const foot = storeys[k]!;
		if (!sizes) return Array.from({ length: each }, (_, n) => foot + (n / each) * (head - foot));
		const inStorey = [foot];
		let line = foot;
		for (const size of sizes) {
			line += size;
			if (line > head - LEAST_COURSE) break;
			inStorey.push(line);
		}
		return inStorey;
	});
	return atShares(Float64Array.from([...lines, belt], (line) => line / belt));
}

/** Courses lower than this are none (mm). */
const LEAST_COURSE = 1;

/**
 * Divide lines by count, by size, by a list or at given places.
 *
 * ```ts
 * const { fractions } = divide({ by: 'at most', size: 1500 }, { belt: 9000, longest: 9400 }, at, 'bays');
 * ```
 * @param at the clause's path, for problems
 * @param what "bays", "courses" or "gaps"
 * @param shift moves all lines along (mm); on a ring they are turned instead, by who asks
 * @throws ProblemError for counts, sizes and places that cannot be
 */
export function divide(
	spacing: Spacing,
	lengths: LineLengths,
	at: string,
	what: string,
	places: Places = noPlaces,
	shift = 0
): Division {
	const asked = new Asked(lengths, at, what, places, shift);
	switch (spacing.by) {
		case 'count':
			return byCount(spacing, asked);
		case 'at most':
			return byLargest(spacing, asked);
		case 'at least':
			return bySmallest(spacing, asked);
		case 'exact size':
			return byExactSize(spacing, asked);
		case 'list':
			return byList(spacing, asked);
		case 'parameters':
			return byParameters(spacing, asked);
		case 'levels':
			return byLevels(spacing, asked);
	}
}

/**
 * How much of a whole step the first and the last one are, 0 to 1.
 *
 * ```ts
 * const [first, last] = stripShares(grid.across.division);
 * ```
 */
export function stripShares({ makeUp: { first, last }, whole }: Division): readonly [number, number] {
	const share = (mm: number) => (mm && whole ? Math.min(1, mm / whole) : 1);
	return [share(first), share(last)];
}
