import { z } from 'zod';
import { id } from './identifier';
import { mm } from './numbers';

/** The sides that a model is looked at from, its plan, and its corners from above. */
export const sides = ['south', 'east', 'north', 'west', 'above'] as const;
export const corners = ['south-west', 'south-east', 'north-east', 'north-west'] as const;

/** What a view shows: of the whole model, or of one zone. */
const shownSchema = z.discriminatedUnion('shows', [
	z.strictObject({ shows: z.literal('elevation'), from: z.enum(sides), zone: id.nullable() }),
	z.strictObject({ shows: z.literal('picture'), from: z.enum(corners), zone: id.nullable() }),
	z.strictObject({ shows: z.literal('section'), section: id }),
	/** A face of a zone laid flat: which of its faces, from 1. */
	z.strictObject({ shows: z.literal('unrolled'), zone: id, face: z.int().min(1).max(10_000) })
]);
export type Shown = z.infer<typeof shownSchema>;

/** mm of paper, from the lower left corner of the sheet. */
const place = z.tuple([mm, mm]);

const placedViewSchema = z.strictObject({
	id,
	of: shownSchema,
	/** One to so many. */
	scale: z.int().min(1).max(100_000),
	/** Where its middle lies. */
	at: place
});
export type PlacedView = z.infer<typeof placedViewSchema>;

/** Which way a dimension is measured on the paper. */
export const ways = ['along', 'across', 'up'] as const;

/** Between two points of the model, which it follows: each is the address of a node, as in gull/gull.skin/N/C03/B01. */
const ownDimensionSchema = z.strictObject({
	id,
	view: id,
	from: z.string().max(400),
	to: z.string().max(400),
	way: z.enum(ways),
	/** How far its line lies from its first point, to the left of the way it is measured (mm of paper). */
	off: mm
});
export type OwnDimension = z.infer<typeof ownDimensionSchema>;

const writtenSchema = z.strictObject({ id, text: z.string().trim().min(1).max(400), at: place });

const [MOST_VIEWS, MOST_DIMENSIONS, MOST_WRITTEN] = [24, 400, 100];

/** A sheet whose views are placed by hand. */
export const ownSheetSchema = z.strictObject({
	id,
	title: z.string().trim().min(1).max(120),
	views: z.array(placedViewSchema).max(MOST_VIEWS).default([]),
	dimensions: z.array(ownDimensionSchema).max(MOST_DIMENSIONS).default([]),
	written: z.array(writtenSchema).max(MOST_WRITTEN).default([])
});
export type OwnSheet = z.infer<typeof ownSheetSchema>;
export const MOST_OWN_SHEETS = 200;
