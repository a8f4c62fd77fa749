// Locks and records of processes that survive kill -9 of anything.
import { createHash } from 'node:crypto';
import {
	readFileSync,
	readlinkSync,
	renameSync,
	rmSync,
	writeFileSync,
	openSync,
	fsyncSync,
	closeSync
} from 'node:fs';
import { createServer } from 'node:net';
import { data, say } from './system.mjs';

export const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/**
 * Hold a lock on this checkout's data: a name in the kernel that is free again the moment its holder dies, however
 * it dies.
 * @returns how to let it go, or null when somebody else holds it
 */
export function holdLock(name) {
	const key = createHash('sha256').update(`${data} ${name}`).digest('hex').slice(0, 24);
	return new Promise((resolve, reject) => {
		const holder = createServer();
		holder.once('error', (error) => (error.code === 'EADDRINUSE' ? resolve(null) : reject(error)));
		holder.listen(`\0zygaster-${key}`, () => {
			holder.unref();
			resolve(() => new Promise((done) => holder.close(done)));
		});
	});
}

/** The same, waiting for whoever holds it. */
export async function takeLock(name) {
	for (let told = false; ; told = true) {
		const release = await holdLock(name);
		if (release) return release;
		if (!told) say('another start is under way here; waiting for it');
		await pause(200);
	}
}

/** Whether nothing listens on a port of loopback. */
export function isFree(port) {
	return new Promise((resolve) => {
		const probe = createServer().once('error', () => resolve(false));
		probe.listen(port, '127.0.0.1', () => probe.close(() => resolve(true)));
	});
}

export function freePort() {
	return new Promise((resolve, reject) => {
		const probe = createServer().once('error', reject);
		probe.listen(0, '127.0.0.1', () => {
			const { port } = probe.address();
			probe.close(() => resolve(port));
		});
	});
}

/** Write a file whole or not at all. */
export function writeWhole(path, content, mode = 0o600) {
	const making = `${path}.new`;
	rmSync(making, { force: true });
	const handle = openSync(making, 'w', mode);
	writeFileSync(handle, content);
	fsyncSync(handle);
	closeSync(handle);
	renameSync(making, path);
}

/** When a process began, in ticks since the machine did: with its id it names it for good. Null: there is none. */
export function beganAt(pid) {
	try {
		const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
		// The name in brackets may hold anything; the fields after it may not.
		return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19];
	} catch {
		return null;
	}
}

/** The folder a process works in, or null. */
export function folderOf(pid) {
	try {
		return readlinkSync(`/proc/${pid}/cwd`);
	} catch {
		return null;
	}
}

/** End a process that was recorded, if it is still the same one. @returns whether it was there */
export async function endRecorded({ pid, began }) {
	if (beganAt(pid) !== began) return false;
	process.kill(pid, 'SIGTERM');
	for (let tries = 0; tries < 50 && beganAt(pid) === began; tries++) await pause(100);
	if (beganAt(pid) === began) process.kill(pid, 'SIGKILL');
	for (let tries = 0; tries < 50 && beganAt(pid) === began; tries++) await pause(20);
	return true;
}
