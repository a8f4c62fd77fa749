import { z } from 'zod';
import { id } from './identifier';
import { lineKinds } from './line-kinds';
import { degrees, mm } from './numbers';
import { roles } from './part-definition';

/** What is kept of how the model is looked at: nothing of it changes what is built. Lengths in mm. */
const name = z.string().trim().min(1).max(60);
const MOST_HIDDEN = 1000;
const point = z.tuple([mm, mm, mm]);

/** Where the model is cut open: what lies on one side along an axis is left out of the picture. */
export const sectionSchema = z.strictObject({
	axis: z.enum(['x', 'y', 'z']),
	at: mm,
	/** The side that stays: below it along the axis, or above. */
	keeps: z.enum(['low', 'high']).default('low')
});
export type Section = z.infer<typeof sectionSchema>;

/** How the model is drawn: on paper, under a sky on its ground, as lines, its cells coloured by what is measured. */
export const looks = ['paper', 'presentation', 'lines', 'measures'] as const;
export type Look = (typeof looks)[number];

/** What is left out of the picture. */
export const hiddenSchema = z.strictObject({
	zones: z.array(id).max(MOST_HIDDEN).default([]),
	masses: z.array(id).max(MOST_HIDDEN).default([]),
	/** Zones whose second grid is left out. */
	layers: z.array(id).max(MOST_HIDDEN).default([]),
	/** Pieces by what their parts are for. */
	kinds: z.array(z.enum(roles)).max(roles.length).default([]),
	/** Lines of the grid by their direction. */
	lines: z.array(z.enum(lineKinds)).max(lineKinds.length).default([])
});
export type Hidden = z.infer<typeof hiddenSchema>;
export const NOTHING_HIDDEN: Hidden = hiddenSchema.parse({});

/** A view that was kept. */
export const viewSchema = z.strictObject({
	id,
	name,
	lens: z.enum(['form', 'set-out', 'clad', 'check', 'issue']),
	look: z.enum(looks).default('paper'),
	section: sectionSchema.nullable().default(null),
	hidden: hiddenSchema.default(NOTHING_HIDDEN),
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
