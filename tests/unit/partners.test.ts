import { expect } from 'chai';
import fc from '../property';
import { appendFileSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
	messageStructures,
	type Answer,
	type Batch,
	type BatchPiece,
	type News
} from '../../src/core/partner/message-schema';
import { MessageError, readAnswer } from '../../src/core/partner/read-message';
import { fabricatorDesk } from '../../src/partners/desk/desk';
import { whyNot } from '../../src/partners/desk/machines';
import { Inbox, NotTaken } from '../../src/partners/inbox';
import { siteReceiver } from '../../src/partners/site/site';

const piece = (k: number, over: Partial<BatchPiece> = {}): BatchPiece => ({
	address: `z/1.${k}`,
	mark: `Z-${k}`,
	list: 'panels',
	part: 'Flat plate',
	variant: 'plain',
	kind: 'K1',
	materials: ['glass'],
	area: 1e6,
	length: null,
	long_side: 1000,
	short_side: 1000,
	smallest_angle: Math.PI / 2,
	mass: 20,
	anchors: [[0, 0, 10 * k]],
	...over
});
const batchOf = (count: number, over: Partial<Batch> = {}): Batch => ({
	format: 'zygaster batch',
	version: 1,
	project: { id: '0c9e4b72-61d5-4a8f-b3e7-7a5d1c2f8e94', name: 'Wall' },
	release: 3,
	at: '2026-11-30T10:00:00.000Z',
	batch: 2,
	of: 5,
	pieces: Array.from({ length: count }, (_, k) => piece(k)),
	...over
});
const answerTo = (batch: Batch, is: (k: number) => 'accepted' | 'refused' = () => 'accepted'): Answer => ({
	format: 'zygaster answer',
	version: 1,
	release: batch.release,
	batch: batch.batch,
	pieces: batch.pieces.map(({ list, address }, k) => ({
		list,
		address,
		is: is(k),
		reason: is(k) === 'refused' ? 'too long' : '',
		lead_days: is(k) === 'accepted' ? 10 : null
	}))
});
const nobody: { share: number; kinds: [] } = { share: 0, kinds: [] };

let folder: string;
beforeEach(() => (folder = mkdtempSync(join(tmpdir(), 'zygaster-partner-'))));
afterEach(() => rmSync(folder, { recursive: true, force: true }));

describe('messages between the application and its partners', () => {
	it('are documented as they are', () => {
		for (const [name, structure] of Object.entries(messageStructures())) {
			const kept: unknown = JSON.parse(
				readFileSync(new URL(`../../docs/${name}.schema.json`, import.meta.url), 'utf8')
			);
			expect(kept, 'run npm run docs:schema').to.deep.equal(JSON.parse(JSON.stringify(structure)));
		}
	});
});

describe('an answer of a partner', () => {
	it('is read in the order of what was sent, however it is ordered and however often a thing is said', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 40 }),
				fc.infiniteStream(fc.nat(1e6)),
				fc.infiniteStream(fc.boolean()),
				(count, order, coins) => {
					const batch = batchOf(count);
					const verdicts = batch.pieces.map(() => (coins.next().value ? 'accepted' : 'refused'));
					const said = answerTo(batch, (k) => verdicts[k]!);
					const twice = said.pieces.flatMap((one) => (coins.next().value ? [one, one] : [one]));
					const mixed = twice
						.map((one) => [order.next().value, one] as const)
						.sort(([a], [b]) => a - b)
						.map(([, one]) => one);
					const read = readAnswer(JSON.stringify({ ...said, pieces: mixed }), batch);
					expect(read.map(({ address }) => address)).to.deep.equal(
						batch.pieces.map(({ address }) => address)
					);
					expect(read.map(({ is }) => is)).to.deep.equal(verdicts);
				}
			)
		);
	});

	it('that cannot be taken is told of in a sentence', () => {
		const batch = batchOf(3);
		const good = answerTo(batch);
		const [first, second] = good.pieces;
		const bad: readonly (readonly [text: string, sentence: RegExp])[] = [
			['', /not JSON, but empty/],
			['<p>Welcome to our new portal!</p>', /is not JSON; it begins with “<p>Welcome/],
			['[]', /cannot be read/],
			[JSON.stringify({ ...good, version: 2 }), /cannot be read: version: one of 1 is wanted/],
			[JSON.stringify({ ...good, batch: 4 }), /to batch 4 of release 3, not to batch 2 of release 3/],
			[
				JSON.stringify({ ...good, pieces: [...good.pieces, { ...first, address: 'z/9.9' }] }),
				/panels z\/9\.9, which was not sent/
			],
			[
				JSON.stringify({ ...good, pieces: [second] }),
				/2 of 3 pieces are without an answer; the first is panels z\/1\.0/
			],
			[
				JSON.stringify({ ...good, pieces: [...good.pieces, { ...first, is: 'refused', lead_days: null }] }),
				/two things of panels z\/1\.0: accepted and refused/
			]
		];
		for (const [text, sentence] of bad)
			expect(() => readAnswer(text, batch), text).to.throw(MessageError, sentence);
	});
});

