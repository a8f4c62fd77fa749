import { z } from 'zod';
import { id } from './identifier';
import { mm } from './numbers';

const MOST_MATERIALS = 5000;
const above = mm.refine((value) => value > 0, 'a size above 0 mm is accepted');
const notBelow = mm.refine((value) => value >= 0, '0 mm or more is accepted');

/** What bars and plates are cut from. Sizes of materials that are not named are those that ship. */
export const stockSchema = z.strictObject({
	/** Width of the saw, between two bars. */
	saw: notBelow.default(5),
	/** Between two plates on a sheet. */
	gap: notBelow.default(10),
	/** By material: how long its bars come. */
	lengths: z
		.array(z.strictObject({ id, length: above }))
		.max(MOST_MATERIALS)
		.default([]),
	/** By material: how large its sheets come. */
	sheets: z
		.array(z.strictObject({ id, long: above, short: above }))
		.max(MOST_MATERIALS)
		.default([])
});
export type StockSettings = z.infer<typeof stockSchema>;
