import { z } from 'zod';
import { withFields } from '../field-names';
import { identifier } from '../identifier';
import { withRole } from './roles';

/** Names are plain identifiers, so that formulas can use them; formulas are text with units. */
export const formula = withRole(withFields(z.string().min(1).max(400)), 'formula');
/** A name that other values of the part can use. */
export const name = withRole(identifier, 'name');
const note = z.string().max(4000).optional();
export const named = { name, note };
/** By a name that nothing in the part uses. */
export const labelled = { name: withRole(identifier, 'element'), note };
/** A muted step is passed over. */
export const namedStep = { ...named, muted: z.boolean().optional() };
/** The name of another value of the part. */
export const use = withRole(identifier, 'use');
