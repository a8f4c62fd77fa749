import { building, dev } from '$app/environment';
import { env } from '$env/dynamic/private';
import { connect } from '$lib/server/database';
import { Documents } from '$lib/server/documents';
import { StoredFiles } from '$lib/server/files';
import { allowedFrom, RateLimit, refusalOf } from '$lib/server/guard';
import { partnersFrom } from '$lib/server/partners/book';
import { Outbox } from '$lib/server/partners/outbox';
import { Sendings } from '$lib/server/partners/sendings';
import { Papers } from '$lib/server/papers';
import { Projects } from '$lib/server/projects';
import { Releases } from '$lib/server/releases';
import { Saving } from '$lib/server/saving';
import { channel } from 'node:diagnostics_channel';
import type { ServerResponse } from 'node:http';
import { json, type Handle, type HandleServerError } from '@sveltejs/kit';

function open(): App.Locals {
	const db = connect(env['DATABASE_URL'] ?? '');
	const documents = new Documents(db);
	const [files, projects] = [new StoredFiles(db), new Projects(db, documents)];
	const partners = partnersFrom(env);
	const outbox = new Outbox(db, partners);
	outbox.start();
	const papers = new Papers(db, files, env['PAPERS'] || null);
	papers.start();
	process.once(
		'sveltekit:shutdown',
		() => void Promise.all([outbox.stop(), papers.stop()]).finally(() => db.destroy())
	);
	return {
		db,
		files,
		outbox,
		papers,
		projects,
		releases: new Releases(db, projects, files),
		sendings: new Sendings(db, partners),
		saving: new Saving(db, documents)
	};
}
const services = building ? null : open();

const allowed = allowedFrom(env['ORIGIN'] ?? 'http://127.0.0.1:4300', env['ALLOWED_HOSTS']);
/** Far above what a person does, far below what keeps the others from working. */
const rate = new RateLimit(Number(env['MOST_REQUESTS'] ?? 200), Number(env['MOST_REQUESTS'] ?? 200) * 5);

/**
 * Every answer, files of the application too, is of this server alone: pages may then share memory with the threads
 * that compute for them.
 */
channel('http.server.request.start').subscribe((message) => {
	const { response } = message as { response: ServerResponse };
	response.setHeader('cross-origin-opener-policy', 'same-origin');
	response.setHeader('cross-origin-embedder-policy', 'require-corp');
	response.setHeader('cross-origin-resource-policy', 'same-origin');
});

const headers = {
	'x-content-type-options': 'nosniff',
	'referrer-policy': 'same-origin',
	'x-frame-options': 'DENY'
};

export const handle: Handle = async ({ event, resolve }) => {
	const refusal = building ? null : refusalOf(event.request, allowed);
	if (refusal && !(dev && refusal.status === 421))
		return json({ message: refusal.message }, { status: refusal.status, headers });
	if (!building && !rate.admits(event.getClientAddress(), performance.now()))
		return json(
			{ message: 'too many requests; the next is taken in a second' },
			{ status: 429, headers: { ...headers, 'retry-after': '1' } }
		);
	if (services) event.locals = services;
	const response = await resolve(event);
	for (const [name, value] of Object.entries(headers)) response.headers.set(name, value);
	return response;
};

/** What nobody foresaw: in the log with its stack, to the person without. */
export const handleError: HandleServerError = ({ error, status, message }) => {
	if (status !== 404) console.error(error);
	return { message: status === 404 ? message : 'something went wrong on the server; it is in its log' };
};
