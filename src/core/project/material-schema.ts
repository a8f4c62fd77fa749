import { z } from 'zod';
import { id } from './identifier';

/** What elements are made of, and how it looks. */
export const materialSchema = z.strictObject({
	id,
	label: z.string().trim().min(1).max(60),
	/** kg/m³ */
	density: z.number().min(1).max(25_000),
	/** Modulus of elasticity (N/mm²); null where none is known: what hangs on it is not reckoned then. */
	stiffness: z.number().min(1).max(1e6).nullable().default(null),
	/** sRGB hex */
	colour: z.string().regex(/^#[0-9a-f]{6}$/i, 'a colour is # and six hexadecimal digits'),
	opacity: z.number().min(0.05).max(1),
	metalness: z.number().min(0).max(1),
	roughness: z.number().min(0).max(1),
	/** Plates of it count as glass in the schedule. */
	glass: z.boolean().default(false),
	/** What it looks like from near: wood has a grain, what is cast is mottled, what is woven has threads. */
	surface: z.enum(['even', 'wood', 'cast', 'woven']).default('even')
});
export type Material = z.infer<typeof materialSchema>;
