import { z } from 'zod';
import { numberKinds } from '../units/dimension';
import { text } from './identifier';
import { plain } from './numbers';
import { anyStepSchema, elementSchema, MOST_STEPS } from './part/group-steps';
import { withRole } from './part/roles';
import { formula, name, named, use } from './part/text';
import { isContainer } from './paths';

export type {
	Along,
	AnyStep,
	Case,
	Cases,
	Each,
	ElementDefinition,
	PartStep,
	Repeat,
	Step,
	StepGroup,
	StepOf
} from './part/group-steps';
export type { Profile } from './part/solid-steps';

/** Inputs, limits and measures of one part. */
const MOST_MEMBERS = 200;

/** The document form of a part (the part language). `core/part` gives it its meaning. */
export const inputSchema = z.strictObject({
	...named,
	label: z.string().min(1).max(200),
	kind: z.enum([...numberKinds, 'choice', 'material', 'text']),
	/** Millimetres, degrees, a plain number, true or false; a choice's, a material's name, or a text. */
	default: z.union([plain, z.boolean(), withRole(text, 'choice')]),
	min: plain.optional(),
	max: plain.optional(),
	/** What can be chosen; formulas know each by its name. */
	options: z
		.array(z.strictObject({ name, label: z.string().min(1).max(200) }))
		.max(100)
		.optional(),
	scope: z.enum(['shared', 'per piece'])
});
export type PartInput = z.infer<typeof inputSchema>;

export const limitSchema = z.strictObject({
	/** The input, number step or measure that is bound; a measure can only be flagged. */
	of: use,
	at_least: formula.optional(),
	at_most: formula.optional(),
	/** Use the bound and say so, or only flag the piece. */
	then: z.enum(['hold', 'flag']),
	says: text.min(1)
});
export type Limit = z.infer<typeof limitSchema>;

export const measureSchema = z.strictObject({
	...named,
	label: z.string().min(1).max(200),
	kind: z.enum(numberKinds),
	value: formula
});
export type MeasureDefinition = z.infer<typeof measureSchema>;

const count = (least: number) => z.union([z.literal('any'), z.number().int().min(least).max(200)]);
export const anchorSchema = z.discriminatedUnion('kind', [
	/** A cell. */
	z.strictObject({ kind: z.literal('ring'), corners: count(3) }),
	/** A line of the grid, with the normals of the cells beside it. */
	z.strictObject({ kind: z.literal('pair') }),
	/** A node, with the directions of so many edges that meet in it. */
	z.strictObject({ kind: z.literal('node'), corners: count(1) }),
	/** Nodes that follow one another. */
	z.strictObject({ kind: z.literal('chain'), corners: count(2) }),
	/** A cell and its companion in a second layer. */
	z.strictObject({ kind: z.literal('double ring'), corners: count(3) })
]);
export type Anchor = z.infer<typeof anchorSchema>;

export const roles = ['panel', 'louver', 'mullion', 'structure'] as const;
export type Role = (typeof roles)[number];

const wholePart = z.strictObject({
	id: z.string().regex(/^[a-z][a-z0-9-]*$/),
	label: z.string().min(1).max(200),
	role: z.enum(roles),
	use: text,
	anchor: anchorSchema,
	inputs: z.array(inputSchema).max(MOST_MEMBERS),
	limits: z.array(limitSchema).max(MOST_MEMBERS),
	steps: z.array(anyStepSchema).max(MOST_STEPS),
	elements: z.array(elementSchema).max(MOST_STEPS),
	measures: z.array(measureSchema).max(MOST_MEMBERS)
});
/** Up to version 5 of the document a part's role had another name, which commands of the log still use. */
function withEarlierRole(value: unknown): unknown {
	if (!isContainer(value) || Array.isArray(value) || !('family' in value)) return value;
	const { family, ...rest } = value;
	return { role: family, ...rest };
}
export const partSchema = z.preprocess(withEarlierRole, wholePart);
export type PartDefinition = z.infer<typeof wholePart>;
/** As it may be written: what has a default may be left out. */
export type PartInputForm = z.input<typeof wholePart>;
