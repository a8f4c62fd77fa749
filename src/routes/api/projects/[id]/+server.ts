import { projectParams, route } from '$lib/server/route';
import { json } from '@sveltejs/kit';

export const GET = route({ params: projectParams }, async ({ params, locals }) =>
	json(await locals.projects.open(params.id))
);

export const DELETE = route({ params: projectParams }, async ({ params, locals }) => {
	await locals.projects.remove(params.id);
	return new Response(null, { status: 204 });
});
