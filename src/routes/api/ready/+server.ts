import { isUpToDate } from '$lib/server/database';
import { json } from '@sveltejs/kit';
import type { RequestHandler } from './$types';

/** Whether work can be sent here: the database answers and its tables are those of this release. */
export const GET: RequestHandler = async ({ locals }) => {
	const ready = await isUpToDate(locals.db).catch(() => false);
	return json({ ready }, { status: ready ? 200 : 503 });
};
