import { z } from 'zod';
import { placeDriverSchema } from './driver-schema';
import { id } from './identifier';
import { mm, plain } from './numbers';

/** How the nodes of a grid are joined to cells. Lattice coordinates count bays and courses; lengths in mm. */

/** Polygons of one tile, and corners of one polygon. */
const MOST_POLYGONS = 300;
const MOST_CORNERS = 200;
const seed = z.number().int().min(-1e9).max(1e9);

const lattice = z.tuple([plain, plain]);

/** The web between scattered cells as one sheet for the face or for each panel of so many bays and courses. */
const sheetSchema = z.strictObject({
	per: z.union([z.literal('face'), z.strictObject({ bays: plain, courses: plain })]).default('face'),
	/** Left without openings along its rim. */
	plain: mm.default(60),
	/** What becomes of openings that reach into its plain rim. */
	crossing: z.enum(['cut', 'left out']).default('cut')
});
export type SheetChoice = z.infer<typeof sheetSchema>;

/** A tile drawn by the designer: polygons over a lattice of dots, each in a slot with a name. */
export const tileSchema = z.strictObject({
	id,
	name: z.string().trim().min(1).max(60),
	across: plain,
	up: plain,
	polygons: z
		.array(
			z.strictObject({
				slot: z.string().trim().min(1).max(40),
				points: z.array(lattice).max(MOST_CORNERS)
			})
		)
		.max(MOST_POLYGONS, `a tile has at most ${MOST_POLYGONS} polygons`)
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
		offset: plain.default(0.5),
		way: z.enum(['back and forth', 'onward']).default('back and forth')
	}),
	/** Course lines that rise and fall: over so many bays, by so many courses from foot to crest. */
	z.strictObject({
		kind: z.literal('undulating'),
		bays: plain.default(8),
		rise: plain.default(0.8)
	}),
	z.strictObject({ kind: z.literal('tile'), tile: id }),
	z.strictObject({
		kind: z.literal('random splits'),
		seed: seed.default(1),
		smallest: mm.default(600),
		/** Chance 0 to 1 that a rectangle is split once more. */
		often: plain.default(0.6),
		along: z.enum(['across', 'up', 'both']).default('both')
	}),
	z.strictObject({
		kind: z.literal('voronoi'),
		seed: seed.default(1),
		count: plain.default(120),
		/** How often cells are moved to their own middles. */
		evening: plain.default(2),
		/** Edges shorter than this are taken out. */
		smallest: mm.default(150),
		/** Left open round every cell. */
		margin: mm.default(0),
		/**
		 * Near a guide cells shrink and round, or are laid larger from the first: by so much of their size, up to so far
		 * from it.
		 */
		near: z
			.strictObject({ guide: id, shrink: plain, grow: plain.default(0), round: plain, reach: mm })
			.nullable()
			.default(null),
		/** Of every cell, a share of its own size; what comes to nothing is left out. */
		size: z.union([plain, placeDriverSchema]).default(1),
		sheet: sheetSchema.nullable().default(null)
	})
]);
export type PatternChoice = z.infer<typeof patternSchema>;
export type PatternOf<K extends PatternChoice['kind']> = Extract<PatternChoice, { kind: K }>;
