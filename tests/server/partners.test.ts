import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import type { Server } from 'node:http';
import type { Batch } from '../../src/core/partner/message-schema';
import { readProjectText } from '../../src/core/project/read';
import type { PartnerAnswers, SendingCard } from '../../src/lib/protocol';
import { fabricatorDesk } from '../../src/partners/desk/desk';
import { servePartner, type PartnerProgram } from '../../src/partners/server';
import { siteReceiver } from '../../src/partners/site/site';
import { troubles, type Mood, type Trouble } from '../../src/partners/troubles';
import { ask, create, launch, running, type Running } from './running';

const small = readProjectText(
	readFileSync(new URL('../../docs/examples/small.json', import.meta.url), 'utf8')
);
/** The same wall in so many cells. */
const wall = (across: number, up: number) =>
	readProjectText(
		JSON.stringify({
			...small,
			zones: small.zones.map((zone) => ({
				...zone,
				settingOut: { across: { by: 'count', count: across }, up: { by: 'count', count: up } },
				runs: []
			}))
		})
	);
const calm: Mood = { share: 0, kinds: [] };
const servers: Server[] = [];
async function serve(program: PartnerProgram): Promise<string> {
	const { address, server } = await servePartner(program, 0);
	servers.push(server);
	return address;
}
afterEach(() => {
	for (const server of servers.splice(0)) {
		server.closeAllConnections();
		server.close();
	}
});

async function released(document: object): Promise<string> {
	const id = await create(document);
	const made = await ask<{ message?: string }>('POST', `/api/projects/${id}/releases`, { revision: 0 });
	expect(made.status, made.body.message).to.equal(201);
	return id;
}

const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
async function until<T>(look: () => Promise<T>, done: (found: T) => boolean, seconds: number): Promise<T> {
	for (const end = Date.now() + 1000 * seconds; ; await pause(100)) {
		const found = await look();
		if (done(found)) return found;
		if (Date.now() > end) throw new Error(`still not so after ${seconds} s: ${JSON.stringify(found)}`);
	}
}

/** A queue of its own on the tests' database. */
async function queueTo(address: string, perBatch: number, partner: 'desk' | 'site' = 'desk') {
	const { connect } = await import('../../src/lib/server/database');
	const { Outbox } = await import('../../src/lib/server/partners/outbox');
	const { Sendings } = await import('../../src/lib/server/partners/sendings');
	const db = connect(running.databaseUrl);
	const partners = new Map([[partner, { id: partner, address }]]);
	const patience = { atOnce: 8, wait: 150, pause: 5, longestPause: 200, look: 20 };
	const outboxes: InstanceType<typeof Outbox>[] = [];
	return {
		sendings: new Sendings(db, partners, perBatch),
		outbox() {
			const own = new Outbox(db, partners, patience);
			outboxes.push(own);
			return own;
		},
		async end() {
			await Promise.all(outboxes.map((one) => one.stop()));
			await db.destroy();
		}
	};
}

describe('releases sent to partners', () => {
	it('ten thousand messages to a desk that fails in every way: no piece is lost or doubled', async function () {
		this.timeout(480_000);
		const desk = fabricatorDesk(null, { share: 0.3, kinds: Object.keys(troubles) as Trouble[] }, 200);
		const { sendings, outbox, end } = await queueTo(await serve(desk), 1);
		try {
			const id = await released(wall(100, 100));
			await sendings.send(id, 1, 'desk');
			// Two servers share the queue, and one of them ends on the way.
			const [first, second] = [outbox(), outbox()];
			first.start();
			second.start();
			const card = async () => (await sendings.list(id))[0]!;
			await until(card, ({ answered }) => answered > 2000, 200);
			await second.stop();
			const { batches, accepted, refused, pieces } = await until(
				card,
				({ answered, batches }) => answered === batches,
				300
			);
			await first.stop();
			expect([batches, pieces, accepted + refused]).to.deep.equal([10_000, 10_000, 10_000]);
			// What the desk itself has written down: every piece of the release, each in one job.
			const names = desk.inbox.all.flatMap(({ batch }) => batch.pieces.map(({ address }) => address));
			const { address } = await sendings.answers(id, 1, 'desk');
			expect([names.length, new Set(names).size, new Set(address).size]).to.deep.equal([
				10_000, 10_000, 10_000
			]);
			expect([...names].sort()).to.deep.equal([...address].sort());
		} finally {
			await end();
		}
	});

	for (const [trouble, told] of [
		['silent', /^no answer within 0.15 s$/],
		['lost', /^it cannot be reached, or it broke off$/],
		['error', /^it answered 500: something went wrong here$/],
		['broken', /^it answered 500: taken, and then/],
		['nonsense', /^the answer is not JSON; it begins with “<p>Welcome/],
		['another', /^the answer is to batch 2 of release 1, not to batch 1/],
		['half', /pieces are without an answer; the first is/],
		['huge', /^the answer is larger than 4 MB; the rest was not read$/]
	] as const)
		it(`to one that ${troubles[trouble]}: what is wrong is told, and it goes on when that is over`, async () => {
			const desk = fabricatorDesk(null, { share: 1, kinds: [trouble] });
			const { sendings, outbox, end } = await queueTo(await serve(desk), 1000);
			const own = outbox();
			try {
				const id = await released(small);
				await sendings.send(id, 1, 'desk');
				own.start();
				const card = async () => (await sendings.list(id))[0]!;
				const failing = await until(card, ({ trouble }) => (trouble?.tries ?? 0) >= 2, 20);
				expect(failing.trouble!.failure).to.match(told);
				expect([failing.answered, failing.accepted]).to.deep.equal([0, 0]);
				desk.mood = calm;
				const well = await until(card, ({ answered }) => answered === 1, 20);
				expect(well.accepted + well.refused).to.equal(well.pieces);
				expect([well.trouble, desk.inbox.all.length]).to.deep.equal([null, 1]);
			} finally {
				await end();
			}
		});

	it('a message that is under way when its server ends goes out again under the key it had', async () => {
		const desk = fabricatorDesk(null, { share: 1, kinds: ['silent'] });
		const { sendings, outbox, end } = await queueTo(await serve(desk), 1000);
		try {
			const id = await released(small);
			await sendings.send(id, 1, 'desk');
			const first = outbox();
			first.start();
			await until(
				async () => desk.inbox.all.length,
				(count) => count === 1,
				10
			);
			await first.stop();
			desk.mood = calm;
			const second = outbox();
			second.start();
			await until(
				async () => (await sendings.list(id))[0]!,
				({ answered }) => answered === 1,
				10
			);
			await second.stop();
			expect(desk.inbox.all).to.have.length(1);
		} finally {
			await end();
		}
	});

	it('the site tells what becomes of pieces, and they never go back', async () => {
		const site = siteReceiver(null, { share: 0.5, kinds: ['later', 'twice', 'error'] });
		const { sendings, outbox, end } = await queueTo(await serve(site), 4, 'site');
		const own = outbox();
		try {
			const id = await released(small);
			await sendings.send(id, 1, 'site');
			own.start();
			const card = async () => (await sendings.list(id))[0]!;
			const { pieces } = await until(card, ({ answered, batches }) => answered === batches, 20);
			site.work(5);
			await until(card, ({ made }) => made === 5, 10);
			for (let k = 0; k < 2 * pieces; k++) site.work(3);
			const done = await until(card, ({ set }) => set === pieces, 10);
			expect([done.made, done.delivered]).to.deep.equal([0, 0]);
			const { is } = await sendings.answers(id, 1, 'site');
			expect(is.every((one) => one === 'set')).to.equal(true);
		} finally {
			await end();
		}
	});
});

