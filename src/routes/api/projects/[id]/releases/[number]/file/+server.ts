import { projectParams, revisionText, route } from '$lib/server/route';
import { json } from '@sveltejs/kit';

/** A release as a file for partners: docs/release-format.md. */
export const GET = route(
	{ params: projectParams.extend({ number: revisionText }) },
	async ({ params, locals }) =>
		json(await locals.releases.file(params.id, params.number), {
			headers: { 'content-disposition': `attachment; filename="release-${params.number}.json"` }
		})
);
