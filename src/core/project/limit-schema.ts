import { z } from 'zod';
import { id, text } from './identifier';

const MOST_BOUND = 1e12;

/** What a measure of pieces has to stay within. */
export const limitSchema = z.strictObject({
	id,
	/** The measure, by its id: cell.warp, piece.mass, part.cut_length. */
	of: z.string().min(1).max(120),
	than: z.enum(['most', 'least']),
	/** In kernel units: mm, mm², mm³, kg; angles in degrees. */
	bound: z.number().min(-MOST_BOUND).max(MOST_BOUND),
	/** Whose pieces: of a material, a part, a zone; null of any. */
	material: id.nullable().default(null),
	part: id.nullable().default(null),
	zone: id.nullable().default(null),
	muted: z.boolean().default(false),
	/** Where the bound is from. */
	source: text.default('')
});
export type Limit = z.infer<typeof limitSchema>;
