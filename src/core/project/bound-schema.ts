import { z } from 'zod';
import { numberKinds } from '../units/dimension';
import { text } from './identifier';

/**
 * A number of the document that follows a formula of named values and levels: its id is the path of the number, which
 * stands there as it was last reckoned.
 */
export const boundSchema = z.strictObject({
	id: z.string().min(1).max(400),
	/** What kind of number is wanted there. */
	kind: z.enum(numberKinds),
	value: text
});
export type Bound = z.infer<typeof boundSchema>;
