import { projectParams, route } from '$lib/server/route';
import { json } from '@sveltejs/kit';

/** The partners of this server, and how far the releases of a project have come with them. */
export const GET = route({ params: projectParams }, async ({ params, locals: { sendings } }) =>
	json({ partners: sendings.partners, sendings: await sendings.list(params.id) })
);
