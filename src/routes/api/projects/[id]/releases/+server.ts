import { MOST_RELEASE_NOTE } from '$lib/protocol';
import { projectParams, route } from '$lib/server/route';
import { json } from '@sveltejs/kit';
import { z } from 'zod';

/** The releases of a project, the newest first. */
export const GET = route({ params: projectParams }, async ({ params, locals }) =>
	json({ releases: await locals.releases.list(params.id, (release) => locals.papers.lacking(release)) })
);

const body = z.strictObject({
	revision: z.number().int().min(0).max(2_147_483_647),
	note: z.string().max(MOST_RELEASE_NOTE).default('')
});

/** Release it as it stands at a revision. */
export const POST = route({ params: projectParams, body }, async ({ params, body, locals }) => {
	const number = await locals.releases.make(params.id, body.revision, body.note);
	locals.papers.wake();
	return json({ number }, { status: 201 });
});
