import type { NumberKind } from './dimension';
import { formatQuantity } from './quantity';

/**
 * What can be told of a piece. Codes are permanent: pieces are counted, filtered and compared by them, whatever the
 * sentences say.
 */
export const flagCodes = [
	'part.not-finite',
	'part.too-many-turns',
	'part.inside-out',
	'part.limit',
	'part.nothing',
	'part.inset-crosses',
	'part.re-entrant',
	'part.opening-out',
	'part.ratio-outside',
	'part.radius-too-large',
	'part.walls-too-thick',
	'block.thin',
	'block.no-space',
	'block.folds-over',
	'part.arms-run-together',
	'sheet.no-area',
	'sheet.narrow-joint',
	'block.nothing-left',
	'block.reaches-out',
	'block.too-many-shapes',
	'block.idle-cutter',
	'value.unusable',
	'piece.clipped-away',
	'piece.little-left',
	'piece.not-closed',
	'cell.sliver',
	'cell.folded-over',
	'cell.sharp-joint',
	'exception.unfit',
	'driver.outside',
	'limit.beyond'
] as const;
export type FlagCode = (typeof flagCodes)[number];

/** - failed: the piece cannot be made; - held: a bound was used in a value's place; - flagged: only told. */
export type FlagLevel = 'failed' | 'held' | 'flagged';

/** One thing that is told of a piece. */
export interface Flag {
	readonly code: FlagCode;
	readonly level: FlagLevel;
	/** What it is about: an input, a step, a measure, or the cell. */
	readonly subject: string;
	/** What is said of it, without its numbers. */
	readonly says: string;
	/** Of the value and its bound; null where there are none. */
	readonly kind: NumberKind | null;
	/** In kernel units; null where it has no single value. */
	readonly value: number | null;
	readonly bound: number | null;
}

/**
 * A flag that has no numbers.
 *
 * ```ts
 * const flag = plainFlag('part.limit', 'flagged', 'Warp', 'too much');
 * ```
 */
export const plainFlag = (code: FlagCode, level: FlagLevel, subject: string, says: string): Flag => ({
	code,
	level,
	subject,
	says,
	kind: null,
	value: null,
	bound: null
});

/**
 * The sentence of a flag, with its numbers where it has them.
 *
 * ```ts
 * const text = flagSentence(plainFlag('part.limit', 'flagged', 'Warp', 'too much'));
 * ```
 */
export function flagSentence({ level, says, kind, value, bound }: Flag): string {
	if (kind === null || value === null || bound === null) return says;
	const [own, limit] = [formatQuantity(value, kind), formatQuantity(bound, kind)];
	if (level === 'held') return `${says} (${own} was asked for, ${limit} is used)`;
	return `${says} (${own}; ${value < bound ? 'at least' : 'at most'} ${limit})`;
}
