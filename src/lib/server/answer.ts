import { CommandError } from '$core/project/commands';
import { DocumentError } from '$core/project/read';
import { json } from '@sveltejs/kit';
import { ZodError } from 'zod';
import { Conflict, NotFound } from './projects';

/** Run a server route's work and turn the known refusals into their answers, each with a sentence. */
export async function answer(work: () => Promise<Response>): Promise<Response> {
	try {
		return await work();
	} catch (error) {
		if (error instanceof NotFound) return json({ message: error.message }, { status: 404 });
		if (error instanceof Conflict)
			return json({ message: error.message, revision: error.revision, since: error.since }, { status: 409 });
		if (error instanceof CommandError || error instanceof DocumentError)
			return json({ message: error.message }, { status: 422 });
		if (error instanceof ZodError || error instanceof SyntaxError)
			return json({ message: `the request cannot be read: ${error.message}` }, { status: 400 });
		throw error;
	}
}
