import { spawn, type ChildProcess } from 'node:child_process';
import { closeSync, openSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { ensureBuild } from '../../scripts/lib/build.mjs';
import { emptyDatabase, startDatabase } from '../../scripts/lib/postgres.mjs';
import { freePort, takeLock } from '../../scripts/lib/processes.mjs';
import { prepareDatabase, serverSettings } from '../../scripts/lib/serve.mjs';
import { root } from '../../scripts/lib/system.mjs';
import type { OpenedProject, SaveAnswer, SaveRequest } from '../../src/lib/protocol';

/** The built server on a database of the tests' own, for the tests in this folder. */
export interface Running {
	readonly address: string;
	readonly databaseUrl: string;
	readonly server: ChildProcess;
	stop(): Promise<void>;
}

async function answersReady(address: string): Promise<boolean> {
	const answer = await fetch(`${address}/api/ready`).catch(() => null);
	return answer?.ok === true;
}

/** @param settings of the server's environment, over the usual ones; PORT for one of its own choice */
export async function launch(databaseUrl: string, settings: Record<string, string> = {}): Promise<Running> {
	const port = Number(settings['PORT'] ?? (await freePort()));
	const address = `http://127.0.0.1:${port}`;
	const log = openSync(join(tmpdir(), `zygaster-test-server-${port}.log`), 'w');
	const server = spawn(process.execPath, ['build/index.js'], {
		cwd: root,
		// Tests ask more in a second than people do; papers of releases are written where a test asks for it.
		env: { ...serverSettings(databaseUrl, port), MOST_REQUESTS: '100000', PAPERS: '', ...settings },
		stdio: ['ignore', log, log]
	});
	closeSync(log);
	const ended = new Promise((resolve) => server.once('exit', resolve));
	for (const until = Date.now() + 20_000; !(await answersReady(address));) {
		if (Date.now() > until || server.exitCode !== null) throw new Error('the built server does not answer');
		await new Promise((resolve) => setTimeout(resolve, 50));
	}
	return {
		address,
		databaseUrl,
		server,
		stop: async () => {
			server.kill('SIGTERM');
			await ended;
		}
	};
}

let database: { url: string; stop(): void } | null = null;
export let running: Running;

export const mochaHooks = {
	async beforeAll(this: Mocha.Context) {
		this.timeout(180_000);
		let url = process.env['DATABASE_URL'];
		if (!url) {
			const release = await takeLock('set-up');
			await ensureBuild();
			database = await startDatabase('pg-test');
			url = await emptyDatabase(database.url, 'for_server');
			await prepareDatabase(url);
			await release();
		}
		running = await launch(url);
	},
	async afterAll(this: Mocha.Context) {
		this.timeout(30_000);
		await running?.stop();
		database?.stop();
	}
};

/** Ask the database itself. */
export async function query(text: string): Promise<pg.QueryResult> {
	const client = new pg.Client({ connectionString: running.databaseUrl });
	await client.connect();
	try {
		return await client.query(text);
	} finally {
		await client.end();
	}
}

export interface Answer<T> {
	readonly status: number;
	readonly body: T;
	readonly headers: Headers;
}

/** Ask the server as our own pages do. */
export async function ask<T = { message: string; code: string }>(
	method: string,
	path: string,
	body?: unknown,
	headers: Record<string, string> = {}
): Promise<Answer<T>> {
	const response = await fetch(`${running.address}${path}`, {
		method,
		headers: { 'content-type': 'application/json', ...headers },
		...(body !== undefined && { body: typeof body === 'string' ? body : JSON.stringify(body) })
	});
	const text = await response.text();
	let read: unknown = text;
	try {
		read = JSON.parse(text);
	} catch {
		// Not JSON: the text itself.
	}
	return { status: response.status, body: read as T, headers: response.headers };
}

export const open = async (id: string) => (await ask<OpenedProject>('GET', `/api/projects/${id}`)).body;
export const save = (id: string, request: SaveRequest) =>
	ask<SaveAnswer>('POST', `/api/projects/${id}/edits`, request);

export async function create(document: unknown): Promise<string> {
	const { status, body } = await ask<{ id: string; message?: string }>('POST', '/api/projects', { document });
	if (status !== 201) throw new Error(body.message);
	return body.id;
}
