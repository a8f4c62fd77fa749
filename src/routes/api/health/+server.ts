import { json } from '@sveltejs/kit';
import { sql } from 'kysely';
import type { RequestHandler } from './$types';

/** Whether this server and its database answer. */
export const GET: RequestHandler = async ({ locals }) => {
	try {
		await sql`select 1`.execute(locals.db);
		return json({ server: 'ok', database: 'ok' });
	} catch (error) {
		return json(
			{ server: 'ok', database: error instanceof Error ? error.message : 'no answer' },
			{ status: 503, headers: { 'retry-after': '2' } }
		);
	}
};
