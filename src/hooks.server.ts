import { env } from '$env/dynamic/private';
import { connect } from '$lib/server/database';
import { Projects } from '$lib/server/projects';
import type { Handle } from '@sveltejs/kit';
import { building } from '$app/environment';

const db = building ? null : connect(env['DATABASE_URL'] ?? '');
if (db) process.once('sveltekit:shutdown', () => void db.destroy());

export const handle: Handle = async ({ event, resolve }) => {
	if (db) event.locals.projects = new Projects(db);
	return resolve(event);
};
