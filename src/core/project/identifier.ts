import { z } from 'zod';

/** The id of a thing of the document. */
export const id = z
	.string()
	.max(120)
	.regex(/^[a-z][a-z0-9-]*$/, 'an id is lower-case letters, digits and -, starting with a letter');

/** A name that formulas can use. */
export const identifier = z
	.string()
	.max(120)
	.regex(/^[a-z][a-z0-9_]*$/, 'a name is lower-case letters, digits and _, starting with a letter');

/** Names of faces and files, choices, formulas: what uses them says what it can be. */
export const text = z.string().max(4000);
