import { expect } from 'chai';
import { randomUUID } from 'node:crypto';
import { hashOf } from '../../src/core/project/hash';
import type { SavedCommand, SaveRequest } from '../../src/lib/protocol';
import { idsFrom, randomFrom, START } from '../saving/wardrobe';
import { badDay, TestWindow, type TestServer } from '../saving/windows';
import { ask, create, open, save } from './running';

const window = randomUUID();
const rename = (value: unknown, id = randomUUID()) => ({
	kind: 'do',
	id,
	window,
	label: `name ${value}`.slice(0, 60),
	edits: [{ do: 'set', path: 'variants/oak/name', value }]
});
const names = async (id: string) => (await open(id)).document.variants.map(({ name }) => name);

async function requestFor(id: string, ...commands: unknown[]): Promise<SaveRequest> {
	const { epoch, revision } = await open(id);
	return { epoch, base: revision, commands };
}

async function wholeLog(id: string): Promise<SavedCommand[]> {
	const all: SavedCommand[] = [];
	for (;;) {
		const before = all[0] ? `?before=${all[0].revision}` : '';
		const { commands } = (
			await ask<{ commands: SavedCommand[] }>('GET', `/api/projects/${id}/history${before}`)
		).body;
		all.unshift(...commands);
		if (!commands.length || all[0]!.revision === 1) return all;
	}
}

describe('saving on PostgreSQL', () => {
	it('10,000 commands, requests and answers lost at random: the document equals the model’s', async () => {
		const id = await create(START);
		const server: TestServer = {
			open: () => open(id),
			wholeLog: () => wholeLog(id),
			save: async (request) => ({ kind: 'answer', ...(await save(id, request)) })
		};
		const makeId = idsFrom(randomFrom(20_261));
		const three: TestWindow[] = [];
		for (let k = 0; k < 3; k++) three.push(await new TestWindow(server, makeId(), makeId).start());
		await badDay(server, three, 20_261, 10_000);
	}).timeout(180_000);

	it('a repeat gets the stored result and does nothing', async () => {
		const id = await create(START);
		const request = await requestFor(id, rename('a'), rename('b'));
		const first = await save(id, request);
		expect(first.status).to.equal(200);
		expect(first.body.revision).to.equal(2);
		const again = await save(id, request);
		expect(again.body).to.deep.equal(first.body);
		const later = await save(id, { ...request, base: 2 });
		expect(later.body).to.deep.include({
			revision: 2,
			log: [],
			known: request.commands.map((one) => (one as { id: string }).id)
		});
		expect((await open(id)).history).to.have.length(2);
	});

	it('the answer tells what came meanwhile, in order, and the hash of the document', async () => {
		const id = await create(START);
		const late = await requestFor(id, rename('late'));
		await save(id, await requestFor(id, rename('a'), rename('b')));
		const { body } = await save(id, late);
		expect(body.log.map((one) => ('label' in one ? one.label : 'own'))).to.deep.equal([
			'name a',
			'name b',
			'own'
		]);
		const opened = await open(id);
		expect(opened.document.variants[0]!.name).to.equal('late');
		expect([body.hash, opened.hash]).to.deep.equal([hashOf(opened.document), body.hash]);
		// What takes it back is what was there when it was carried out, not when it was done.
		expect(opened.history[2]!.inverse).to.deep.equal([{ do: 'set', path: 'variants/oak/name', value: 'b' }]);
	});

	it('of a request the faulty commands alone are refused, each in words', async () => {
		const id = await create(START);
		const longLabel = { ...rename('x'), label: 'y'.repeat(300) };
		const gone = { ...rename('x'), edits: [{ do: 'set', path: 'variants/birch/name', value: 'x' }] };
		const wrong = rename(7);
		const request = await requestFor(id, rename('first'), longLabel, gone, wrong, rename('last'));
		const { status, body } = await save(id, request);
		expect(status).to.equal(200);
		expect(body.revision).to.equal(2);
		expect(await names(id)).to.include('last');
		const said = new Map(body.refused.map((one) => [one.id, one.message]));
		expect(said.get(longLabel.id)).to.match(/at most 200 letters/);
		expect(said.get(gone.id)).to.match(/"birch" is not there/);
		expect(said.get(wrong.id)).to.match(/variants\/0\/name/);
	});

	it('many windows at once: every command once, none lost', async () => {
		const id = await create(START);
		const { epoch } = await open(id);
		const adding = async (k: number) => {
			for (let n = 0; n < 10; n++) {
				const value = { id: `w${k}-${n}`, name: `${k} ${n}`, part: 'framed-glass' };
				const edits = [{ do: 'insert', path: 'variants', index: 0, value }];
				const command = { ...rename(''), label: 'add', edits };
				const answer = await save(id, { epoch, base: 0, commands: [command] });
				expect(answer.status).to.equal(200);
			}
		};
		await Promise.all(Array.from({ length: 30 }, (_, k) => adding(k)));
		const { document, revision } = await open(id);
		expect(revision).to.equal(300);
		expect(new Set(document.variants.map((one) => one.id)).size).to.equal(304);
	});

	it('reads during saves are of one moment: history, document and hash agree', async () => {
		const id = await create(START);
		const { epoch } = await open(id);
		let writing = true;
		const write = async () => {
			for (let k = 0; k < 150; k++)
				expect((await save(id, { epoch, base: 0, commands: [rename(`${k}`)] })).status).to.equal(200);
			writing = false;
		};
		let reads = 0;
		const read = async () => {
			while (writing) {
				const answer = await ask<Awaited<ReturnType<typeof open>>>('GET', `/api/projects/${id}`);
				expect(answer.status).to.equal(200);
				const { history, revision, document, hash } = answer.body;
				expect(history.at(-1)?.revision ?? 0).to.equal(revision);
				if (revision) expect(document.variants[0]!.name).to.equal(history.at(-1)!.label.slice(5));
				expect(hashOf(document)).to.equal(hash);
				const copy = await ask('POST', `/api/projects/${id}/duplicate`, {});
				expect(copy.status).to.equal(201);
				reads++;
			}
		};
		await Promise.all([write(), read(), read(), read(), read()]);
		expect(reads).to.be.greaterThan(20);
	});

	it('any state of the past is there, also long after, and can be copied', async () => {
		const id = await create(START);
		for (let k = 0; k < 5; k++)
			await save(
				id,
				await requestFor(id, ...Array.from({ length: 100 }, (_, n) => rename(`${k * 100 + n + 1}`)))
			);
		for (const revision of [0, 1, 199, 200, 201, 350, 500]) {
			const { body } = await ask<{ document: { variants: { name: string }[] } }>(
				'GET',
				`/api/projects/${id}/states/${revision}`
			);
			expect(body.document.variants[0]!.name).to.equal(revision ? `${revision}` : 'oak 0');
		}
		const { body } = await ask<{ id: string }>('POST', `/api/projects/${id}/duplicate`, { revision: 17 });
		expect((await names(body.id))[0]).to.equal('17');
		expect((await ask('GET', `/api/projects/${id}/states/501`)).status).to.equal(404);
	});

	it('a window of another database, or from the future, is told to open the project again', async () => {
		const id = await create(START);
		const request = await requestFor(id, rename('x'));
		for (const wrong of [{ epoch: randomUUID() }, { base: 5 }]) {
			const { status, body } = await ask('POST', `/api/projects/${id}/edits`, { ...request, ...wrong });
			expect(status).to.equal(409);
			expect(body.code).to.equal('out-of-step');
			expect(body.message).to.match(/put back/);
		}
		expect((await open(id)).revision).to.equal(0);
	});
});
