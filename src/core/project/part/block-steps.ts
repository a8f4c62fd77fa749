import { z } from 'zod';
import { plain } from '../numbers';
import { stored } from '../stored';
import { formula, namedStep, use } from './text';

/**
 * Blocks: solids in a unit box, x across, y up and z outward, each 0 to 1, and what is made of them. Lengths are
 * shares of the box; a block is fitted into the space between two rings.
 */
const place = z.tuple([formula, formula, formula]);
const axis = z.enum(['across', 'up', 'out']);

const box = z.strictObject({ ...namedStep, do: z.literal('block box'), from: place, to: place });
const sphere = z.strictObject({
	...namedStep,
	do: z.literal('block sphere'),
	centre: place,
	radius: formula
});
/** Its middle by the two other coordinates, in their order. */
const cylinder = z.strictObject({
	...namedStep,
	do: z.literal('block cylinder'),
	axis,
	middle: z.tuple([formula, formula]),
	radius: formula,
	low: formula,
	high: formula
});
/** An outline swept along an axis; its corners by the two other coordinates, in their order, as shares. */
const outline = z.strictObject({
	...namedStep,
	do: z.literal('block outline'),
	axis,
	outline: z
		.array(z.tuple([plain, plain]))
		.min(3)
		.max(1000),
	low: formula,
	high: formula
});
export const MOST_TRIANGLES = 5000;
export const verticesSchema = z.array(plain).max(9 * MOST_TRIANGLES);
export const trianglesSchema = z
	.array(
		z
			.number()
			.int()
			.min(0)
			.max(3 * MOST_TRIANGLES)
	)
	.max(3 * MOST_TRIANGLES, `a block has at most ${MOST_TRIANGLES} triangles`);
const broughtIn = {
	/** What it was read from. */
	source: z.string().max(120).default(''),
	vertices: stored(verticesSchema),
	triangles: stored(trianglesSchema)
};
/** A closed mesh that was brought in, brought to the unit box. */
const mesh = z.strictObject({ ...namedStep, do: z.literal('block mesh'), ...broughtIn });
/** An open one with a thickness, even in the box it was drawn in. */
const sheet = z.strictObject({
	...namedStep,
	do: z.literal('block sheet'),
	...broughtIn,
	/** Sizes of that box, in any unit. */
	sizes: z.tuple([plain, plain, plain]).default([1, 1, 1]),
	/** As a share of the largest of them. */
	thickness: formula
});
const union = z.strictObject({
	...namedStep,
	do: z.literal('block union'),
	of: z.array(use).min(1).max(200)
});
const intersection = z.strictObject({
	...namedStep,
	do: z.literal('block intersection'),
	of: z.array(use).min(1).max(200)
});
const difference = z.strictObject({
	...namedStep,
	do: z.literal('block difference'),
	whole: use,
	less: z.array(use).min(1).max(200)
});
/** Into the space between two rings of four; whichever lies behind is its inside. */
const fit = z.strictObject({
	...namedStep,
	do: z.literal('fit block'),
	block: use,
	first: use,
	second: use,
	/** Quarter turns about the outward axis. */
	turns: formula.default('0'),
	/** Whether it is turned over, its outside inside. */
	flip: formula.default('false'),
	/** Whether left and right are exchanged. */
	mirror: formula.default('false')
});

export const blockSteps = [
	box,
	sphere,
	cylinder,
	outline,
	mesh,
	sheet,
	union,
	intersection,
	difference,
	fit
] as const;
