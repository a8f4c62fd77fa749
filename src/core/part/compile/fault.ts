import { CodedError } from '../../units/coded-error';

/** A step that cannot be: the sentence says why and what would be accepted. */
export class StepFault extends CodedError {
	readonly code: string = 'part.step';
}

/** What one part may come to: operations, elements made of them, and turns of one piece. */
export const MOST_OPERATIONS = 250_000;
/** Times an operation is asked for, those that are known already included. */
export const MOST_ASKED = 2_000_000;
export const MOST_ELEMENTS = 5000;
export const MOST_TURNS_IN_ALL = 20_000;

/**
 * A part that cannot be used: each fault names its step and what would be accepted.
 *
 * ```ts
 * if (error instanceof PartError) for (const { step, text } of error.faults) tell(`${step}: ${text}`);
 * ```
 */
export class PartError extends CodedError {
	readonly code: string = 'part';

	constructor(readonly faults: readonly { readonly step: string; readonly text: string }[]) {
		super(faults.map(({ step, text }) => `${step}: ${text}`).join('\n'));
	}
}

/** A part that comes to more than can be worked with; it is given up at once, whichever step it was. */
export class PartTooLarge extends PartError {
	override readonly code = 'part.too-large';

	constructor(text: string) {
		super([{ step: 'the part', text }]);
	}
}

/** A step that uses what could not be made: only the cause is told. */
export class Follows extends StepFault {
	override readonly code = 'part.follows';

	constructor() {
		super('what it uses could not be made');
	}
}
