import { z } from 'zod';

/** A number of a piece, where it has one. */
const number = z.number().nullable();

/**
 * A release as a file: what partners read. Lengths in mm, areas in mm², angles in rad, masses in kg, points x y z in mm
 * with z up.
 */
export const releaseFileSchema = z.strictObject({
	format: z.literal('zygaster release'),
	version: z.literal(1),
	/** Whose release it is: the id is the project's own, for good. */
	project: z.strictObject({ id: z.uuid(), name: z.string() }),
	/** Counts the project's releases from 1. */
	number: z.number().int().min(1),
	/** ISO 8601, UTC. */
	at: z.iso.datetime(),
	note: z.string(),
	pieces: z.array(
		z.strictObject({
			/** For good: what changes of a piece is told under it from release to release. */
			address: z.string(),
			mark: z.string(),
			list: z.enum(['panels', 'louvers', 'bars', 'connectors', 'structure']),
			part: z.string(),
			variant: z.string(),
			kind: z.string(),
			/** Names of what it is made of, in the order of its elements. */
			materials: z.array(z.string()),
			area: number,
			length: number,
			long_side: number,
			short_side: number,
			smallest_angle: number,
			mass: number,
			/** What it is placed by, in its order. */
			anchors: z.array(z.tuple([z.number(), z.number(), z.number()]))
		})
	)
});
export type ReleaseFile = z.infer<typeof releaseFileSchema>;

/**
 * Its structure as JSON Schema, for other programs.
 *
 * ```ts
 * const text = JSON.stringify(releaseFileStructure());
 * ```
 */
export const releaseFileStructure = (): object => z.toJSONSchema(releaseFileSchema);
