import type { Line, Reply } from './sender';

const ANSWER_MS = 10_000;
/** A slow line carries so many bytes in a millisecond; a large request is given its time. */
const SLOW_BYTES_PER_MS = 100;
/** Requests that outlive their window may hold 64 KiB; larger ones go the ordinary way. */
const MOST_KEPT_ALIVE = 60_000;

/** Every write carries this: a page of another site cannot send it without being asked first. */
export const OWN_HEADER = { 'x-zygaster': '1' } as const;

async function ask(url: string, init: RequestInit, bytes: number): Promise<Reply> {
	try {
		const response = await fetch(url, {
			...init,
			signal: AbortSignal.timeout(ANSWER_MS + bytes / SLOW_BYTES_PER_MS)
		});
		const text = await response.text();
		const wait = Number(response.headers.get('retry-after'));
		let body: unknown = null;
		try {
			body = JSON.parse(text);
		} catch {
			// Not ours: the status says what is left to say.
		}
		return {
			kind: 'answer',
			status: response.status,
			body,
			...(wait > 0 && { retryAfter: wait * 1000 })
		};
	} catch {
		return { kind: 'silence' };
	}
}

/** The server over HTTP. */
export function httpLine(project: string): Line {
	return {
		open: () => ask(`/api/projects/${project}`, {}, 0),
		save: (request) =>
			ask(
				`/api/projects/${project}/edits`,
				{
					method: 'POST',
					keepalive: request.length < MOST_KEPT_ALIVE,
					headers: { 'content-type': 'application/json', ...OWN_HEADER },
					body: request
				},
				request.length
			),
		store: (hash, text) =>
			ask(
				`/api/files/${hash}`,
				{ method: 'PUT', headers: { 'content-type': 'application/json', ...OWN_HEADER }, body: text },
				text.length
			)
	};
}
