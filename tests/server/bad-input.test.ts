import { expect } from 'chai';
import { randomUUID } from 'node:crypto';
import { hashOfFile } from '../../src/core/project/files';
import { randomFrom, START, type Random } from '../saving/wardrobe';
import { ask, create, open } from './running';

const NASTY: readonly unknown[] = [
	null,
	true,
	0,
	-1,
	1e308,
	2 ** 31,
	2 ** 53,
	0.5,
	'',
	'x'.repeat(5000),
	'a\0b',
	'\ud800',
	'__proto__',
	'constructor',
	'../..',
	'%00',
	[],
	{},
	[[]],
	{ __proto__: 1 },
	{ toString: 1 }
];

/** A value like another one, with something wrong at a random place. */
function mutated(value: unknown, random: Random): unknown {
	const pick = () => NASTY[Math.floor(random() * NASTY.length)];
	if (typeof value !== 'object' || value === null || random() < 0.15) return pick();
	const copy = structuredClone(value) as Record<string, unknown> | unknown[];
	const keys = Object.keys(copy);
	const key = keys[Math.floor(random() * keys.length)];
	const record = copy as Record<string, unknown>;
	if (key === undefined || random() < 0.1) record[`k${Math.floor(random() * 9)}`] = pick();
	else if (random() < 0.15) Reflect.deleteProperty(record, key);
	else record[key] = mutated(record[key], random);
	return copy;
}

const nested = (depth: number) => `${'['.repeat(depth)}${']'.repeat(depth)}`;

/** What programs tell refusals apart by. */
const CODES = ['request', 'not-found', 'out-of-step', 'command', 'document'];

describe('bad input', () => {
	it('5,000 bodies on all routes: no 500, and every refusal is a sentence', async () => {
		const random = randomFrom(51);
		const id = await create(START);
		const { epoch } = await open(id);
		const command = () => ({
			kind: random() < 0.7 ? 'do' : 'undo',
			id: randomUUID(),
			window: randomUUID(),
			label: 'x',
			...(random() < 0.7 && { edits: [{ do: 'set', path: 'variants/oak/name', value: 'y' }] }),
			...(random() < 0.3 && { of: randomUUID() })
		});
		const routes: (() => [string, string, unknown])[] = [
			() => ['POST', '/api/projects', { document: START }],
			() => ['POST', '/api/projects', { name: 'x' }],
			() => ['POST', `/api/projects/${id}/edits`, { epoch, base: 0, commands: [command(), command()] }],
			() => ['POST', `/api/projects/${id}/duplicate`, { revision: 0 }],
			() => ['POST', `/api/projects/${id}/restore`, {}],
			() => ['PUT', `/api/projects/${id}/picture`, { picture: '<svg ></svg>', pieces: 3 }],
			() => ['PUT', `/api/files/${hashOfFile('{"faces":[]}')}`, { faces: [] }],
			() => ['PATCH', `/api/projects/${id}`, {}],
			() => ['GET', `/api/projects/${id}/history`, { before: '7', as: 'list' }],
			() => ['GET', `/api/projects/${id}/states/1`, {}]
		];
		const one = async () => {
			const [method, path, body] = routes[Math.floor(random() * routes.length)]!();
			let sent: unknown = mutated(body, random);
			if (random() < 0.3) sent = mutated(sent, random);
			const query =
				method === 'GET' && typeof sent === 'object' && sent !== null
					? `?${new URLSearchParams(Object.entries(sent).map(([k, v]) => [k, (JSON.stringify(v) ?? '').toWellFormed()]))}`
					: '';
			const text = random() < 0.05 ? String(JSON.stringify(sent)).slice(0, -1) : JSON.stringify(sent);
			const answer = await ask(method, path + query, method === 'GET' ? undefined : (text ?? ''));
			expect(answer.status, `${method} ${path}${query} ${text?.slice(0, 300)}`).to.be.below(500);
			if (answer.status >= 400 && answer.status !== 405) {
				expect(answer.body.message, `${method} ${path} ${text?.slice(0, 300)}`).to.be.a('string').and.not
					.empty;
				expect(CODES, answer.body.message).to.include(answer.body.code);
			}
		};
		for (let k = 0; k < 5000; k += 20) await Promise.all(Array.from({ length: 20 }, one));
		expect((await ask('GET', `/api/projects/${id}`)).status).to.equal(200);
	}).timeout(120_000);

	it('what was answered 500 once is a sentence: null, a base beyond int4, deep nesting, NUL, half surrogates', async () => {
		const id = await create(START);
		const { epoch } = await open(id);
		const edits = `/api/projects/${id}/edits`;
		const set = (value: unknown) => ({
			epoch,
			base: 0,
			commands: [
				{
					kind: 'do',
					id: randomUUID(),
					window: randomUUID(),
					label: 'x',
					edits: [{ do: 'set', path: 'name', value }]
				}
			]
		});
		for (const [path, body, sentence] of [
			[edits, 'null', /cannot be read/],
			['/api/projects', 'null', /cannot be read/],
			[edits, { epoch, base: 2 ** 31, commands: [] }, /base/],
			[edits, nested(200), /nested deeper/],
			['/api/projects', `{"document":${nested(200_000)}}`, /nested deeper/],
			[edits, set('a\0b'), /NUL/],
			[edits, set('a\ud800'), /surrogate/],
			['/api/projects', { document: { ...START, name: 'a\0' } }, /NUL/]
		] as const) {
			const { status, body: answer } = await ask('POST', path, body);
			expect(status, String(sentence)).to.equal(400);
			expect(answer.message).to.match(sentence);
			expect(answer.code).to.equal('request');
		}
		expect((await open(id)).revision).to.equal(0);
	});

	it('of many faults twenty are told, and how many there are', async () => {
		const levels = Array.from({ length: 4000 }, (_, k) => ({
			id: `l${k}`,
			name: 'x'.repeat(20),
			height: 'no'
		}));
		const { status, body } = await ask('POST', '/api/projects', { document: { ...START, levels } });
		expect(status).to.equal(422);
		expect(body.message.split('\n')).to.have.length(21);
		expect(body.message).to.match(/and 3980 more faults$/);
		expect(body.message.length).to.be.below(10_000);
		expect(body.code).to.equal('document');
	});
});