describe('the inbox of a partner', () => {
	it('answers a key that comes again as before and does nothing twice, after a start too', () => {
		const path = join(folder, 'messages.jsonl');
		const text = JSON.stringify(batchOf(4));
		const { inbox } = fabricatorDesk(path, nobody);
		const first = inbox.take('a', text);
		expect(inbox.take('a', text)).to.equal(first);
		expect([inbox.all.length, inbox.pieces]).to.deep.equal([1, 4]);
		expect(() => inbox.take('a', JSON.stringify(batchOf(3)))).to.throw(NotTaken, /another message before/);
		// A line that was not written whole was never said.
		appendFileSync(path, '{"key":"b","ha');
		const again = fabricatorDesk(path, nobody).inbox;
		expect(again.take('a', text)).to.deep.equal(first);
		expect([again.all.length, again.pieces]).to.deep.equal([1, 4]);
		again.take('c', text);
		expect(fabricatorDesk(path, nobody).inbox.all.map(({ key }) => key)).to.deep.equal(['a', 'c']);
	});

	it('takes nothing without a key, nothing that is no message, and says what is wrong', () => {
		const inbox = new Inbox(null, () => ({ is: 'accepted', reason: '', lead_days: null }));
		const text = JSON.stringify(batchOf(1));
		expect(() => inbox.take(undefined, text)).to.throw(NotTaken, /needs an idempotency-key/);
		expect(() => inbox.take('a', 'hello')).to.throw(NotTaken, /not JSON/);
		expect(() => inbox.take('a', text.replace('"panels"', '"doors"'))).to.throw(NotTaken, /pieces\/0\/list/);
		expect(inbox.all).to.have.length(0);
	});

	it('of the desk refuses what its machines cannot make, and says why and by how much', () => {
		const at = (over: Partial<BatchPiece>) => whyNot(piece(0, over));
		expect(at({})).to.equal('');
		expect(at({ long_side: 6000 })).to.equal('');
		expect(at({ long_side: 6000.2 })).to.equal(
			'long side on the bed of the plate saw: 6000.2 mm, at most 6000 mm'
		);
		expect(at({ smallest_angle: (14 * Math.PI) / 180 })).to.contain('14°, at least 15°');
		expect(at({ length: 8000, mass: 900 }).split('; ')).to.have.length(2);
		const { answer } = fabricatorDesk(null, nobody).inbox.take(
			'a',
			JSON.stringify(batchOf(1, { pieces: [piece(0), piece(1, { mass: 1e4 })] }))
		);
		expect(answer.pieces.map(({ is, lead_days }) => [is, lead_days])).to.deep.equal([
			['accepted', 11],
			['refused', null]
		]);
	});
});

describe('the site receiver', () => {
	const news = (site: ReturnType<typeof siteReceiver>, from = 0) =>
		site.read!(new URL(`http://site/news?project=${batchOf(1).project.id}&release=3&from=${from}`)) as News;

	it('makes, delivers and sets every piece once and in this order, from below, across starts', () => {
		const { inbox } = siteReceiver(folder, nobody);
		const upside = batchOf(60);
		inbox.take('a', JSON.stringify({ ...upside, pieces: [...upside.pieces].reverse() }));
		for (let k = 0; k < 40; k++) siteReceiver(folder, nobody).work(7);
		const all = news(siteReceiver(folder, nobody)).pieces;
		expect(all).to.have.length(180);
		const last = siteReceiver(folder, nobody);
		last.work(100);
		expect(news(last).pieces).to.have.length(180);
		const places = new Map(all.map(({ is, address }, k) => [`${is} ${address}`, k]));
		const heights = all.filter(({ is }) => is === 'set').map(({ address }) => Number(address.split('.')[1]));
		expect(heights).to.deep.equal(Array.from({ length: 60 }, (_, k) => k));
		for (const { address } of upside.pieces) {
			const [made, delivered, set] = ['made', 'delivered', 'set'].map((is) =>
				places.get(`${is} ${address}`)!
			);
			expect(made! < delivered! && delivered! < set!, address).to.equal(true);
		}
		expect(news(last, 170).pieces).to.deep.equal(all.slice(170));
		expect(news(last, 170).next).to.equal(180);
	});

	it('refuses pieces that have no place to be put', () => {
		const { answer } = siteReceiver(null, nobody).inbox.take(
			'a',
			JSON.stringify(batchOf(1, { pieces: [piece(0, { anchors: [] })] }))
		);
		expect(answer.pieces[0]!.reason).to.equal('it has no points to be placed by');
	});
});
