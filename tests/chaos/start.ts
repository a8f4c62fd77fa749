/**
 * npm run chaos:start -- --times 30: after a kill -9 of each kind, and at any moment of a first start, `npm start`
 * comes up at the first try.
 */
import { chmodSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { freePort } from '../../scripts/lib/processes.mjs';
import { data } from '../../scripts/lib/system.mjs';
import { randomFrom } from '../saving/wardrobe';
import { Installation } from './installation';

const { values } = parseArgs({ options: { times: { type: 'string', default: '30' } } });
const times = Number(values.times);
const random = randomFrom(Date.now());
const sleep = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

async function fresh(): Promise<Installation> {
	mkdirSync(data, { recursive: true });
	const folder = mkdtempSync(join(data, 'chaos-start-'));
	// PostgreSQL runs as a user of its own.
	chmodSync(folder, 0o711);
	return new Installation(folder, await freePort());
}

const tally: Record<string, { up: number; of: number; slowest: number; why?: string }> = {};

/** Start, and say whether it came up at the first try. */
async function startsAfter(kind: string, installation: Installation): Promise<void> {
	const one = (tally[kind] ??= { up: 0, of: 0, slowest: 0 });
	one.of++;
	const began = Date.now();
	try {
		await installation.start();
		one.up++;
		one.slowest = Math.max(one.slowest, Date.now() - began);
	} catch (error) {
		one.why ??= (error as Error).message;
	}
}

async function runningKinds(): Promise<void> {
	const installation = await fresh();
	await installation.start();
	for (let k = 0; k < times; k++) {
		installation.kill('starter');
		await startsAfter('the starter', installation);
		installation.kill('starter', 'server');
		await startsAfter('starter and server', installation);
		installation.kill('starter', 'database');
		await startsAfter('starter and database', installation);
		installation.kill('starter', 'server', 'database');
		await startsAfter('everything', installation);
		// A pid that was given out again: the record of the database names a process that is another one.
		installation.kill('starter', 'server', 'database');
		const record = join(installation.data, 'pg/postmaster.pid');
		const [, ...rest] = readFileSync(record, 'utf8').split('\n');
		writeFileSync(record, [String(process.pid), ...rest].join('\n'));
		await startsAfter('everything, its pid another’s', installation);
	}
	await installation.stop();
	rmSync(installation.data, { recursive: true });
}

/** The first start killed at any moment, from before initdb to after ready. */
async function firstStarts(): Promise<void> {
	for (let k = 0; k < times; k++) {
		const installation = await fresh();
		installation.launch();
		await sleep(((k + random()) / times) * 7000);
		installation.kill('starter', 'server', 'database');
		await startsAfter('a first start, at any moment', installation);
		await installation.stop();
		rmSync(installation.data, { recursive: true });
	}
}

/** Two starters at once: one serves, and the demo is there once. */
async function twoStarters(): Promise<void> {
	for (let k = 0; k < Math.min(times, 10); k++) {
		const one = await fresh();
		const other = new Installation(one.data, await freePort());
		await Promise.all([startsAfter('two starters at once', one), startsAfter('two starters at once', other)]);
		const list = (await (await fetch(`http://127.0.0.1:${one.port}/api/projects`)).json()) as unknown[];
		if (list.length !== 1) tally['two starters at once']!.why ??= `the demo is there ${list.length} times`;
		await other.stop();
		await one.stop();
		rmSync(one.data, { recursive: true });
	}
}

await runningKinds();
await firstStarts();
await twoStarters();
console.table(tally);
process.exit(Object.values(tally).every(({ up, of, why }) => up === of && !why) ? 0 : 1);
