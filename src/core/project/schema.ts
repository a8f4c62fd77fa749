import { z } from 'zod';
import { lengthDisplays } from '../units/quantity';
import { levelSchema, massSchema } from './form-schema';
import { guideSchema } from './guide-schema';
import { id, identifier } from './identifier';
import { partSchema } from './part-definition';
import { settingOutSchema } from './setting-out-schema';

export type { SettingOut, Spacing } from './setting-out-schema';

/**
 * The project document: everything a designer decides, and nothing that is computed.
 * Lengths are millimetres, angles degrees. The schema fixes the structure; whether the values make sense
 * together is said by the stage that uses them, at the clause they belong to.
 */
export const DOCUMENT_FORMAT = 'zygaster project';
export const DOCUMENT_VERSION = 3;

const name = z.string().trim().min(1).max(120);

export const patternSchema = z.discriminatedUnion('kind', [
	z.strictObject({ kind: z.literal('rectangles') }),
	z.strictObject({
		kind: z.literal('triangles'),
		diagonal: z.enum(['rising', 'falling', 'alternating', 'shorter']).default('rising')
	}),
	z.strictObject({ kind: z.literal('diamonds') })
]);
export type PatternChoice = z.infer<typeof patternSchema>;

/** Open, or a variant with formulas for its per-piece inputs (names of cell measures may be used). */
const put = z.union([
	z.literal('open'),
	z.strictObject({ variant: id, values: z.record(identifier, z.string()).default({}) })
]);

export const ruleSchema = z.strictObject({
	id,
	muted: z.boolean().default(false),
	cells: z.enum(['all', 'whole', 'edge', 'cut']).default('all'),
	corners: z.union([z.literal('any'), z.number().int()]).default('any'),
	/** First and last course taken, counted from 1 at the foot; null for all. */
	courses: z.tuple([z.number(), z.number()]).nullable().default(null),
	put
});
export type Rule = z.infer<typeof ruleSchema>;

export const lineKinds = ['bay', 'course', 'diagonal', 'rim'] as const;
export type LineKind = (typeof lineKinds)[number];

export const runSchema = z.strictObject({
	id,
	muted: z.boolean().default(false),
	lines: z.array(z.enum(lineKinds)),
	variant: id
});
export type Run = z.infer<typeof runSchema>;

export const zoneSchema = z.strictObject({
	id,
	/** Short name that starts every mark, for example GR. */
	code: z.string().regex(/^[A-Z][A-Z0-9]{0,5}$/, 'a code is 1 to 6 capital letters and digits'),
	name,
	faces: z.array(z.strictObject({ mass: id, face: z.string() })),
	settingOut: settingOutSchema,
	pattern: patternSchema,
	rules: z.array(ruleSchema).default([]),
	runs: z.array(runSchema).default([]),
	/** Choices made by hand; the id is the cell's address within the zone, as in drum.shell/C06/B20/1. */
	exceptions: z.array(z.strictObject({ id: z.string(), put })).default([])
});
export type Zone = z.infer<typeof zoneSchema>;

export const variantSchema = z.strictObject({
	id,
	name,
	part: id,
	/** Values of the part's inputs: millimetres, degrees, plain numbers, yes or no, material names. */
	values: z.record(identifier, z.union([z.number(), z.boolean(), z.string()])).default({})
});
export type Variant = z.infer<typeof variantSchema>;

export const projectSchema = z.strictObject({
	format: z.literal(DOCUMENT_FORMAT),
	version: z.literal(DOCUMENT_VERSION),
	name,
	/** How lengths are shown. */
	display: z.enum(lengthDisplays).default('mm'),
	levels: z.array(levelSchema).default([]),
	masses: z.array(massSchema).default([]),
	/** Points and curves with names, for start lines and scattered cells to follow. */
	guides: z.array(guideSchema).default([]),
	zones: z.array(zoneSchema).default([]),
	variants: z.array(variantSchema).default([]),
	/** Parts made in this project, beside the ones that ship. */
	parts: z.array(partSchema).default([])
});
export type Project = z.infer<typeof projectSchema>;
