import { projectParams, route } from '$lib/server/route';

/** Bring a deleted project back. */
export const POST = route({ params: projectParams }, async ({ params, locals }) => {
	await locals.projects.restore(params.id);
	return new Response(null, { status: 204 });
});
