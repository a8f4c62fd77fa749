import { answer } from '$lib/server/answer';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ locals, params }) =>
	answer(async () => json(await locals.projects.open(params.id)));

export const DELETE: RequestHandler = ({ locals, params }) =>
	answer(async () => {
		await locals.projects.remove(params.id);
		return new Response(null, { status: 204 });
	});
