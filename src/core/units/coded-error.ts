/**
 * An error that is foreseen: its message is a sentence for the person, its code is for programs.
 *
 * ```ts
 * class TooLarge extends CodedError {
 * 	readonly code = 'drawing.too-large';
 * }
 * ```
 */
export abstract class CodedError extends Error {
	/** Permanent, also in answers of the server: logs and scripts tell errors apart by it, whatever the words are. */
	abstract readonly code: string;
}
