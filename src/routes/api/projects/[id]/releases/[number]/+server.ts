import { projectParams, revisionText, route } from '$lib/server/route';
import { json } from '@sveltejs/kit';

/** The pieces of a release. */
export const GET = route(
	{ params: projectParams.extend({ number: revisionText }) },
	async ({ params, locals }) => json(await locals.releases.pieces(params.id, params.number))
);
