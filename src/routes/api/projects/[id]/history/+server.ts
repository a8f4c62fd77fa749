import { projectParams, revisionText, route } from '$lib/server/route';
import { json } from '@sveltejs/kit';
import { z } from 'zod';

/** Commands before a revision: all of each for undo (oldest first), or who, when and what (newest first). */
const query = z.object({
	before: revisionText.default(2_147_483_647),
	as: z.enum(['commands', 'list']).default('commands')
});

export const GET = route({ params: projectParams, query }, async ({ params, query, locals }) =>
	json(
		query.as === 'list'
			? { entries: await locals.projects.history(params.id, query.before) }
			: { commands: await locals.projects.commands(params.id, query.before) }
	)
);
