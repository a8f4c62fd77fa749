import { z } from 'zod';
import { mm } from '../numbers';
import { formula, namedStep, use } from './text';

const side = z.enum(['in', 'out', 'both']);
const plate = z.strictObject({
	...namedStep,
	do: z.literal('plate'),
	ring: use,
	/** A ring that is left open, or several; also rings gathered of all turns of a group. */
	opening: z.union([use, z.array(use).min(1)]).optional(),
	thickness: formula,
	side,
	/** Directions of its corners, so that it meets the plates beside it along them; its own normal when left out. */
	along: use.optional()
});
const band = z.strictObject({
	...namedStep,
	do: z.literal('band'),
	outer: use,
	inner: use,
	/** Depth behind the rings, along the outer one's normal. */
	depth: formula
});

export const profileSchema = z.discriminatedUnion('shape', [
	z.strictObject({ shape: z.literal('box'), width: formula, depth: formula }),
	z.strictObject({ shape: z.literal('tube'), width: formula, depth: formula, wall: formula }),
	z.strictObject({ shape: z.literal('round'), diameter: formula, wall: formula.optional() }),
	z.strictObject({ shape: z.literal('angle'), width: formula, depth: formula, wall: formula }),
	z.strictObject({ shape: z.literal('tee'), width: formula, depth: formula, wall: formula }),
	z.strictObject({ shape: z.literal('blade'), thickness: formula, depth: formula }),
	/** Corners in mm, anticlockwise: across, and along the depth. */
	z.strictObject({
		shape: z.literal('own'),
		outline: z
			.array(z.tuple([mm, mm]))
			.min(3)
			.max(1000)
	})
]);
export type Profile = z.infer<typeof profileSchema>;

const bar = z.strictObject({
	...namedStep,
	do: z.literal('bar'),
	/** A path, or a ring for bars all round. */
	path: use,
	profile: profileSchema,
	/** The direction that the depth points to. */
	facing: use,
	/** Which side of the path the section stands: its middle, wholly behind it or before it. */
	placed: z.enum(['middle', 'behind', 'before']).default('middle'),
	/** One bar for each straight piece, cut at the bisector; or one that bends with the path. */
	joints: z.enum(['mitred', 'swept']).default('mitred'),
	turn: formula.optional(),
	/** Taken from the ends of an open path; negative to extend it. */
	start_setback: formula.optional(),
	end_setback: formula.optional()
});
/** From a ring to a point. */
const pyramid = z.strictObject({ ...namedStep, do: z.literal('pyramid'), ring: use, to: use });
/** Between two rings of as many corners. */
const body = z.strictObject({ ...namedStep, do: z.literal('body'), foot: use, head: use });
/** A sheet given a thickness: whole along one direction, or each of its facets along its own normal. */
const thicken = z.strictObject({
	...namedStep,
	do: z.literal('thicken'),
	sheet: use,
	thickness: formula,
	side,
	along: use.optional()
});
const sphere = z.strictObject({ ...namedStep, do: z.literal('sphere'), centre: use, diameter: formula });
/** One smooth body of round arms that leave a point, flat at their ends. */
const joinedTubes = z.strictObject({
	...namedStep,
	do: z.literal('joined tubes'),
	centre: use,
	/** Where the arms go. */
	ways: use,
	/** Lengths gathered, one for each arm; or one length for all. */
	diameters: use,
	/** From the point to the arms' ends. */
	reach: formula,
	/** The radius of the hollow between two arms that are square to each other. */
	fillet: formula
});

export const solidSteps = [plate, band, bar, pyramid, body, thicken, sphere, joinedTubes] as const;
