import { z } from 'zod';
import { id } from './identifier';
import { mm } from './numbers';

/** Numbers of one face: five for each of its nodes. */
const MOST_NUMBERS = 5_000_000;
const MOST_FACES = 5000;
const MOST_KINDS = 100_000;

/** What nodes are moved for. */
export const moveAims = ['flat', 'conical', 'translation', 'alike', 'survey'] as const;
export type MoveAim = (typeof moveAims)[number];

const movedFaceSchema = z.strictObject({
	/** The face, as addresses begin. */
	face: z.string().max(400),
	/** Bays and courses that it had: with others the moves mean nothing. */
	steps: z.tuple([z.number().int(), z.number().int()]),
	/** All coordinates of its nodes added up before they were moved (mm): with another sum the face is another one. */
	sum: z.number(),
	/** Course and bay of a node, counted from 1, and how far it is moved along x, y and z (mm); node after node. */
	nodes: z.array(z.number()).max(MOST_NUMBERS)
});
export type MovedFace = z.infer<typeof movedFaceSchema>;

/** Nodes moved after they are set out, so that cells come out better. They are found when that is asked for, and kept. */
export const movesSchema = z.strictObject({
	id,
	muted: z.boolean().default(false),
	/**
	 * Cells that are flat; flat, and so that what stands on their lines meets at every node at one depth; parallelograms; or
	 * as few different ones as can be; or nodes stand where they were measured.
	 */
	aim: z.enum(moveAims),
	/** No node goes further. */
	most: mm.default(20),
	/** What counts as flat. */
	within: mm.default(1),
	/** How many kinds there are to be; null for as few as can be. */
	kinds: z.number().int().min(-MOST_KINDS).max(MOST_KINDS).nullable().default(null),
	/** What stays where it is: the nodes on rims, the heights of those at levels, the nodes around openings. */
	keeps: z
		.strictObject({
			rims: z.boolean().default(true),
			levels: z.boolean().default(false),
			openings: z.boolean().default(true)
		})
		.prefault({}),
	faces: z.array(movedFaceSchema).max(MOST_FACES).default([])
});
export type Moves = z.infer<typeof movesSchema>;
