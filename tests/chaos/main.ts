/**
 * npm run chaos -- --minutes 5: windows that work, a line that drops what is said, servers, databases and starters that
 * are killed and started again. In the end the document is the model's and the history is whole.
 */
import { chmodSync, mkdtempSync, rmSync } from 'node:fs';
import { request as httpRequest } from 'node:http';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { freePort } from '../../scripts/lib/processes.mjs';
import { data } from '../../scripts/lib/system.mjs';
import { hashOf } from '../../src/core/project/hash';
import type { SentCommand } from '../../src/core/project/log';
import type { OpenedProject, SavedCommand } from '../../src/lib/protocol';
import type { Reply } from '../../src/lib/saving/sender';
import { idsFrom, randomFrom, START } from '../saving/wardrobe';
import { checkDay, doSomething, quiet, TestWindow, type TestServer } from '../saving/windows';
import { Installation } from './installation';
import { lossyProxy } from './proxy';

const { values } = parseArgs({
	options: {
		minutes: { type: 'string', default: '5' },
		windows: { type: 'string', default: '6' },
		seed: { type: 'string', default: String(Date.now() % 1_000_000) }
	}
});
const minutes = Number(values.minutes);
const random = randomFrom(Number(values.seed));
const sleep = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
/** A time about so long, never the same. */
const about = (ms: number) => ms * (0.5 + random());

const folder = mkdtempSync(join(data, 'chaos-'));
// PostgreSQL runs as a user of its own.
chmodSync(folder, 0o711);
const port = await freePort();
const installation = new Installation(folder, port);
const proxy = await lossyProxy(() => port, random);
let through = proxy.port;

/** Ask over the lossy line; its host is the server's own, so that the server knows it. */
function ask(method: string, path: string, body?: unknown): Promise<Reply> {
	return new Promise((resolve) => {
		const silence = () => resolve({ kind: 'silence' });
		const request = httpRequest(
			{
				host: '127.0.0.1',
				port: through,
				method,
				path,
				agent: false,
				timeout: 10_000,
				headers: { host: `127.0.0.1:${port}`, 'content-type': 'application/json' }
			},
			(response) => {
				let text = '';
				response.on('data', (part: Buffer) => (text += part.toString()));
				response.on('error', silence);
				response.on('aborted', silence);
				response.on('end', () => {
					let read: unknown = null;
					try {
						read = JSON.parse(text);
					} catch {
						// Cut off: it says nothing.
					}
					resolve({ kind: 'answer', status: response.statusCode ?? 0, body: read });
				});
			}
		);
		request.on('timeout', () => request.destroy());
		request.on('error', silence);
		request.end(body === undefined ? undefined : JSON.stringify(body));
	});
}

/** Ask until there is an answer. */
async function surely<T>(method: string, path: string, body?: unknown): Promise<T> {
	for (;;) {
		const reply = await ask(method, path, body);
		if (reply.kind === 'answer' && reply.status < 300 && reply.body !== null) return reply.body as T;
		await sleep(200);
	}
}

await installation.start();
const { id } = await surely<{ id: string }>('POST', '/api/projects', { document: START });
const server: TestServer = {
	open: () => surely<OpenedProject>('GET', `/api/projects/${id}`),
	save: (request) => ask('POST', `/api/projects/${id}/edits`, request),
	wholeLog: async () => {
		const all: SavedCommand[] = [];
		do {
			const before = all[0]?.revision ?? 2_147_483_647;
			const { commands } = await surely<{ commands: SavedCommand[] }>(
				'GET',
				`/api/projects/${id}/history?before=${before}`
			);
			all.unshift(...commands);
		} while (all[0] && all[0].revision > 1);
		return all;
	}
};

const makeId = idsFrom(random);
const windows: TestWindow[] = [];
for (let k = 0; k < Number(values.windows); k++) {
	const window = new TestWindow(server, makeId(), makeId);
	window.pause = () => sleep(about(150)) as Promise<void>;
	windows.push(await window.start());
}

const counts = { commands: 0, 'windows opened again': 0, server: 0, database: 0, starter: 0, everything: 0 };
const made = new Map<string, SentCommand>();
const until = Date.now() + minutes * 60_000;
let turn = 0;

async function work(window: TestWindow): Promise<void> {
	while (Date.now() < until) {
		const command = doSomething(window, random, turn++);
		if (command) {
			made.set(command.id, command);
			counts.commands++;
		}
		await sleep(about(150));
		if (random() < 0.003) {
			counts['windows opened again']++;
			await window.start();
		}
	}
}

async function trouble(): Promise<void> {
	while (Date.now() < until) {
		await sleep(about(8000));
		const kind = random();
		if (kind < 0.45) counts.server += installation.kill('server').length;
		else if (kind < 0.75) counts.database += installation.kill('database').length;
		else {
			if (kind < 0.9) counts.starter += installation.kill('starter').length;
			else if (installation.kill('starter', 'server', 'database').length) counts.everything++;
			await sleep(about(500));
			await installation.start();
		}
	}
}

const telling = setInterval(() => console.log(JSON.stringify(counts)), 60_000);
await Promise.all([trouble(), ...windows.map(work)]);
clearInterval(telling);

// The last of them may have been killed: everything comes up again by itself, and the line is whole.
through = port;
await quiet(...windows);
const log = await checkDay(server, windows, made);
const before = await server.open();
await installation.stop();
await installation.start();
const after = await server.open();
if (hashOf(after.document) !== hashOf(before.document) || after.revision !== log.length)
	throw new Error('after a stop and a start the project is another one');
await installation.stop();
proxy.close();
rmSync(folder, { recursive: true });
console.log(
	JSON.stringify({
		minutes,
		seed: Number(values.seed),
		...counts,
		starts: installation.starts,
		revisions: log.length,
		'set aside': windows.reduce((sum, { asides }) => sum + asides.length, 0),
		result: 'every command once, nothing lost, all windows and the model the same, the history whole'
	})
);
process.exit(0);
