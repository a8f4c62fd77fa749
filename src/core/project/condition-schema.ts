import { z } from 'zod';
import { withFields } from './field-names';
import { id, text } from './identifier';
import { rimSides } from './line-kinds';
import { plain, squareMm } from './numbers';
import { isContainer } from './paths';

/**
 * What a clause asks of a place before it puts something there. Kinds, slots and faces are asked by name; everything
 * that is a number of the place is asked by its field: `{ is: 'range', field: 'area', at_least: 2e6, at_most: null }`.
 */

/** Conditions of one joining, and how deep brackets go. */
const MOST_JOINED = 60;

/** Ways that a place can look. */
export const compass = [
	'north',
	'north-east',
	'east',
	'south-east',
	'south',
	'south-west',
	'west',
	'north-west',
	'up',
	'down'
] as const;
const cellKindNames = ['whole', 'edge', 'strip', 'cut'] as const;
/** A name of something, as slots, faces and fields have. */
const named = z.string().min(1).max(200);
const names = z.array(named).max(200);
/** A bound in the units of the document: mm, mm², degrees, plain numbers; or a formula without fields, as `2 * storey`. */
const amount = z.union([squareMm, text]).nullable();

const simpleConditions = [
	z.strictObject({ is: z.literal('kind'), of: z.array(z.enum(cellKindNames)).max(cellKindNames.length) }),
	/** So many corners; lines that meet at a node. */
	z.strictObject({ is: z.literal('corners'), of: z.array(z.number().int().min(-1000).max(1000)).max(40) }),
	/** Cells of some slots of the pattern. */
	z.strictObject({ is: z.literal('slot'), of: names }),
	/** Lines and nodes on some of the rims of their face. */
	z.strictObject({ is: z.literal('rim'), of: z.array(z.enum(rimSides)).max(rimSides.length) }),
	/** Lines with a part of a variant on one side, or on both. */
	z.strictObject({ is: z.literal('beside'), variant: id, on: z.enum(['one side', 'both sides']) }),
	/** On some faces, by mass and face: `hall.south`. */
	z.strictObject({ is: z.literal('face'), of: names }),
	/** Looking a way, within so many degrees of it. */
	z.strictObject({
		is: z.literal('looks'),
		towards: z.enum(compass),
		within: plain
	}),
	/** The whole cell above one level and below another; null leaves that side open. */
	z.strictObject({ is: z.literal('levels'), above: id.nullable(), below: id.nullable() }),
	/** Every so-manieth cell, bay or course, from the first, the second … */
	z.strictObject({
		is: z.literal('every'),
		step: plain,
		from: plain,
		by: z.enum(['cells', 'bays', 'courses'])
	}),
	/** So many of all by chance: each place keeps its draw, whatever else comes and goes. */
	z.strictObject({ is: z.literal('chance'), share: plain, seed: plain }),
	/** A field of the place from a bound to another. */
	z.strictObject({ is: z.literal('range'), field: named, at_least: amount, at_most: amount }),
	/** Within a closed guide, as it is seen square to its plane. */
	z.strictObject({ is: z.literal('inside'), guide: id }),
	/** A formula that comes to yes or no. */
	z.strictObject({ is: z.literal('formula'), formula: withFields(text) })
] as const;
type Simple = z.infer<(typeof simpleConditions)[number]>;
/** Conditions that hold others: all of them hold (of none, everything), at least one, or none. */
export interface Joining {
	is: 'all' | 'any' | 'none';
	of: Condition[];
}
export type Condition = Joining | Simple;
export type ConditionOf<Is extends Condition['is']> = Extract<Condition, { is: Is }>;

const joined: z.ZodType<Condition[]> = z.lazy(() => z.array(conditionSchema).max(MOST_JOINED));
/** What a clause asks, all in all. */
export const joiningSchema = z.strictObject({ is: z.enum(['all', 'any', 'none']), of: joined });
const conditionSchema: z.ZodType<Condition> = z.discriminatedUnion('is', [
	joiningSchema,
	...simpleConditions
]);

/** Asked of everything. */
export const EVERYWHERE: Joining = { is: 'all', of: [] };

type Loose = Record<string, unknown>;

/** Up to version 7 a rule had one value for each of five things that can be asked, which commands of the log still use. */
export const earlierKeys = ['cells', 'corners', 'slot', 'every', 'courses'] as const;
export type EarlierKey = (typeof earlierKeys)[number];

/** The condition that an earlier value stood for; null where it asked nothing. */
export function conditionOfEarlier(key: EarlierKey, value: unknown): Loose | null {
	if (value === null || value === 'any' || value === 'all') return null;
	switch (key) {
		case 'cells':
			// What stands in an end strip is whole, only smaller.
			return { is: 'kind', of: value === 'whole' ? ['whole', 'strip'] : [value] };
		case 'corners':
		case 'slot':
			return { is: key, of: [value] };
		case 'every':
			return { is: 'every', ...(isContainer(value) && !Array.isArray(value) ? value : {}) };
		case 'courses': {
			const [first, last] = Array.isArray(value) ? (value as unknown[]) : [];
			return { is: 'range', field: 'course', at_least: first, at_most: last };
		}
	}
}

/** A rule as it was written up to version 7 with its conditions as they are written today. */
export function withConditions(value: unknown): unknown {
	if (!isContainer(value) || Array.isArray(value) || !earlierKeys.some((key) => key in value)) return value;
	const rest = Object.fromEntries(
		Object.entries(value).filter(([key]) => !earlierKeys.includes(key as EarlierKey))
	);
	const of = earlierKeys.flatMap((key) => (key in value ? (conditionOfEarlier(key, value[key]) ?? []) : []));
	return { ...rest, where: { is: 'all', of } };
}
