import { answer } from '$lib/server/answer';
import { editsRequestSchema } from '$lib/server/projects';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** Commands under the revision they were made on; 409 with what came meanwhile. */
export const POST: RequestHandler = ({ locals, params, request }) =>
	answer(async () => {
		const edits = editsRequestSchema.parse(await request.json());
		return json({ revision: await locals.projects.save(params.id, edits) });
	});
