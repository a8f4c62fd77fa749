import { z } from 'zod';
import { pathSchema, profileSchema } from './form-schema';
import { id } from './identifier';

/**
 * Points and curves that are named to be used elsewhere: by start lines, by scattered cells. One point is a
 * guide too. Lengths in mm.
 */
const named = { id, name: z.string().trim().min(1).max(60) };
export const guideSchema = z.discriminatedUnion('on', [
	/** Drawn on a face laid flat: mm to the right of its middle line, mm up from its foot. */
	z.strictObject({
		...named,
		on: z.literal('map'),
		mass: id,
		face: z.string().max(120),
		points: profileSchema.shape.points,
		joins: z.enum(['line', 'smooth']).default('line'),
		closed: z.boolean().default(false)
	}),
	/** Drawn in space. */
	z.strictObject({
		...named,
		on: z.literal('space'),
		points: pathSchema.shape.points,
		joins: z.enum(['line', 'smooth']).default('line'),
		closed: z.boolean().default(false)
	})
]);
export type Guide = z.infer<typeof guideSchema>;
