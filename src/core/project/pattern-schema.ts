import { z } from 'zod';
import { id } from './identifier';

/** How the nodes of a grid are joined to cells. Lattice coordinates count bays and courses; lengths in mm. */

const lattice = z.tuple([z.number(), z.number()]);

/** A tile drawn by the designer: polygons over a lattice of dots, each in a slot with a name. */
export const tileSchema = z.strictObject({
	id,
	name: z.string().trim().min(1).max(60),
	across: z.number(),
	up: z.number(),
	polygons: z.array(z.strictObject({ slot: z.string().trim().min(1).max(40), points: z.array(lattice) }))
});
export type TileDefinition = z.infer<typeof tileSchema>;

/** Patterns without values of their own. */
export const plainPatterns = [
	'rectangles',
	'diamonds',
	'herringbone',
	'basket weave',
	'truncated square',
	'trihexagonal',
	'snub square',
	'rhombille',
	'cairo',
	'tetrakis square'
] as const;
const kinds = plainPatterns.map((kind) => z.strictObject({ kind: z.literal(kind) }));

export const patternSchema = z.discriminatedUnion('kind', [
	...(kinds as [(typeof kinds)[number], ...(typeof kinds)[number][]]),
	z.strictObject({
		kind: z.literal('triangles'),
		diagonal: z.enum(['rising', 'falling', 'alternating', 'shorter']).default('rising')
	}),
	z.strictObject({ kind: z.literal('hexagons'), sides: z.enum(['upright', 'level']).default('upright') }),
	z.strictObject({
		kind: z.literal('running bond'),
		/** In bays. */
		offset: z.number().default(0.5),
		way: z.enum(['back and forth', 'onward']).default('back and forth')
	}),
	/** Course lines that rise and fall: over so many bays, by so many courses from foot to crest. */
	z.strictObject({
		kind: z.literal('undulating'),
		bays: z.number().default(8),
		rise: z.number().default(0.8)
	}),
	z.strictObject({ kind: z.literal('tile'), tile: id }),
	z.strictObject({
		kind: z.literal('random splits'),
		seed: z.number().int().default(1),
		smallest: z.number().default(600),
		/** Chance 0 to 1 that a rectangle is split once more. */
		often: z.number().default(0.6),
		along: z.enum(['across', 'up', 'both']).default('both')
	}),
	z.strictObject({
		kind: z.literal('voronoi'),
		seed: z.number().int().default(1),
		count: z.number().default(120),
		/** How often cells are moved to their own middles. */
		evening: z.number().default(2),
		/** Edges shorter than this are taken out. */
		smallest: z.number().default(150),
		/** Left open round every cell. */
		margin: z.number().default(0),
		/** Cells shrink and round near a guide: by so much of their size, up to so far from it. */
		near: z
			.strictObject({ guide: id, shrink: z.number(), round: z.number(), reach: z.number() })
			.nullable()
			.default(null)
	})
]);
export type PatternChoice = z.infer<typeof patternSchema>;
export type PatternOf<K extends PatternChoice['kind']> = Extract<PatternChoice, { kind: K }>;
