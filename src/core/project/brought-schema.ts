import { z } from 'zod';
import { id, identifier, text } from './identifier';
import { stored } from './stored';

/** What is brought in beside forms, for cells to follow: pictures and tables. */

/** Samples of a picture at most, each way. */
export const MOST_SAMPLES = 512;
export const samplesSchema = z.array(z.number().int().min(0).max(255)).max(3 * MOST_SAMPLES * MOST_SAMPLES);

export const views = ['face', 'above', 'north', 'east', 'south', 'west'] as const;
export const channels = ['lightness', 'red', 'green', 'blue'] as const;

export const pictureSchema = z.strictObject({
	id,
	kind: z.literal('picture'),
	name: z.string().min(1).max(120),
	columns: z.number().int().min(1).max(MOST_SAMPLES),
	rows: z.number().int().min(1).max(MOST_SAMPLES),
	/** Red, green, blue of every sample, row by row from the top. */
	samples: stored(samplesSchema),
	/** Laid on the face from its start to its end, or over what is seen from above or from a side. */
	lies: z.enum(views).default('face'),
	reads: z.enum(channels).default('lightness')
});
export type Picture = z.infer<typeof pictureSchema>;

export const MOST_TABLE_ROWS = 200_000;
const MOST_COLUMNS = 60;
/** The name of a cell, then a number for every column, null where there is none. */
export const tableRowsSchema = z
	.array(z.tuple([z.string().max(400)], z.number().nullable()))
	.max(MOST_TABLE_ROWS);

export const tableSchema = z.strictObject({
	id,
	kind: z.literal('table'),
	name: z.string().min(1).max(120),
	/** How its rows name cells. */
	by: z.enum(['mark', 'address']),
	columns: z
		.array(z.strictObject({ id: identifier, label: text }))
		.min(1)
		.max(MOST_COLUMNS),
	rows: stored(tableRowsSchema)
});
export type Table = z.infer<typeof tableSchema>;
