import { CodedError } from '../units/coded-error';

/** What a mark can have of its piece. */
export const markWords = [
	'zone',
	'face',
	'level',
	'course',
	'bay',
	'kind',
	'part',
	'variant',
	'number'
] as const;
export type MarkWord = (typeof markWords)[number];

/** A stretch of a pattern: text as it stands, or what is known of a piece, with so many digits at least. */
export type MarkToken = string | { readonly word: MarkWord; readonly digits: number };

/**
 * A pattern that no mark can be made by: a sentence that says what would be.
 *
 * ```ts
 * if (error instanceof MarkError) tell(error.message);
 * ```
 */
export class MarkError extends CodedError {
	readonly code = 'mark';
}

const MOST_LENGTH = 60;
const MOST_DIGITS = 8;
/** What may stand in a mark beside what is known of a piece. */
const PLAIN = /^[\p{L}\p{N} ._/-]*$/u;
const SAID = 'letters, digits, blanks and - . _ / can stand in it';

/**
 * Read the pattern of a mark.
 *
 * ```ts
 * const tokens = readPattern('(zone)-(level)-(number 3)');
 * ```
 * @throws MarkError with a sentence
 */
export function readPattern(pattern: string): MarkToken[] {
	const refuse = (sentence: string): never => {
		throw new MarkError(sentence);
	};
	if (!pattern.trim()) refuse('a mark cannot be empty; (zone)-(number 3) would be one');
	if (pattern.length > MOST_LENGTH) refuse(`a pattern of ${MOST_LENGTH} letters at most is accepted`);
	const tokens: MarkToken[] = [];
	let at = 0;
	for (const found of pattern.matchAll(/\(([^()]*)\)/g)) {
		if (found.index > at) tokens.push(pattern.slice(at, found.index));
		at = found.index + found[0].length;
		const [word = '', digits, ...more] = found[1]!.trim().toLowerCase().split(/\s+/);
		if (!markWords.includes(word as MarkWord))
			refuse(
				`"${found[0]}" is nothing that is known of a piece; ${markWords.map((one) => `(${one})`).join(', ')} are`
			);
		const count = digits === undefined ? 1 : Number(digits);
		if (more.length || !Number.isInteger(count) || count < 1 || count > MOST_DIGITS)
			refuse(
				`"${found[0]}" asks for no number of digits; 1 to ${MOST_DIGITS} are accepted, as in (number 3)`
			);
		tokens.push({ word: word as MarkWord, digits: count });
	}
	if (at < pattern.length) tokens.push(pattern.slice(at));
	for (const token of tokens)
		if (typeof token === 'string' && !PLAIN.test(token))
			refuse(
				/[()]/.test(token)
					? `"${pattern}" has a bracket that is not closed`
					: `"${token}" cannot stand in a mark; ${SAID}`
			);
	if (tokens.every((token) => typeof token === 'string'))
		refuse('all pieces would have the same mark; add (number)');
	return tokens;
}
