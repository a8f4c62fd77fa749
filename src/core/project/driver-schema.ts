import { z } from 'zod';
import { withFields } from './field-names';
import { plain, squareMm } from './numbers';
import { text } from './identifier';

/**
 * What varies a value from place to place. A formula says it in one; the others say it in words that can be read and
 * changed one by one.
 */

const MOST_VALUES = 60;
const MOST_POINTS = 60;

/** A value in the units of the document, or a formula without fields; the name of a choice. */
const amount = z.union([squareMm, text]);
const amounts = z.tuple([amount, amount]);

export const drivers = [
	/** From a range of a field of the place to a range of the value. */
	z.strictObject({
		is: z.literal('follows'),
		/** Its name: `area`, `distance.tide_line`. */
		field: z.string().min(1).max(200),
		from: amounts,
		to: amounts,
		/** Between the two, from 0, 0 to 1, 1: shares of the one and of the other. None is straight. */
		curve: z
			.array(z.tuple([plain, plain]))
			.max(MOST_POINTS)
			.default([]),
		/** In so many levels; null is evenly. */
		steps: z.number().int().min(1).max(1000).nullable().default(null),
		/** Where the field is outside its range: held at its ends, or held and flagged. */
		outside: z.enum(['held', 'flagged']).default('held')
	}),
	/** One after another. */
	z.strictObject({
		is: z.literal('alternates'),
		values: z.array(amount).min(1).max(MOST_VALUES),
		by: z.enum(['cells', 'bays', 'courses'])
	}),
	/** By chance between two values; each place keeps its draw. */
	z.strictObject({ is: z.literal('chance'), to: amounts, seed: plain }),
	/** An angle at which blades just keep out the sun as it stands, held between two. */
	z.strictObject({
		is: z.literal('keeps out'),
		/** Blades that lie keep out a high sun, fins that stand one that is aside. */
		blades: z.enum(['lying', 'standing']),
		depth: amount,
		spacing: amount,
		to: amounts
	})
] as const;

/** What can vary the nodes of a grid before there are cells on it. */
export const nodeDriverSchema = z.discriminatedUnion('is', [drivers[0], drivers[2]]);
/** What can vary places that have no sun yet. */
export const placeDriverSchema = z.discriminatedUnion('is', [drivers[0], drivers[1], drivers[2]]);
export const driverSchema = z.union([withFields(text), z.discriminatedUnion('is', drivers)]);
export type SpelledDriver = z.infer<(typeof drivers)[number]>;
export type Driver = string | SpelledDriver;
export type DriverOf<Is extends SpelledDriver['is']> = Extract<SpelledDriver, { is: Is }>;
