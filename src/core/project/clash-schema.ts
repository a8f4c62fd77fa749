import { z } from 'zod';
import { id } from './identifier';
import { mm } from './numbers';

const MOST_INTENDED = 5000;

/** Which pieces that reach into each other are told of. */
export const clashSchema = z.strictObject({
	/** By more than so much. */
	deeper: mm.refine((value) => value > 0, 'a depth above 0 mm is accepted').default(2),
	/** Variants whose pieces are meant to reach into each other, as a frame does into its mullion. */
	intended: z
		.array(z.strictObject({ id, one: id, other: id }))
		.max(MOST_INTENDED)
		.default([])
});
