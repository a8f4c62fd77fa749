/**
 * npm run load: what a save, an opening and many windows cost, over loopback, on a database of its own.
 * Figures of this machine; what they are held against is named beside them.
 */
import { randomUUID } from 'node:crypto';
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { parseArgs } from 'node:util';
import { startDatabase } from '../../scripts/lib/postgres.mjs';
import { takeLock } from '../../scripts/lib/processes.mjs';
import { ensureBuild } from '../../scripts/lib/build.mjs';
import { prepareDatabase } from '../../scripts/lib/serve.mjs';
import { data } from '../../scripts/lib/system.mjs';
import type { Edit } from '../../src/core/project/edits';
import { hashOf } from '../../src/core/project/hash';
import type { OpenedProject, SaveAnswer } from '../../src/lib/protocol';
import { idsFrom, randomFrom, START } from '../saving/wardrobe';
import { quiet, TestWindow, type TestServer } from '../saving/windows';
import { launch } from '../server/running';

const { values } = parseArgs({ options: { seconds: { type: 'string', default: '60' } } });
const rows: Record<string, string>[] = [];
const note = (what: string, figure: string, wanted: string) => rows.push({ what, figure, wanted });
const at = (list: number[], share: number) =>
	[...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(share * list.length))]!;

const release = await takeLock('set-up');
await ensureBuild();
const database = await startDatabase('pg-load');
await prepareDatabase(database.url);
await release();
const running = await launch(database.url);

