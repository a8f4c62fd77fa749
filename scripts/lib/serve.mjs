// The built server and its database, kept running.
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { answers } from './postgres.mjs';
import { programFile } from './programs.mjs';
import { beganAt, endRecorded, isFree, pause, writeWhole } from './processes.mjs';
import { data, logFile, run, say, SetUpError, start, tail } from './system.mjs';

const node = process.execPath;
const FIRST_PAUSE_MS = 500;
const LONGEST_PAUSE_MS = 30_000;
/** A server that has run for so long is well; its next end is a new trouble. */
const WELL_MS = 60_000;
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
		BODY_SIZE_LIMIT: '64M'
	};
}

/** The record of the server of a port: who it is, for a starter that comes after its own was killed. */
const recordOf = (port) => join(data, `server-${port}.json`);

/** End the server that a killed starter has left on this port. @throws SetUpError when something else holds it */
export async function claimPort(port) {
	try {
		const record = JSON.parse(readFileSync(recordOf(port), 'utf8'));
		if (await endRecorded(record)) say(`a server of an earlier start was still on port ${port}; it is ended`);
	} catch {
		// There was none.
	}
	rmSync(recordOf(port), { force: true });
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
 * Serve the build, and start it again when it dies; the database too.
 * @returns the address, once it answers, and how to stop
 */
export async function serve(database, port) {
	const address = `http://127.0.0.1:${port}`;
	const { path, handle } = logFile(`server-${port}`, 'a');
	let stopping = false;
	let server;
	let deaths = 0;

	const launch = () => {
		const began = Date.now();
		server = start(node, ['build/index.js'], {
			env: serverSettings(database.url, port),
			stdio: ['ignore', handle, handle],
			// Its own group: a Ctrl-C reaches the starter, which then stops things in order.
			detached: true
		});
		writeWhole(recordOf(port), JSON.stringify({ pid: server.pid, began: beganAt(server.pid) }));
		server.once('exit', async (code, signal) => {
			if (stopping) return;
			if (Date.now() - began > WELL_MS) deaths = 0;
			const wait = Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** deaths++);
			const why = signal ? `by the signal ${signal}` : `with the code ${code}`;
			say(`the server ended ${why}; it is started again in ${wait / 1000} s (its log is ${path})`);
			await pause(wait);
			if (!stopping) launch();
		});
	};
	launch();
	const until = Date.now() + READY_MS;
	while (!(await isReady(address))) {
		if (Date.now() > until) {
			stopping = true;
			server.kill('SIGKILL');
			throw new SetUpError(`the server does not answer on ${address}; the end of ${path}:\n${tail(path)}`);
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
			await endRecorded({ pid: server.pid, began: beganAt(server.pid) ?? '' });
			rmSync(recordOf(port), { force: true });
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
