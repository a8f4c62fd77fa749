import { z } from 'zod';
import { formula, namedStep, use } from './text';

/** The face of a ring: from its first corner, or as one that bows along its diagonals. */
const flat = z.strictObject({ ...namedStep, do: z.literal('flat sheet'), ring: use });
const fan = z.strictObject({ ...namedStep, do: z.literal('fan sheet'), ring: use, to: use });
const ruled = z.strictObject({ ...namedStep, do: z.literal('ruled sheet'), first: use, second: use });
const band = z.strictObject({ ...namedStep, do: z.literal('band sheet'), outer: use, inner: use });
/** Between four corners, raised in the middle. */
const bowed = z.strictObject({
	...namedStep,
	do: z.literal('bowed sheet'),
	ring: use,
	rise: formula,
	along: use,
	/** Steps each way. */
	pieces: z.number().int().min(2).max(24).default(6)
});

/** The cell itself, as it follows its face, without the openings there are in it. */
const pierced = z.strictObject({
	...namedStep,
	do: z.literal('pierced sheet'),
	thickness: formula,
	/** How far its outer side lies outside the grid. */
	out: formula.default('0 mm'),
	/** Left open along its rim. */
	joint: formula.default('0 mm')
});

export const sheetSteps = [flat, fan, ruled, band, bowed, pierced] as const;
