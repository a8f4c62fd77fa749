// A program that is started again when it dies, and ended in order.
import { readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { beganAt, endRecorded, pause, writeWhole } from './processes.mjs';
import { data, logFile, say, start } from './system.mjs';

const FIRST_PAUSE_MS = 500;
const LONGEST_PAUSE_MS = 30_000;
/** One that has run for so long is well; its next end is a new trouble. */
const WELL_MS = 60_000;

/** Who it is, for a starter that comes after its own was killed. */
const recordOf = (name) => join(data, `${name}.json`);

/** End what a killed starter has left under a name. @returns whether there was something */
export async function endLeft(name) {
	let ended = false;
	try {
		ended = await endRecorded(JSON.parse(readFileSync(recordOf(name), 'utf8')));
	} catch {
		// There was none.
	}
	rmSync(recordOf(name), { force: true });
	return ended;
}

/**
 * Keep a program of Node running.
 * @param name of its record and its log @param what it is called when something is said of it
 * @returns where its log is, and how to end it
 */
export function keepRunning(name, what, args, env) {
	const { path, handle } = logFile(name, 'a');
	let stopping = false;
	let child;
	let deaths = 0;
	const launch = () => {
		const began = Date.now();
		child = start(process.execPath, args, {
			env,
			stdio: ['ignore', handle, handle],
			// Its own group: a Ctrl-C reaches the starter, which then stops things in order.
			detached: true
		});
		writeWhole(recordOf(name), JSON.stringify({ pid: child.pid, began: beganAt(child.pid) }));
		child.once('exit', async (code, signal) => {
			if (stopping) return;
			if (Date.now() - began > WELL_MS) deaths = 0;
			const wait = Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** deaths++);
			const why = signal ? `by the signal ${signal}` : `with the code ${code}`;
			say(`${what} ended ${why}; it is started again in ${wait / 1000} s (its log is ${path})`);
			await pause(wait);
			if (!stopping) launch();
		});
	};
	launch();
	return {
		path,
		/** End it now, however it is. */
		kill() {
			stopping = true;
			child.kill('SIGKILL');
		},
		async stop() {
			stopping = true;
			await endRecorded({ pid: child.pid, began: beganAt(child.pid) ?? '' });
			rmSync(recordOf(name), { force: true });
		}
	};
}
