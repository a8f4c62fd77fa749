import { z } from 'zod';
import { id } from './identifier';
import { degrees, mm } from './numbers';

/** What is kept of how the model is looked at: nothing of it changes what is built. Lengths in mm. */
const name = z.string().trim().min(1).max(60);
const point = z.tuple([mm, mm, mm]);

/** Where the model is cut open: what lies on one side along an axis is left out of the picture. */
export const sectionSchema = z.strictObject({
	axis: z.enum(['x', 'y', 'z']),
	at: mm,
	/** The side that stays: below it along the axis, or above. */
	keeps: z.enum(['low', 'high']).default('low')
});
export type Section = z.infer<typeof sectionSchema>;

/** How the model is drawn: on paper, under a sky on its ground, as lines. */
export const looks = ['paper', 'presentation', 'lines'] as const;
export type Look = (typeof looks)[number];

/** A view that was kept. */
export const viewSchema = z.strictObject({
	id,
	name,
	lens: z.enum(['form', 'set-out', 'clad', 'check', 'issue']),
	look: z.enum(looks).default('paper'),
	section: sectionSchema.nullable().default(null),
	/** Where the eye stands: what it looks at, from how far, turned about the vertical (0 from the south) and risen over it. */
	target: point,
	distance: mm,
	turn: degrees,
	rise: degrees,
	/** Drawn without perspective. */
	flat: z.boolean().default(false)
});
export type KeptView = z.infer<typeof viewSchema>;

/** A length that was measured. */
export const noteSchema = z.strictObject({ id, name, from: point, to: point });
export type Note = z.infer<typeof noteSchema>;
