import type { Batch, News, PieceAnswer } from '$core/partner/message-schema';
import { MessageError, readAnswer, readNews } from '$core/partner/read-message';
import type { Partner } from '$lib/protocol';

/** More than this nobody has to say (bytes). */
const MOST_BYTES = 4_000_000;
const LONGEST_WAIT_S = 600;

/** The partner has it and looks at it: it is to be asked again. */
export interface Later {
	readonly later: true;
	readonly seconds: number;
}

/** What an answer says, read no further than it may be long. @throws MessageError */
async function textOf(response: Response): Promise<string> {
	const chunks: Uint8Array[] = [];
	let bytes = 0;
	for await (const chunk of response.body ?? []) {
		bytes += chunk.length;
		if (bytes > MOST_BYTES)
			throw new MessageError(`the answer is larger than ${MOST_BYTES / 1e6} MB; the rest was not read`);
		chunks.push(chunk);
	}
	return Buffer.concat(chunks).toString('utf8');
}

/** How long is waited for an answer (ms), and what ends the waiting before. */
export interface Wait {
	readonly ms: number;
	readonly ended: AbortSignal;
}

async function ask(
	address: string,
	{ ms, ended }: Wait,
	init: RequestInit = {}
): Promise<[Response, string]> {
	// Signals that are joined by the platform may be forgotten by it before they are given.
	const giveUp = new AbortController();
	const end = () => giveUp.abort();
	let late = false;
	const timer = setTimeout(() => {
		late = true;
		end();
	}, ms);
	ended.addEventListener('abort', end);
	try {
		// Whoever is asked answers for himself.
		const response = await fetch(address, { ...init, redirect: 'error', signal: giveUp.signal });
		return [response, await textOf(response)];
	} catch (error) {
		if (error instanceof MessageError) throw error;
		throw new MessageError(
			late ? `no answer within ${ms / 1000} s` : 'it cannot be reached, or it broke off'
		);
	} finally {
		clearTimeout(timer);
		ended.removeEventListener('abort', end);
		// What was not read is let go.
		end();
	}
}

function refuse(response: Response, text: string): void {
	if (response.ok) return;
	const said = text.trim().slice(0, 200);
	throw new MessageError(`it answered ${response.status}${said ? `: ${said}` : ''}`);
}

/**
 * Send a batch to a partner.
 * @param key the same however often it is sent
 * @throws MessageError with what is wrong, in a sentence
 */
export async function sendBatch(
	{ address }: Partner,
	key: string,
	batch: Batch,
	wait: Wait
): Promise<readonly PieceAnswer[] | Later> {
	const [response, text] = await ask(`${address}/batches`, wait, {
		method: 'POST',
		headers: { 'content-type': 'application/json', 'idempotency-key': key },
		body: JSON.stringify(batch)
	});
	if (response.status === 202) {
		const asked = Number(response.headers.get('retry-after'));
		return { later: true, seconds: Math.min(LONGEST_WAIT_S, Math.max(1, asked || 1)) };
	}
	refuse(response, text);
	return readAnswer(text, batch);
}

/** What has become of a release since it was asked last. @throws MessageError */
export async function askNews(
	{ address }: Partner,
	project: string,
	release: number,
	from: number,
	wait: Wait
): Promise<News> {
	const query = new URLSearchParams({ project, release: `${release}`, from: `${from}` });
	const [response, text] = await ask(`${address}/news?${query}`, wait);
	refuse(response, text);
	return readNews(text);
}
