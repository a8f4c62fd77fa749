import { CodedError } from './coded-error';

/**
 * Something in the project that cannot be carried out, or is to be known, said in one sentence at the clause it
 * belongs to.
 *
 * `at` is a path into the project document (`zones/gull/settingOut/up`), the same kind of path that an edit
 * uses, so the build sheet finds the clause and the command line can print where.
 */
export interface Problem {
	readonly at: string;
	readonly text: string;
	/** What it is about was made all the same; the sentence is to be known. */
	readonly remark?: true;
	/** Ways out that can be taken with one click: the value to set, and where. */
	readonly fixes?: readonly { readonly label: string; readonly path: string; readonly value: unknown }[];
}

/**
 * Thrown by a stage; the chain gathers it and keeps the last good result.
 *
 * ```ts
 * if (error instanceof ProblemError) tell(error.problem.text);
 * ```
 */
export class ProblemError extends CodedError {
	readonly code: string = 'clause';

	constructor(readonly problem: Problem) {
		super(`${problem.at}: ${problem.text}`);
	}
}

/**
 * ```ts
 * if (!(count > 0)) refuse(at, `${count} bays cannot be made; 1 or more is accepted`);
 * ```
 */
export function refuse(at: string, text: string, fixes?: Problem['fixes']): never {
	throw new ProblemError(fixes ? { at, text, fixes } : { at, text });
}
