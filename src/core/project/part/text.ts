import { z } from 'zod';
import { withFields } from '../field-names';
import { identifier } from '../identifier';

/** Names are plain identifiers, so that formulas can use them; formulas are text with units. */
export const formula = withFields(z.string().min(1).max(400));
export const named = { name: identifier, note: z.string().max(4000).optional() };
/** A muted step is passed over. */
export const namedStep = { ...named, muted: z.boolean().optional() };
/** The name of another value of the part. */
export const use = identifier;
