import { z } from 'zod';
import { id } from './identifier';

const MOST_MEMBERS = 5000;

/** Masses and zones that are worked on together; ids of what is not there any more count for nothing. */
export const groupSchema = z.strictObject({
	id,
	name: z.string().trim().min(1).max(120),
	masses: z.array(id).max(MOST_MEMBERS).default([]),
	zones: z.array(id).max(MOST_MEMBERS).default([])
});
export type Group = z.infer<typeof groupSchema>;