async function ask<T>(method: string, path: string, body?: unknown): Promise<T> {
	const answer = await fetch(`${running.address}${path}`, {
		method,
		headers: { 'content-type': 'application/json' },
		...(body !== undefined && { body: JSON.stringify(body) })
	});
	if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${await answer.text()}`);
	return (await answer.json()) as T;
}
const create = async (document: unknown) =>
	(await ask<{ id: string }>('POST', '/api/projects', { document })).id;
const open = (id: string) => ask<OpenedProject>('GET', `/api/projects/${id}`);
const save = (id: string, epoch: string, base: number, commands: unknown[]) =>
	ask<SaveAnswer>('POST', `/api/projects/${id}/edits`, { epoch, base, commands });
const window = randomUUID();
const set = (path: string, value: unknown) => ({
	kind: 'do',
	id: randomUUID(),
	window,
	label: 'x',
	edits: [{ do: 'set', path, value }]
});

/** A project whose JSON is about so large: a zone with exceptions, and nets of points. */
function large(bytes: number): unknown {
	const row = (j: number) =>
		Array.from({ length: 200 }, (_, i) => [i * 100.5, Math.sin(i * j) * 333.333, j * 100.25]);
	const net = (k: number) => ({
		id: `net-${k}`,
		name: `Net ${k}`,
		form: { kind: 'net', rows: Array.from({ length: 200 }, (_, j) => row(j + k)) }
	});
	const each = JSON.stringify(net(0)).length;
	return { ...START, masses: Array.from({ length: Math.ceil(bytes / each) }, (_, k) => net(k)) };
}

async function savesOfLarge(): Promise<void> {
	const document = large(10_000_000);
	const id = await create(document);
	const opened = await open(id);
	const times: number[] = [];
	let { revision } = opened;
	for (let k = 0; k < 400; k++) {
		const began = performance.now();
		({ revision } = await save(id, opened.epoch, revision, [set('masses/net-0/form/rows/3/7/1', k)]));
		times.push(performance.now() - began);
	}
	const size = (JSON.stringify(opened.document).length / 1e6).toFixed(1);
	note(
		`save of one value, ${size} MB document, 400 saves`,
		`p50 ${at(times, 0.5).toFixed(1)} ms, p95 ${at(times, 0.95).toFixed(1)} ms, largest ${Math.max(...times).toFixed(0)} ms`,
		'p95 under 100 ms'
	);
}

async function openLong(): Promise<void> {
	const id = await create(START);
	const { epoch } = await open(id);
	for (let k = 0; k < 200; k++)
		await save(
			id,
			epoch,
			k * 500,
			Array.from({ length: 500 }, (_, n) => set('name', `n${k * 500 + n}`))
		);
	const times: number[] = [];
	let revision = 0;
	for (let k = 0; k < 20; k++) {
		const began = performance.now();
		({ revision } = await open(id));
		times.push(performance.now() - began);
	}
	// A server that has not held it yet.
	const other = await launch(database.url);
	const began = performance.now();
	await (await fetch(`${other.address}/api/projects/${id}`)).json();
	const cold = performance.now() - began;
	await other.stop();
	note(
		`open, ${revision.toLocaleString('en-GB')} commands`,
		`p50 ${at(times, 0.5).toFixed(1)} ms, largest ${Math.max(...times).toFixed(1)} ms, by a server just started ${cold.toFixed(0)} ms`,
		'under 300 ms'
	);
}

/** Windows of their whole make in one process: more, and the process would be measured instead of the server. */
const WHOLE_WINDOWS = 3;
const pause = () => new Promise((resolve) => setTimeout(resolve, 250 + Math.random() * 500));

/**
 * Windows at one project, each doing something every half second; times are those of the requests. A few are whole
 * windows, which show a document at the end; the others send and listen as windows do and keep no document.
 */
async function manyWindows(many: number, seconds: number): Promise<void> {
	const own = (k: number) => ({ id: `w${k}`, name: 'none', part: 'framed-glass' });
	const id = await create({ ...START, variants: Array.from({ length: many }, (_, k) => own(k)) });
	const times: number[] = [];
	const saved = async (request: unknown) => {
		const began = performance.now();
		const body = await ask<SaveAnswer>('POST', `/api/projects/${id}/edits`, request);
		times.push(performance.now() - began);
		return body;
	};
	const server: TestServer = {
		open: () => open(id),
		wholeLog: async () => [],
		save: async (request) => ({ kind: 'answer', status: 200, body: await saved(request) })
	};
	const last = new Map<string, string>();
	const naming = (k: number, n: number): Edit => {
		last.set(`w${k}`, `name ${n}`);
		return { do: 'set', path: `variants/w${k}/name`, value: `name ${n}` };
	};
	const until = Date.now() + seconds * 1000;
	let done = 0;
	const whole: TestWindow[] = [];
	const makeId = idsFrom(randomFrom(9));
	for (let k = 0; k < WHOLE_WINDOWS; k++) whole.push(await new TestWindow(server, makeId(), makeId).start());
	const worksWhole = async (k: number) => {
		for (let n = 0; Date.now() < until; n++, done++) {
			whole[k]!.edit('name', naming(k, n));
			await pause();
		}
	};
	const { epoch } = await open(id);
	const sends = async (k: number) => {
		const window = makeId();
		let base = 0;
		for (let n = 0; Date.now() < until; n++, done++) {
			const command = { kind: 'do', id: makeId(), window, label: 'name', edits: [naming(k, n)] };
			const { revision, log } = await saved({ epoch, base, commands: [command] });
			if (log.length !== revision - base) throw new Error(`window ${k} was not told everything`);
			base = revision;
			await pause();
		}
	};
	await Promise.all(Array.from({ length: many }, (_, k) => (k < WHOLE_WINDOWS ? worksWhole(k) : sends(k))));
	await quiet(...whole);
	const { document, revision } = await open(id);
	const lost = done - revision + document.variants.filter((one) => one.name !== last.get(one.id)).length;
	const same = whole.every((one) => hashOf(one.session.document) === hashOf(document));
	note(
		`${many} windows at one project, ${seconds} s, ${done} commands, ${times.length} requests`,
		`p50 ${at(times, 0.5).toFixed(1)} ms, p99 ${at(times, 0.99).toFixed(1)} ms, lost ${lost}, ${same ? 'whole windows show what the server has' : 'windows differ'}`,
		'p99 under 250 ms, none lost'
	);
}

/** Openings, copies and states of the past while others write: every one is an answer, of one moment. */
async function readsDuringWrites(reads: number): Promise<void> {
	const id = await create(START);
	const { epoch } = await open(id);
	let left = reads;
	let faults = 0;
	const read = async () => {
		while (left-- > 0)
			try {
				const { revision, history, hash } = await open(id);
				if ((history.at(-1)?.revision ?? 0) !== revision || !hash) faults++;
			} catch {
				faults++;
			}
	};
	const began = performance.now();
	const writing = (async () => {
		let base = 0;
		while (left > 0) ({ revision: base } = await save(id, epoch, base, [set('name', `n${base}`)]));
		return base;
	})();
	await Promise.all([read(), read(), read(), read(), read(), read()]);
	const writes = await writing;
	note(
		`${reads.toLocaleString('en-GB')} openings during ${writes.toLocaleString('en-GB')} saves`,
		`${faults} faults, ${((performance.now() - began) / 1000).toFixed(0)} s`,
		'0 faults'
	);
}

await savesOfLarge();
await openLong();
await manyWindows(50, Number(values.seconds));
await readsDuringWrites(10_000);
console.table(rows);
await running.stop();
database.stop();
for (const left of ['pg-load', 'pg-load.json']) rmSync(join(data, left), { recursive: true, force: true });
