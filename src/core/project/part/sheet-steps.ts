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

export const sheetSteps = [flat, fan, ruled, band, bowed] as const;
