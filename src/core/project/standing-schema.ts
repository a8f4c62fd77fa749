import { z } from 'zod';
import { nodeDriverSchema } from './driver-schema';
import { withGuides } from './field-names';
import { id, text } from './identifier';
import { mm } from './numbers';
import { rimSides } from './line-kinds';

/** How deep a grid lies behind another, positive outward: a formula, or a driver in words. */
export const depthSchema = z.union([withGuides(text), nodeDriverSchema]);
export type LayerDepth = z.infer<typeof depthSchema>;

/** The bars of a web: from node to node behind it, and from node to the node behind its neighbour. */
export const webBars = ['upright', 'diagonal'] as const;
export type WebBar = (typeof webBars)[number];

const count = z.number().int().min(-100_000).max(100_000);

/** What a path runs along. */
const wholeOf = [
	z.strictObject({ is: z.literal('guide'), guide: id }),
	/** A rim of every face of a zone; `trim` along its openings. */
	z.strictObject({ is: z.literal('rim'), of: id, side: z.enum(rimSides).exclude(['face']) }),
	/** A line of a zone's grid, counted from 1; below 0 from the other end. */
	z.strictObject({
		is: z.literal('line'),
		of: id,
		along: z.enum(['course', 'bay']),
		number: count
	})
] as const;

/** What a zone is set out on. */
export const standingSchema = z.discriminatedUnion('is', [
	/** The faces of masses that it names. */
	z.strictObject({ is: z.literal('faces') }),
	/** A grid of its own behind or before the one of another zone, along the normals; it has its own pattern and joint. */
	z.strictObject({
		is: z.literal('layer'),
		of: id,
		depth: depthSchema,
		/** Its nodes lie behind the middles of steps. */
		shifted: z.boolean().default(false)
	}),
	/** Lines between the nodes of two zones of which one is a layer of the other, or both of a third. */
	z.strictObject({
		is: z.literal('web'),
		from: id,
		to: id,
		bars: z.array(z.enum(webBars)).max(webBars.length)
	}),
	/** Stations along a line, divided as bays are, with gaps between them. */
	z.strictObject({
		is: z.literal('path'),
		along: z.discriminatedUnion('is', [...wholeOf]),
		/** Moved along the face's normals, and sideways on the face, to the left of its run. */
		lift: mm.default(0),
		aside: mm.default(0),
		/** Whether what stands on it leans with the face. */
		turned: z.enum(['with the face', 'upright']).default('with the face')
	})
]);
export type Standing = z.infer<typeof standingSchema>;
export type StandingOf<Is extends Standing['is']> = Extract<Standing, { is: Is }>;
