// The built server and its database, kept running.
import { join } from 'node:path';
import { endLeft, keepRunning } from './keep-running.mjs';
import { startPartners } from './partners.mjs';
import { answers } from './postgres.mjs';
import { programFile } from './programs.mjs';
import { isFree, pause } from './processes.mjs';
import { root, run, say, SetUpError, tail } from './system.mjs';

const node = process.execPath;
const LOOK_MS = 1500;
const READY_MS = 30_000;

/** Bring the database's tables up to date and load the demo project once. */
export async function prepareDatabase(url) {
	run(node, [await programFile('prepare-database')], { env: { ...process.env, DATABASE_URL: url } });
}

/** Everything the built server is told. */
export function serverSettings(url, port) {
	return {
		...process.env,
		DATABASE_URL: url,
		HOST: '127.0.0.1',
		PORT: String(port),
		ORIGIN: `http://127.0.0.1:${port}`,
		BODY_SIZE_LIMIT: '64M',
		PAPERS: process.env.PAPERS ?? join(root, 'build/cli/zyg.js')
	};
}

/** End the server that a killed starter has left on this port. @throws SetUpError when something else holds it */
export async function claimPort(port) {
	if (await endLeft(`server-${port}`))
		say(`a server of an earlier start was still on port ${port}; it is ended`);
	if (!(await isFree(port)))
		throw new SetUpError(
			`port ${port} is taken by another program; free it, or choose another with PORT=… npm start`
		);
}

async function isReady(address) {
	const answer = await fetch(`${address}/api/ready`, { signal: AbortSignal.timeout(5000) }).catch(() => null);
	return answer?.ok === true;
}

/**
 * Serve the build with its partners, and start them again when they die; the database too.
 * @returns the address, once it answers, and how to stop
 */
export async function serve(database, port) {
	const address = `http://127.0.0.1:${port}`;
	const partners = await startPartners(port);
	const env = { ...serverSettings(database.url, port), ...partners.settings };
	const server = keepRunning(`server-${port}`, 'the server', ['build/index.js'], env);
	let stopping = false;
	const until = Date.now() + READY_MS;
	while (!(await isReady(address))) {
		if (Date.now() > until) {
			server.kill();
			await partners.stop();
			throw new SetUpError(
				`the server does not answer on ${address}; the end of ${server.path}:\n${tail(server.path)}`
			);
		}
		await pause(50);
	}

	const watch = async () => {
		while (!stopping) {
			await pause(LOOK_MS);
			if (stopping || !database.folder || (await answers(database.url, database.folder))) continue;
			say('the database does not answer; it is started again');
			await database.again().catch((error) => say(error.message));
		}
	};
	void watch();

	return {
		address,
		stop: async () => {
			stopping = true;
			await Promise.all([server.stop(), partners.stop()]);
			database.stop();
		}
	};
}

/** Stop in order when this process is told to. */
export function stopOnSignal(stop) {
	for (const [signal, code] of [
		['SIGINT', 130],
		['SIGTERM', 143],
		['SIGHUP', 129]
	])
		process.once(signal, async () => {
			say('stopping');
			await stop();
			process.exit(code);
		});
}
