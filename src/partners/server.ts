import { once } from 'node:events';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Answer } from '$core/partner/message-schema';
import { NotTaken, type Inbox } from './inbox';
import { page, troublePage } from './page';
import { draw, troubles, type Mood, type Trouble } from './troubles';

const MOST_BYTES = 8_000_000;
const HUGE_BYTES = 50_000_000;
const SLOW_MS = 3000;
const MAIN_LINKS = '<a href="/">Look again</a><a href="/troubles">What goes wrong here</a>';

/** One partner: what it is called, what it says to messages, and what else can be asked of it. */
export interface PartnerProgram {
	readonly name: string;
	readonly inbox: Inbox;
	mood: Mood;
	/** How slow it is when it is slow (ms). */
	readonly slow?: number;
	/** What its page tells, as HTML. */
	body(): string;
	/** Anything asked besides. @returns null where there is no such thing */
	read?(url: URL): object | null;
	/** A button of its page. */
	press?(form: URLSearchParams): void;
}

async function textOf(request: IncomingMessage): Promise<string> {
	const chunks: Buffer[] = [];
	let bytes = 0;
	for await (const chunk of request as AsyncIterable<Buffer>) {
		bytes += chunk.length;
		if (bytes > MOST_BYTES) throw new NotTaken(413, `a message has ${MOST_BYTES / 1e6} MB at most`);
		chunks.push(chunk);
	}
	return Buffer.concat(chunks).toString('utf8');
}

function send(response: ServerResponse, status: number, type: string, text: string): void {
	response.writeHead(status, {
		'content-type': `${type}; charset=utf-8`,
		'x-content-type-options': 'nosniff',
		'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; form-action 'self'"
	});
	response.end(text);
}
const sendJson = (response: ServerResponse, value: object, status = 200) =>
	send(response, status, 'application/json', JSON.stringify(value));

/** Much of nothing, for as long as somebody reads it. */
async function sendHuge(response: ServerResponse): Promise<void> {
	const chunk = Buffer.alloc(1_000_000, '[');
	response.writeHead(200, { 'content-type': 'application/json' });
	for (let sent = 0; sent < HUGE_BYTES && !response.destroyed; sent += chunk.length)
		if (!response.write(chunk))
			await Promise.race([once(response, 'drain'), once(response, 'close')]).catch(() => undefined);
	response.end();
}

/** An answer as it leaves a partner with which something is wrong. */
function spoilt(answer: Answer, trouble: Trouble | null): object {
	if (trouble === 'twice') return { ...answer, pieces: answer.pieces.flatMap((piece) => [piece, piece]) };
	if (trouble === 'another') return { ...answer, batch: answer.batch + 1 };
	if (trouble === 'half') return { ...answer, pieces: answer.pieces.slice(answer.pieces.length / 2) };
	return answer;
}

async function takeBatch(
	program: PartnerProgram,
	request: IncomingMessage,
	response: ServerResponse
): Promise<void> {
	const { inbox, mood, slow = SLOW_MS } = program;
	const text = await textOf(request);
	const key = request.headers['idempotency-key'] as string | undefined;
	const trouble = draw(mood);
	if (trouble === 'lost') return void request.socket.destroy();
	if (trouble === 'error') return send(response, 500, 'text/plain', 'something went wrong here');
	const isNew = !key || !inbox.has(key);
	const { answer } = inbox.take(key, text);
	if (trouble === 'silent') return;
	if (trouble === 'broken') return send(response, 500, 'text/plain', 'taken, and then something went wrong');
	if (trouble === 'nonsense') return send(response, 200, 'text/html', '<p>Welcome to our new portal!</p>');
	if (trouble === 'huge') return sendHuge(response);
	if (trouble === 'later' && isNew) {
		response.setHeader('retry-after', '1');
		return sendJson(response, { later: true }, 202);
	}
	if (trouble === 'slow') await new Promise((resolve) => setTimeout(resolve, slow));
	sendJson(response, spoilt(answer, trouble));
}

/** Only forms of its own page change it. */
async function formOf(request: IncomingMessage): Promise<URLSearchParams> {
	const { origin, host } = request.headers;
	if (origin !== `http://${host}`) throw new NotTaken(403, 'only the page of this partner may do that');
	return new URLSearchParams(await textOf(request));
}

async function answer(
	program: PartnerProgram,
	request: IncomingMessage,
	response: ServerResponse
): Promise<void> {
	const url = new URL(request.url ?? '/', 'http://partner');
	const asked = `${request.method} ${url.pathname}`;
	if (asked === 'POST /batches') return takeBatch(program, request, response);
	if (asked === 'GET /')
		return send(response, 200, 'text/html', page(program.name, program.body(), MAIN_LINKS));
	if (asked === 'GET /troubles')
		return send(
			response,
			200,
			'text/html',
			page(program.name, troublePage(program.mood), '<a href="/">Back</a>')
		);
	if (asked === 'POST /troubles') {
		const form = await formOf(request);
		program.mood = {
			share: Math.min(1, Math.max(0, Number(form.get('share')) / 100 || 0)),
			kinds: (Object.keys(troubles) as Trouble[]).filter((one) => form.has(one))
		};
	} else if (asked === 'POST /' && program.press) program.press(await formOf(request));
	else {
		const read = request.method === 'GET' ? (program.read?.(url) ?? null) : null;
		if (!read) throw new NotTaken(404, 'there is no such thing here');
		return sendJson(response, read);
	}
	response.writeHead(303, { location: '/' }).end();
}

/**
 * Serve a partner on loopback.
 * @param port 0 for one that is free
 * @returns where it answers, once it does
 */
export async function servePartner(
	program: PartnerProgram,
	port: number
): Promise<{ readonly address: string; readonly server: Server }> {
	const server = createServer((request, response) => {
		answer(program, request, response).catch((error: unknown) => {
			if (response.headersSent || response.destroyed) return;
			if (error instanceof NotTaken) return send(response, error.status, 'text/plain', error.message);
			console.error(error);
			send(response, 500, 'text/plain', 'something went wrong here');
		});
	});
	server.listen(port, '127.0.0.1');
	await once(server, 'listening');
	return { address: `http://127.0.0.1:${(server.address() as AddressInfo).port}`, server };
}
