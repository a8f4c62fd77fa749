import { z } from 'zod';
import { formula, namedStep, use } from './text';

const number = z.strictObject({ ...namedStep, do: z.literal('number'), value: formula });
const pointOnPath = z.strictObject({
	...namedStep,
	do: z.literal('point on path'),
	path: use,
	/** How far along, 0 at its start and 1 at its end. */
	ratio: formula.optional(),
	/** Or a distance along it. */
	distance: formula.optional(),
	/** Which end the ratio or the distance counts from. */
	from: z.enum(['start', 'end']).default('start')
});
/** The point half way along a path, or the mean of a ring's corners. */
const middle = z.strictObject({ ...namedStep, do: z.literal('middle'), of: use });
/** A corner of a ring, or a point of a path, counted from 1. */
const corner = z.strictObject({
	...namedStep,
	do: z.literal('corner'),
	of: use,
	number: z.number().int().min(1).max(1000)
});
/** Where two straight lines meet; where they miss, half way between their nearest points. */
const crossing = z.strictObject({ ...namedStep, do: z.literal('crossing'), first: use, second: use });
const lift = z.strictObject({
	...namedStep,
	do: z.literal('lift'),
	/** A point, a path or a ring. */
	of: use,
	/** One distance, or one for each point. */
	by: z.union([formula, z.array(formula)]),
	/** A direction, or the corners' own normals. */
	along: use
});
/** Moved within a plane, to its right and up in it. */
const shift = z.strictObject({
	...namedStep,
	do: z.literal('shift'),
	of: use,
	right: formula,
	up: formula,
	plane: use
});
/** The foot of the perpendicular from a point to a straight line or a plane. */
const foot = z.strictObject({ ...namedStep, do: z.literal('foot'), of: use, on: use });
const direction = z.strictObject({ ...namedStep, do: z.literal('direction'), from: use, to: use });
/** Square to a ring, outward. */
const normal = z.strictObject({ ...namedStep, do: z.literal('normal'), of: use });
/** A local frame: its origin, its right along a direction, square to a normal. */
const plane = z.strictObject({ ...namedStep, do: z.literal('plane'), origin: use, right: use, normal: use });
/** One of two values of the same type. */
const choose = z.strictObject({
	...namedStep,
	do: z.literal('choose'),
	when: formula,
	then: use,
	otherwise: use
});

export const pointSteps = [
	number,
	pointOnPath,
	middle,
	corner,
	crossing,
	lift,
	shift,
	foot,
	direction,
	normal,
	plane,
	choose
] as const;
