import { z } from 'zod';
import { id, identifier, text } from './identifier';
import { plain, squareMm } from './numbers';

/** How schedules are read: layouts that were kept, and columns of a project's own. Nothing of it changes what is built. */
const name = z.string().trim().min(1).max(120);
const MOST_LAYOUTS = 500;
const MOST_COLUMNS = 200;
const MOST_ROWS = 200_000;

/** The lists that there are. */
export const scheduleNames = [
	'panels',
	'bars',
	'connectors',
	'louvers',
	'blades',
	'structure',
	'elements',
	'kinds',
	'materials',
	'rules',
	'lengths',
	'sheets',
	'anchors',
	'nodes'
] as const;
export type ScheduleName = (typeof scheduleNames)[number];

const key = z.string().min(1).max(200);
const keys = z.array(key).max(MOST_COLUMNS);

export const filterSchema = z.strictObject({
	key,
	is: z.enum(['equal', 'contains', 'at least', 'at most']),
	/** Numbers in kernel units: mm, rad, kg. */
	value: z.union([squareMm, text])
});
export type Filter = z.infer<typeof filterSchema>;

export const layoutSchema = z.strictObject({
	id,
	name,
	list: z.enum(scheduleNames),
	/** Keys of the columns that are shown; null for those it opens on. */
	columns: keys.nullable().default(null),
	/** Keys of the columns that are summed; null for all that can be. */
	totals: keys.nullable().default(null),
	groupBy: key.nullable().default(null),
	sort: z.strictObject({ key, descending: z.boolean() }).nullable().default(null),
	/** All of them have to hold. */
	filters: z.array(filterSchema).max(MOST_COLUMNS).default([])
});
export type Layout = z.infer<typeof layoutSchema>;

/** What fills a column: reckoned of others, written by hand row by row, or looked up in a table that was brought in. */
const filledBy = z.discriminatedUnion('is', [
	z.strictObject({ is: z.literal('formula'), formula: text }),
	z.strictObject({
		is: z.literal('hand'),
		holds: z.enum(['text', 'number']).default('text'),
		/** By the address of the row's piece; of elements with their number behind it. */
		values: z
			.array(z.strictObject({ id: text, value: z.union([plain, text]) }))
			.max(MOST_ROWS)
			.default([])
	}),
	z.strictObject({ is: z.literal('table'), table: id, column: identifier })
]);

export const ownColumnSchema = z.strictObject({
	/** Formulas of columns after it know it by this. */
	id: identifier,
	title: name,
	list: z.enum(scheduleNames),
	by: filledBy
});
export type OwnColumn = z.infer<typeof ownColumnSchema>;

export const schedulesSchema = z.strictObject({
	layouts: z.array(layoutSchema).max(MOST_LAYOUTS).default([]),
	columns: z.array(ownColumnSchema).max(MOST_COLUMNS).default([])
});
