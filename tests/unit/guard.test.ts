import { expect } from 'chai';
import { allowedFrom, RateLimit, refusalOf } from '../../src/lib/server/guard';
import { isPassing } from '../../src/lib/server/database';
import { checkJson } from '../../src/lib/server/strict-json';

describe('guard', () => {
	const allowed = allowedFrom('http://127.0.0.1:4300', 'plans.example:8443, other.example');
	const status = (method: string, headers: Record<string, string>) => {
		const request = new Request('http://127.0.0.1:4300/api/projects', { method });
		const all = new Headers({ host: '127.0.0.1:4300', ...headers });
		// A Request of this platform does not take a host: what the guard reads is given as it is.
		return refusalOf({ method: request.method, headers: all } as Request, allowed)?.status ?? 200;
	};

	it('takes the names of loopback and those that are added, with their port', () => {
		for (const host of [
			'127.0.0.1:4300',
			'localhost:4300',
			'LOCALHOST:4300',
			'[::1]:4300',
			'plans.example:8443',
			'other.example'
		])
			expect(status('GET', { host }), host).to.equal(200);
		for (const host of [
			'127.0.0.1',
			'127.0.0.1:80',
			'evil.example',
			'plans.example',
			'127.0.0.1:4300.evil.example',
			''
		])
			expect(status('GET', { host }), host).to.equal(421);
	});

	it('writes come from our own pages, in a way that others cannot send unasked', () => {
		const json = { 'content-type': 'application/json; charset=utf-8' };
		expect(status('POST', json)).to.equal(200);
		expect(status('POST', { 'x-zygaster': '1' })).to.equal(200);
		expect(status('POST', { ...json, origin: 'http://localhost:4300' })).to.equal(200);
		expect(status('POST', { ...json, origin: 'https://plans.example:8443' })).to.equal(200);
		for (const headers of [
			{},
			{ 'content-type': 'text/plain' },
			{ 'content-type': 'text/plain; a=application/json' },
			{ ...json, origin: 'http://evil.example' },
			{ ...json, origin: 'null' },
			{ ...json, 'sec-fetch-site': 'cross-site' }
		])
			expect(status('POST', headers as Record<string, string>), JSON.stringify(headers)).to.equal(403);
	});

	it('a client has a burst and then its rate; others are not held up, and rest brings the burst back', () => {
		const limit = new RateLimit(10, 50);
		const admitted = (client: string, times: number, now: number) =>
			Array.from({ length: times }, () => limit.admits(client, now)).filter(Boolean).length;
		expect(admitted('a', 80, 0)).to.equal(50);
		expect(admitted('a', 80, 1000)).to.equal(10);
		expect(admitted('b', 80, 1000)).to.equal(50);
		expect(admitted('a', 80, 1500)).to.equal(5);
		expect(admitted('a', 80, 60_000)).to.equal(50);
		for (let k = 0; k < 20_000; k++) limit.admits(`c${k}`, 120_000);
		expect(admitted('a', 80, 120_000)).to.equal(50);
	});
});

describe('strict JSON', () => {
	it('what cannot be kept is told with its place', () => {
		expect(checkJson({ a: [1, 'x', null, { b: true }] })).to.equal(null);
		expect(checkJson('é 🙂 \u2028')).to.equal(null);
		expect(checkJson({ a: [{ b: 'x\0y' }] })).to.match(/^a\/0\/b: .*NUL/);
		expect(checkJson({ a: { b: 'x\udc00' } })).to.match(/^a\/b: .*surrogate/);
		expect(checkJson({ 'k\0': 1 })).to.match(/a key in the text: .*NUL/);
		expect(checkJson({ ['k'.repeat(2000)]: 1 })).to.match(/a key has 2000 letters/);
		let deep: unknown = 1;
		for (let k = 0; k < 99; k++) deep = [deep];
		expect(checkJson(deep)).to.equal(null);
		expect(checkJson([[deep]])).to.match(/nested deeper than 100/);
	});
});

describe('errors of the database', () => {
	const withCode = (code: string) => Object.assign(new Error('x'), { code });

	it('those that pass are told from those that stay', () => {
		for (const code of [
			'57P01',
			'57P03',
			'53300',
			'08006',
			'55P03',
			'57014',
			'40001',
			'ECONNREFUSED',
			'ECONNRESET'
		])
			expect(isPassing(withCode(code)), code).to.equal(true);
		for (const code of ['23505', '42P01', '22P02', 'ERR_ASSERTION'])
			expect(isPassing(withCode(code)), code).to.equal(false);
		expect(isPassing(new Error('timeout exceeded when trying to connect'))).to.equal(true);
		expect(isPassing(new Error('Connection terminated unexpectedly'))).to.equal(true);
		expect(isPassing(new TypeError('x is undefined'))).to.equal(false);
		expect(isPassing('x')).to.equal(false);
	});
});
