import { z } from 'zod';
import { numberKinds } from '../units/dimension';
import { identifier } from './identifier';

/**
 * The document form of a part (the part language). `core/part` gives it its meaning.
 * Names are plain identifiers, so that formulas can use them; formulas are text with units.
 */
const formula = z.string().min(1);
const name = { name: identifier, note: z.string().optional() };

export const inputSchema = z.strictObject({
	...name,
	label: z.string().min(1),
	kind: z.enum([...numberKinds, 'material']),
	/** Millimetres, degrees, a plain number, true or false, or a material's name. */
	default: z.union([z.number(), z.boolean(), z.string()]),
	min: z.number().optional(),
	max: z.number().optional(),
	scope: z.enum(['shared', 'per piece'])
});
export type PartInput = z.infer<typeof inputSchema>;

const numberStep = z.strictObject({ ...name, do: z.literal('number'), value: formula });
const pointStep = z.strictObject({
	...name,
	do: z.literal('point on path'),
	path: identifier,
	/** How far along, 0 at its start and 1 at its end. */
	ratio: formula.optional(),
	/** Or a distance from its start. */
	distance: formula.optional()
});
const liftStep = z.strictObject({
	...name,
	do: z.literal('lift'),
	/** A point, a path or a ring. */
	of: identifier,
	by: formula,
	along: identifier
});
const directionStep = z.strictObject({
	...name,
	do: z.literal('direction'),
	from: identifier,
	to: identifier
});
const lineStep = z.strictObject({ ...name, do: z.literal('line'), from: identifier, to: identifier });
const insetStep = z.strictObject({
	...name,
	do: z.literal('inset'),
	ring: identifier,
	/** One width for every edge, or one for each. */
	by: z.union([formula, z.array(formula)])
});
const plateStep = z.strictObject({
	...name,
	do: z.literal('plate'),
	ring: identifier,
	thickness: formula,
	side: z.enum(['in', 'out', 'both'])
});
const bandStep = z.strictObject({
	...name,
	do: z.literal('band'),
	outer: identifier,
	inner: identifier,
	/** Depth behind the rings, along the cell's normal. */
	depth: formula
});
const barStep = z.strictObject({
	...name,
	do: z.literal('bar'),
	path: identifier,
	width: formula,
	depth: formula,
	/** Wall of a hollow section; a solid one when left out. */
	wall: formula.optional(),
	/** The direction that the depth points to. */
	facing: identifier,
	/** Which side of the path the section stands: its middle, wholly behind it or before it. */
	placed: z.enum(['middle', 'behind', 'before']),
	turn: formula.optional(),
	start_setback: formula.optional(),
	end_setback: formula.optional()
});

export const stepSchema = z.discriminatedUnion('do', [
	numberStep,
	pointStep,
	liftStep,
	directionStep,
	lineStep,
	insetStep,
	plateStep,
	bandStep,
	barStep
]);
export type Step = z.infer<typeof stepSchema>;

export const elementSchema = z.strictObject({
	...name,
	label: z.string().min(1),
	category: z.enum(['plate', 'bar', 'blade', 'connector', 'other']),
	/** Names of the steps whose solids it is made of. */
	of: z.array(identifier).min(1),
	/** A material, or the input that names one. */
	material: z.string().min(1)
});
export type ElementDefinition = z.infer<typeof elementSchema>;

/** Steps made a number of times, or only when a condition holds. */
export const groupSchema = z.strictObject({
	...name,
	do: z.literal('repeat'),
	times: formula.optional(),
	when: formula.optional(),
	/** The name under which the steps know their turn: 0, 1, 2 … */
	index: identifier.optional(),
	steps: z.array(stepSchema),
	elements: z.array(elementSchema)
});
export type Group = z.infer<typeof groupSchema>;

export const limitSchema = z.strictObject({
	/** The input or number step that is bound. */
	of: identifier,
	at_least: formula.optional(),
	at_most: formula.optional(),
	/** Use the bound and say so, or only flag the piece. */
	then: z.enum(['hold', 'flag']),
	says: z.string().min(1)
});
export type Limit = z.infer<typeof limitSchema>;

export const measureSchema = z.strictObject({
	...name,
	label: z.string().min(1),
	kind: z.enum(numberKinds),
	value: formula
});
export type MeasureDefinition = z.infer<typeof measureSchema>;

export const anchorSchema = z.discriminatedUnion('kind', [
	z.strictObject({
		kind: z.literal('ring'),
		corners: z.union([z.literal('any'), z.number().int().min(3)])
	}),
	z.strictObject({ kind: z.literal('pair') })
]);
export type Anchor = z.infer<typeof anchorSchema>;

export const partSchema = z.strictObject({
	id: z.string().regex(/^[a-z][a-z0-9-]*$/),
	label: z.string().min(1),
	family: z.enum(['panel', 'louver', 'mullion']),
	use: z.string(),
	anchor: anchorSchema,
	inputs: z.array(inputSchema),
	limits: z.array(limitSchema),
	steps: z.array(z.union([stepSchema, groupSchema])),
	elements: z.array(elementSchema),
	measures: z.array(measureSchema)
});
export type PartDefinition = z.infer<typeof partSchema>;
