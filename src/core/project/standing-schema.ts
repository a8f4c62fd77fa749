import { z } from 'zod';
import { nodeDriverSchema } from './driver-schema';
import { withGuides } from './field-names';
import { id, text } from './identifier';
import { mm, plain } from './numbers';
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
	z.strictObject({
		is: z.literal('guide'),
		guide: id,
		/** Led towards the faces of a zone: 0 leaves it where it is drawn, 1 lays it on them. */
		towards: z
			.strictObject({
				of: id,
				share: plain.refine((one) => one >= 0 && one <= 1, 'a share from 0 to 1 is accepted')
			})
			.nullable()
			.default(null)
	}),
	/** A rim of every face of a zone; `trim` along its openings. */
	z.strictObject({ is: z.literal('rim'), of: id, side: z.enum(rimSides).exclude(['face']) }),
	/** Where a level plane cuts the faces of a zone: so much above a level, or above nought. */
	z.strictObject({ is: z.literal('section'), of: id, level: id.nullable(), plus: mm.default(0) }),
	/** A line of a zone's grid, counted from 1; below 0 from the other end. */
	z.strictObject({
		is: z.literal('line'),
		of: id,
		along: z.enum(['course', 'bay']),
		number: count
	})
] as const;

/** The nodes that a chain goes through. */
const throughNodes = [
	/** From a node of the grid, by its bay line and course line from 1, and so many bays and courses on to the next. */
	z.strictObject({
		by: z.literal('steps'),
		from: z.tuple([count, count]),
		step: z.tuple([count, count]),
		/** Null: until a rim, or back to the start. */
		most: count.nullable().default(null)
	}),
	/** Nodes by their names on the face, C03/B04, in their order. */
	z.strictObject({ by: z.literal('hand'), nodes: z.array(z.string().max(40)).max(10_000) })
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
		/** Moved the way that stations stand, and to the left of its run. */
		lift: mm.default(0),
		aside: mm.default(0),
		/** Whether what stands on it leans with the face. */
		turned: z.enum(['with the face', 'upright']).default('with the face')
	}),
	/** Chains through the nodes of another zone, and copies of them. */
	z.strictObject({
		is: z.literal('chains'),
		of: id,
		through: z.discriminatedUnion('by', [...throughNodes]),
		/** Turned about an upright axis, so many in all; a full circle is shared equally, or each is turned by an angle. */
		copies: z
			.strictObject({
				count: count,
				by: z.union([z.literal('full circle'), plain]),
				about: z.tuple([mm, mm]),
				mirrored: z.boolean().default(false)
			})
			.nullable()
			.default(null),
		/** Led over and under one another where they cross, by so much from the face; 0: they lie in it. */
		over: mm.default(0)
	})
]);
export type Standing = z.infer<typeof standingSchema>;
export type StandingOf<Is extends Standing['is']> = Extract<Standing, { is: Is }>;
