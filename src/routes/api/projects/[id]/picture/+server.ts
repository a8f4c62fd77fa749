import { answer } from '$lib/server/answer';
import { z } from 'zod';
import type { RequestHandler } from './$types';

const pictureSchema = z.strictObject({
	picture: z.string().startsWith('<svg ').max(4_000_000),
	pieces: z.number().int().min(0)
});

export const GET: RequestHandler = ({ locals, params }) =>
	answer(
		async () =>
			new Response(await locals.projects.picture(params.id), {
				headers: {
					'content-type': 'image/svg+xml',
					'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'",
					'cache-control': 'no-cache'
				}
			})
	);

export const PUT: RequestHandler = ({ locals, params, request }) =>
	answer(async () => {
		const { picture, pieces } = pictureSchema.parse(await request.json());
		await locals.projects.setPicture(params.id, picture, pieces);
		return new Response(null, { status: 204 });
	});
