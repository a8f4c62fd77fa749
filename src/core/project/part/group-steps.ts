import { z } from 'zod';
import { identifier, text } from '../identifier';
import { blockSteps } from './block-steps';
import { lineSteps } from './line-steps';
import { pointSteps } from './point-steps';
import { sheetSteps } from './sheet-steps';
import { solidSteps } from './solid-steps';
import { withRole } from './roles';
import { formula, labelled, name, namedStep, use } from './text';

/** Steps, or elements, of one group. */
export const MOST_STEPS = 500;

export const elementSchema = z.strictObject({
	...labelled,
	label: z.string().min(1).max(200),
	category: z.enum(['plate', 'bar', 'blade', 'connector', 'other']),
	/** Names of the steps whose solids or sheets it is made of. */
	of: z.array(use).min(1).max(MOST_STEPS),
	/** A material, or the input that names one. */
	material: withRole(text.min(1), 'material'),
	/** Of its sheets, which have none of their own. */
	thickness: formula.optional(),
	/** Each of its solids is ordered by itself, as a shop cuts it; otherwise all of them are one thing. */
	each: z.literal(true).optional()
});
export type ElementDefinition = z.infer<typeof elementSchema>;

/** Another part on points of this one; its elements are ordered with this part's own. */
const partStep = z.strictObject({
	...namedStep,
	do: z.literal('part'),
	part: z.string().max(120),
	/** A ring, a path, or points. */
	on: z.array(use).min(1).max(MOST_STEPS),
	/** Formulas for its inputs, and names of materials; what is left out is as its default. */
	values: z.record(identifier, withRole(text, 'formula')).default({})
});
export type PartStep = z.infer<typeof partStep>;

export const stepSchema = z.discriminatedUnion('do', [
	...pointSteps,
	...lineSteps,
	...sheetSteps,
	...solidSteps,
	...blockSteps
]);
export type Step = z.infer<typeof stepSchema>;
export type StepOf<Do extends Step['do']> = Extract<Step, { do: Do }>;

/** Steps made together. */
export interface StepGroup {
	steps: AnyStep[];
	elements: ElementDefinition[];
}
interface StepGroupInput {
	steps: AnyStepInput[];
	elements: z.input<typeof elementSchema>[];
}
const steps = z.lazy((): z.ZodType<AnyStep[], AnyStepInput[]> => z.array(anyStepSchema).max(MOST_STEPS));
const content = { steps, elements: z.array(elementSchema).max(MOST_STEPS) };

/** Steps made a number of times, or only when a condition holds. */
const repeat = z.strictObject({
	...namedStep,
	do: z.literal('repeat'),
	times: formula.optional(),
	when: formula.optional(),
	/** The name under which the steps know their turn: 0, 1, 2 … */
	index: name.optional()
});
/** Steps made for every piece of a path, as many as its length asks for. Known within as piece, from, to and turn. */
const along = z.strictObject({
	...namedStep,
	do: z.literal('along'),
	path: use,
	/** All pieces alike and none longer than the spacing; or of the spacing exactly, from the path's start. */
	spaced: z.enum(['at most', 'exactly']),
	spacing: formula
});
const oneCase = z.strictObject({
	/** From here on, or from the lowest value. */
	from: formula.optional(),
	/** Up to here, this not included, or to the highest value. */
	below: formula.optional()
});
/** One of several groups of steps, by the range that a value lies in; they may neither overlap nor leave a gap. */
const cases = z.strictObject({ ...namedStep, do: z.literal('cases'), of: formula });
/** Steps made for every edge, corner or small ring of a ring, every piece of a path, or every line that meets in a node. */
const each = z.strictObject({
	...namedStep,
	do: z.literal('each'),
	/**
	 * Known within as edge, from and to; as corner, before and after; as small, column, row and odd; as way, next, far,
	 * across, deep and middle.
	 */
	over: z.enum(['edges', 'corners', 'small rings', 'ways']),
	of: use,
	/** How many small rings a ring of four is split into; two each way where nothing is said. */
	across: z.number().int().min(1).max(20).optional(),
	up: z.number().int().min(1).max(20).optional(),
	/** What is known afterwards: the points that one step made, all in a row; its rings, for openings; its lengths. */
	gathers: z
		.array(z.strictObject({ name, of: use, as: z.enum(['ring', 'path', 'rings', 'lengths']) }))
		.max(MOST_STEPS)
		.default([])
});
type Whole<Head, Group> = Head & Group;
export type Repeat = Whole<z.infer<typeof repeat>, StepGroup>;
export type Case = Whole<z.infer<typeof oneCase>, StepGroup>;
export type Cases = Whole<z.infer<typeof cases>, { cases: Case[] }>;
export type Along = Whole<z.infer<typeof along>, StepGroup>;
export type Each = Whole<z.infer<typeof each>, StepGroup>;
export type AnyStep = Step | PartStep | Repeat | Along | Cases | Each;
export type AnyStepInput =
	| z.input<typeof stepSchema>
	| z.input<typeof partStep>
	| Whole<z.input<typeof repeat>, StepGroupInput>
	| Whole<z.input<typeof along>, StepGroupInput>
	| Whole<z.input<typeof cases>, { cases: Whole<z.input<typeof oneCase>, StepGroupInput>[] }>
	| Whole<z.input<typeof each>, StepGroupInput>;

export const anyStepSchema: z.ZodType<AnyStep, AnyStepInput> = z.discriminatedUnion('do', [
	...pointSteps,
	...lineSteps,
	...sheetSteps,
	...solidSteps,
	...blockSteps,
	partStep,
	repeat.extend(content),
	along.extend(content),
	cases.extend({ cases: z.array(oneCase.extend(content)).min(1).max(MOST_STEPS) }),
	each.extend(content)
]);
