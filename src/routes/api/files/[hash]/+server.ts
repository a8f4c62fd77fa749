import { fileHash } from '$core/project/stored';
import { route } from '$lib/server/route';
import { z } from 'zod';

const params = z.object({ hash: fileHash });

/** A file never changes: whoever has it need not ask again. */
export const GET = route(
	{ params },
	async ({ params, locals }) =>
		new Response(await locals.files.text(params.hash), {
			headers: {
				'content-type': 'application/json',
				'cache-control': 'private, max-age=31536000, immutable'
			}
		})
);

export const PUT = route({ params, body: z.unknown() }, async ({ params, body, locals }) => {
	await locals.files.put(params.hash, body);
	return new Response(null, { status: 204 });
});
