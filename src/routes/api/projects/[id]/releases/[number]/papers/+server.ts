import { projectParams, revisionText, route } from '$lib/server/route';

/** Try once more to write what a release lacks. */
export const POST = route(
	{ params: projectParams.extend({ number: revisionText }) },
	async ({ params, locals }) => {
		await locals.papers.again(params.id, params.number);
		return new Response(null, { status: 202 });
	}
);
