import { z } from 'zod';
import { text } from './identifier';

/** What pieces are called: by their place where nothing is said. */
const MOST_FROZEN = 400_000;

/** How pieces of one kind of site are marked, and in which order their numbers run. */
export const markingSchema = z.strictObject({
	/** Letters and digits, with names of what is known of a piece in round brackets: (zone)-(level)-(number 3). */
	pattern: text,
	/** Course by course, or bay by bay. */
	along: z.enum(['courses', 'bays']).default('courses'),
	from: z.enum(['foot', 'head']).default('foot'),
	side: z.enum(['left', 'right']).default('left')
});
export type Marking = z.infer<typeof markingSchema>;

/** Sites whose pieces can be marked in a way of one's own. */
export const markedSites = ['cell', 'line', 'node'] as const;
export type MarkedSite = (typeof markedSites)[number];

export const marksSchema = z.strictObject({
	cell: markingSchema.nullable().default(null),
	line: markingSchema.nullable().default(null),
	node: markingSchema.nullable().default(null),
	/** Marks that stay as they are: each the address of its piece, a blank, and its mark. Null where none is kept. */
	frozen: z.array(text).max(MOST_FROZEN).nullable().default(null)
});
export type MarksSettings = z.infer<typeof marksSchema>;
