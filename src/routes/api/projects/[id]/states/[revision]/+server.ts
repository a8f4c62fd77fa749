import { projectParams, revisionText, route } from '$lib/server/route';
import { json } from '@sveltejs/kit';

/** The document as it was. */
export const GET = route(
	{ params: projectParams.extend({ revision: revisionText }) },
	async ({ params, locals }) =>
		json({
			revision: params.revision,
			document: await locals.projects.state(params.id, params.revision)
		})
);
