import type { NumberKind } from '../units/dimension';
import type { Flag } from '../units/flag';
import { MOST_ASKED, MOST_OPERATIONS, MOST_TURNS_IN_ALL, PartTooLarge, StepFault } from './compile/fault';
import type { ProgramFlag } from './program';

/** How often a group may repeat within one piece. */
export const MOST_TURNS = 2000;
/** Flags that every program has. */
export const NOT_FINITE = 0;
export const TOO_MANY = 1;
export const INSIDE_OUT = 2;
/** A volume below this is that of a body that is turned inside out: above it, rounding (mm³). */
export const NO_BODY = -1;
/** Flags of a piece are kept as bits. */
const MOST_FLAGS = 31;

/** What a flag says; numbers come with it where it has any. */
export type Said = Pick<Flag, 'code' | 'level' | 'subject' | 'says'>;

/** Flags of the whole program; a flag that is raised in two places under one text is one flag. */
export class FlagList {
	readonly flags: ProgramFlag[] = [
		{
			code: 'part.not-finite',
			level: 'failed',
			subject: 'the piece',
			says: 'could not be made: a length or a direction came out as nothing',
			kind: null,
			value: null,
			bound: null
		},
		{
			code: 'part.too-many-turns',
			level: 'failed',
			subject: 'the piece',
			says: `would repeat more than ${MOST_TURNS} times, or ${MOST_TURNS_IN_ALL} in all`,
			kind: null,
			value: null,
			bound: null
		},
		{
			code: 'part.inside-out',
			level: 'failed',
			subject: 'the piece',
			says: 'could not be made: sides of it pass each other, so that a body comes out inside out',
			kind: null,
			value: null,
			bound: null
		}
	];

	private operations = 0;
	private asked = 0;
	/** Count what is asked of any domain. @throws PartTooLarge */
	countAsked(): void {
		if (++this.asked > MOST_ASKED) this.tooLarge();
	}
	countOperation(): void {
		if (++this.operations > MOST_OPERATIONS) this.tooLarge();
	}
	private tooLarge(): never {
		throw new PartTooLarge(
			`it comes to more than ${MOST_OPERATIONS} operations; use fewer small rings, sub-parts or steps within each other`
		);
	}

	indexOf(said: Said, kind: NumberKind | null = null): number {
		const known = this.flags.findIndex(({ says }) => says === said.says);
		if (known >= 0) {
			// Raised in two places it has two values, and tells neither.
			this.flags[known] = { ...this.flags[known]!, value: null, bound: null };
			return known;
		}
		if (this.flags.length === MOST_FLAGS)
			throw new StepFault(`it can fail in more than ${MOST_FLAGS} ways; make it of fewer steps or sub-parts`);
		const names = (what: string) => (kind === null ? null : `${FLAGGED}${this.flags.length} ${what}`);
		return this.flags.push({ ...said, kind, value: names('value'), bound: names('bound') }) - 1;
	}
}

/** How the results that hold the numbers of flags begin; no name of a part does. */
export const FLAGGED = 'flag ';
