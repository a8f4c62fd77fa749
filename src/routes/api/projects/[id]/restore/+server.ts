import { answer } from '$lib/server/answer';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = ({ locals, params }) =>
	answer(async () => {
		await locals.projects.restore(params.id);
		return new Response(null, { status: 204 });
	});
