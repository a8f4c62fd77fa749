import { z } from 'zod';
import { id, text } from './identifier';

const MOST_RATES = 5000;
const MOST_RATE = 1e9;

/** What a rate is for: every m² of plates, m of bars, kg, piece, or different kind of pieces on cells. */
export const rateUnits = ['area', 'length', 'mass', 'piece', 'kind'] as const;
export type RateUnit = (typeof rateUnits)[number];

export const rateSchema = z.strictObject({
	id,
	/** Whose: elements of a material, or pieces of a part; null for all pieces. */
	material: id.nullable().default(null),
	part: id.nullable().default(null),
	per: z.enum(rateUnits),
	rate: z
		.number()
		.min(0, 'a rate of 0 or more is accepted')
		.max(MOST_RATE, 'a rate up to 1 000 000 000 is accepted'),
	muted: z.boolean().default(false)
});
export type Rate = z.infer<typeof rateSchema>;

/** What things cost. None ships: prices are a project's own. */
export const costSchema = z.strictObject({
	/** What rates are in, as it is written: €, CHF. */
	currency: text.default('€'),
	rates: z.array(rateSchema).max(MOST_RATES).default([])
});
