import { projectParams, route } from '$lib/server/route';
import { json } from '@sveltejs/kit';
import { z } from 'zod';

/** A copy of the project as it is, or as it was at a revision. */
const body = z.strictObject({ revision: z.number().int().min(0).max(2_147_483_647).optional() });

export const POST = route({ params: projectParams, body }, async ({ params, body, locals }) =>
	json({ id: await locals.projects.duplicate(params.id, body.revision) }, { status: 201 })
);
