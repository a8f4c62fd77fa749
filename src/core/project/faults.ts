import type { z } from 'zod';
import type { Key } from './paths';
import { CodedError } from '../units/coded-error';

/**
 * A command that cannot be carried out on the document as it is.
 *
 * ```ts
 * if (error instanceof CommandError) tell(error.message); // its place is gone
 * ```
 */
export class CommandError extends CodedError {
	readonly code: string = 'command';
}

/** Told at once, however many there are. */
export const MOST_FAULTS_TOLD = 20;
const MOST_FAULT_LETTERS = 400;

/**
 * A document that cannot be taken: one sentence per fault, each naming its path; of many, the first twenty.
 *
 * ```ts
 * if (error instanceof DocumentError) for (const fault of error.faults) tell(fault);
 * ```
 */
export class DocumentError extends CodedError {
	readonly code: string = 'document';
	readonly faults: readonly string[];
	constructor(faults: readonly string[]) {
		const told = faults
			.slice(0, MOST_FAULTS_TOLD)
			.map((fault) =>
				fault.length > MOST_FAULT_LETTERS ? `${fault.slice(0, MOST_FAULT_LETTERS)} …` : fault
			);
		if (faults.length > told.length) told.push(`and ${faults.length - told.length} more faults`);
		super(told.join('\n'));
		this.faults = told;
	}
}

function pathText(path: readonly PropertyKey[]): string {
	return path.length ? path.map(String).join('/') : 'the document';
}

const depth = (issues: readonly z.core.$ZodIssue[]) =>
	issues.reduce((deepest, issue) => Math.max(deepest, issue.path.length), 0);

/**
 * The deepest faults of a failed parse: a union's own message says less than that of its best branch.
 *
 * ```ts
 * const sentences = faultsOf(projectSchema.safeParse({}).error?.issues ?? [], []);
 * ```
 */
export function faultsOf(
	issues: readonly z.core.$ZodIssue[],
	prefix: readonly (Key | PropertyKey)[]
): string[] {
	return issues.flatMap((issue) => {
		const path = [...prefix, ...issue.path];
		if (issue.code === 'invalid_union' && issue.errors.length > 0) {
			const closest = issue.errors.reduce((a, b) => (depth(b) > depth(a) ? b : a));
			if (depth(closest) > 0) return faultsOf(closest, path);
		}
		if (issue.code === 'unrecognized_keys')
			return issue.keys.map((key) => `${pathText([...path, key])}: this key is not known here`);
		return [`${pathText(path)}: ${sentenceOf(issue)}`];
	});
}

const kinds: Readonly<Record<string, string>> = {
	string: 'a text',
	number: 'a number',
	int: 'a whole number',
	boolean: 'true or false',
	object: 'an object',
	record: 'an object',
	array: 'a list',
	tuple: 'a list'
};

/** The library's own words where they are for people, ours where they are for programmers. */
function sentenceOf(issue: z.core.$ZodIssue): string {
	if (issue.code === 'invalid_type') return `${kinds[issue.expected] ?? issue.expected} is wanted here`;
	if (issue.code === 'invalid_value')
		return `one of ${issue.values.map((value) => JSON.stringify(value)).join(', ')} is wanted here`;
	if (issue.code === 'invalid_union' && issue.errors.length === 0)
		return 'what is here is not one of the kinds that are known; look at its first key';
	if (issue.code === 'invalid_union') return 'what is here is none of what can stand here';
	if (issue.code === 'too_big' && issue.message.startsWith('Too big'))
		return `at most ${issue.maximum}${unitOf[issue.origin] ?? ''} can stand here`;
	if (issue.code === 'too_small' && issue.message.startsWith('Too small'))
		return `at least ${issue.minimum}${unitOf[issue.origin] ?? ''} ${issue.minimum === 1 ? 'is' : 'are'} needed here`;
	return issue.message;
}

const unitOf: Readonly<Record<string, string>> = { string: ' letters', array: ' members' };
