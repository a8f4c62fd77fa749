import { saveRequestSchema } from '$lib/protocol';
import { projectParams, route } from '$lib/server/route';
import { json } from '@sveltejs/kit';

/** Commands to be carried out once; the answer tells everything since the window's base. */
export const POST = route(
	{ params: projectParams, body: saveRequestSchema },
	async ({ params, body, locals }) => json(await locals.saving.save(params.id, body))
);
