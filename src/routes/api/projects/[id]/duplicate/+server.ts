import { answer } from '$lib/server/answer';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = ({ locals, params }) =>
	answer(async () => json({ id: await locals.projects.duplicate(params.id) }, { status: 201 }));
