import { z } from 'zod';
import { formula, namedStep, use } from './text';

const line = z.strictObject({ ...namedStep, do: z.literal('line'), from: use, to: use });
/** An edge of a ring, counted from 1: from its corner of that number to the next. */
const edge = z.strictObject({
	...namedStep,
	do: z.literal('edge'),
	of: use,
	number: z.number().int().min(1).max(1000)
});
/** Corners on a circle about the origin of a plane, the first to its right. */
const circle = z.strictObject({
	...namedStep,
	do: z.literal('circle'),
	plane: use,
	diameter: formula,
	pieces: z.number().int().min(3).max(96).default(16)
});
const path = z.strictObject({
	...namedStep,
	do: z.literal('path'),
	/** Points, or paths that follow one another. */
	through: z.array(use).min(1).max(200),
	runs: z.enum(['straight', 'smooth']).default('straight')
});
const ring = z.strictObject({
	...namedStep,
	do: z.literal('ring'),
	through: z.array(use).min(1).max(200),
	runs: z.enum(['straight', 'smooth']).default('straight')
});
const inset = z.strictObject({
	...namedStep,
	do: z.literal('inset'),
	ring: use,
	/** One width for every edge, or one for each; negative outward. */
	by: z.union([formula, z.array(formula).max(200)])
});
/** A path moved sideways, to its left seen against a direction. */
const offset = z.strictObject({ ...namedStep, do: z.literal('offset'), path: use, by: formula, facing: use });
/** Every corner a share of the way to a point. */
const shrink = z.strictObject({ ...namedStep, do: z.literal('shrink'), ring: use, to: use, ratio: formula });
/** Corners cut again and again at a quarter of the edges. */
const smooth = z.strictObject({
	...namedStep,
	do: z.literal('smooth'),
	of: use,
	times: z.number().int().min(1).max(4)
});
const rounded = z.strictObject({
	...namedStep,
	do: z.literal('rounded'),
	ring: use,
	radius: formula,
	/** Pieces of each round corner. */
	pieces: z.number().int().min(1).max(24).default(6)
});
/** Points at equal distances along a path, its ends included. */
const divided = z.strictObject({
	...namedStep,
	do: z.literal('divided'),
	path: use,
	into: z.number().int().min(1).max(200)
});

export const lineSteps = [
	line,
	edge,
	circle,
	path,
	ring,
	inset,
	offset,
	shrink,
	smooth,
	rounded,
	divided
] as const;
