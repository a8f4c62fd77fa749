import { projectParams, route } from '$lib/server/route';
import { z } from 'zod';

const body = z.strictObject({
	picture: z.string().startsWith('<svg ').max(1_500_000),
	pieces: z.number().int().min(0).max(2_147_483_647)
});

/** Served as the drawing it is: nothing in it runs or is fetched, wherever it is opened. */
export const GET = route(
	{ params: projectParams },
	async ({ params, locals }) =>
		new Response(await locals.projects.picture(params.id), {
			headers: {
				'content-type': 'image/svg+xml; charset=utf-8',
				'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; sandbox",
				'content-disposition': 'inline; filename="picture.svg"',
				'cache-control': 'no-cache'
			}
		})
);

export const PUT = route({ params: projectParams, body }, async ({ params, body, locals }) => {
	await locals.projects.setPicture(params.id, body.picture, body.pieces);
	return new Response(null, { status: 204 });
});