describe('the server with partners', () => {
	let served: Running;
	let address: string;
	let server: Server;
	let desk: PartnerProgram;
	before(async function () {
		this.timeout(60_000);
		desk = fabricatorDesk(null, { share: 0.5, kinds: ['later', 'twice'] });
		({ address, server } = await servePartner(desk, 0));
		served = await launch(running.databaseUrl, { FABRICATOR_DESK: address });
	});
	after(async () => {
		await served.stop();
		server.closeAllConnections();
		server.close();
	});
	const at = async <T>(method: string, path: string, body?: object) => {
		const response = await fetch(`${served.address}/api/projects/${path}`, {
			method,
			headers: { 'content-type': 'application/json' },
			...(body && { body: JSON.stringify(body) })
		});
		return { status: response.status, body: (await response.json()) as T };
	};
	type Told = { partners: object[]; sendings: SendingCard[] };
	const card = async (id: string) => (await at<Told>('GET', `${id}/sendings`)).body.sendings[0]!;

	it('sends a release once, tells how far it is and what was refused, and stops and goes on when told', async () => {
		const id = await released(wall(2, 1));
		expect((await at<Told>('GET', `${id}/sendings`)).body).to.deep.equal({
			partners: [{ id: 'desk', address }],
			sendings: []
		});
		expect((await at('POST', `${id}/releases/1/sendings/desk`)).status).to.equal(201);
		const again = await at<{ message: string }>('POST', `${id}/releases/1/sendings/desk`);
		expect([again.status, again.body.message]).to.deep.equal([
			409,
			'release 1 went to the fabricator desk already; it gets it once'
		]);
		const done = await until(
			() => card(id),
			({ answered, batches }) => answered === batches,
			20
		);
		// Two panes of four and a half metres by three and more are too wide for its saw.
		expect([done.pieces, done.refused]).to.deep.equal([2, 2]);
		const { body } = await at<PartnerAnswers>('GET', `${id}/releases/1/sendings/desk`);
		expect(body.reason[0]).to.match(
			/^short side on the bed of the plate saw: \d+(\.\d)? mm, at most 2500 mm/
		);
		const first = desk.inbox.all.at(-1)!.batch as Batch;
		expect(first.pieces.map(({ mark }) => mark)).to.deep.equal(body.mark);
	});

	it('stops a sending, and lets it go on', async () => {
		const mood = desk.mood;
		desk.mood = { share: 1, kinds: ['error'] };
		const id = await released(small);
		await at('POST', `${id}/releases/1/sendings/desk`);
		await until(
			() => card(id),
			({ trouble }) => (trouble?.tries ?? 0) >= 1,
			20
		);
		await at('PATCH', `${id}/releases/1/sendings/desk`, { goesOn: false });
		await pause(300);
		const { tries } = (await card(id)).trouble!;
		desk.mood = mood;
		await pause(2500);
		const stopped = await card(id);
		expect([stopped.stopped, stopped.answered, stopped.trouble!.tries]).to.deep.equal([true, 0, tries]);
		await at('PATCH', `${id}/releases/1/sendings/desk`, { goesOn: true });
		await until(
			() => card(id),
			({ answered, batches }) => answered === batches,
			20
		);
	});

	it('says which partner it does not know, and which release is not there', async () => {
		const id = await released(small);
		const site = await at<{ message: string }>('POST', `${id}/releases/1/sendings/site`);
		expect([site.status, site.body.message]).to.deep.equal([409, 'this server knows no site receiver']);
		expect((await at('POST', `${id}/releases/9/sendings/desk`)).status).to.equal(404);
		expect((await at('PATCH', `${id}/releases/1/sendings/desk`, { goesOn: true })).status).to.equal(404);
		expect((await at('POST', `${id}/releases/1/sendings/nobody`)).status).to.equal(404);
	});
});
