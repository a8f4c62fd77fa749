import { expect } from 'chai';
import { randomUUID } from 'node:crypto';
import { readdirSync } from 'node:fs';
import { request as plainRequest } from 'node:http';
import { join } from 'node:path';
import { root } from '../../scripts/lib/system.mjs';
import { START } from '../saving/wardrobe';
import { ask, create, launch, running } from './running';

/** The status of a request with headers that fetch would not send. */
function statusOf(method: string, path: string, headers: Record<string, string>, body = ''): Promise<number> {
	return new Promise((resolve, reject) => {
		const { port } = new URL(running.address);
		const request = plainRequest({ host: '127.0.0.1', port, method, path, headers }, (response) => {
			response.resume();
			resolve(response.statusCode ?? 0);
		});
		request.once('error', reject);
		request.end(body);
	});
}

describe('who may ask', () => {
	const host = () => new URL(running.address).host;

	it('another host name is not served, whatever the route', async () => {
		for (const path of ['/', '/api/projects', '/api/health'])
			expect(await statusOf('GET', path, { host: 'evil.example' })).to.equal(421);
		const headers = { host: 'evil.example', 'content-type': 'application/json' };
		expect(await statusOf('POST', '/api/projects', headers, '{"name":"x"}')).to.equal(421);
		expect(await statusOf('GET', '/api/health', { host: host().replace('127.0.0.1', 'localhost') })).to.equal(
			200
		);
	});

	it('a page of another site cannot read or write', async () => {
		const id = await create(START);
		const path = `/api/projects/${id}/duplicate`;
		const foreign = { host: host(), origin: 'http://evil.example' };
		expect(await statusOf('POST', path, { ...foreign, 'content-type': 'application/json' }, '{}')).to.equal(
			403
		);
		expect(await statusOf('GET', path, foreign)).to.equal(403);
		// What a form or an image of another page can send without being asked first:
		for (const type of ['text/plain', 'application/x-www-form-urlencoded', 'multipart/form-data'])
			expect(await statusOf('POST', path, { host: host(), 'content-type': type }, '{}')).to.equal(403);
		expect(await statusOf('POST', path, { host: host() })).to.equal(403);
		expect(await statusOf('DELETE', `/api/projects/${id}`, { host: host() })).to.equal(403);
		expect((await ask('GET', `/api/projects/${id}`)).status).to.equal(200);
	});

	it('pages may not be framed, guessed or sent elsewhere', async () => {
		const { headers } = await ask('GET', '/');
		const policy = headers.get('content-security-policy') ?? '';
		for (const rule of [
			"frame-ancestors 'none'",
			"base-uri 'self'",
			"form-action 'self'",
			"object-src 'none'"
		])
			expect(policy).to.contain(rule);
		expect(policy).not.to.contain('unsafe-eval;');
		expect(headers.get('x-content-type-options')).to.equal('nosniff');
		expect(headers.get('referrer-policy')).to.equal('same-origin');
		expect((await ask('GET', '/api/projects')).headers.get('x-content-type-options')).to.equal('nosniff');
	});

	it('pages and files are of this server alone, so that threads may share memory with them', async () => {
		const script = readdirSync(join(root, 'build/client/_app/immutable/workers')).find((name) =>
			name.startsWith('chain.worker')
		)!;
		for (const path of ['/', `/_app/immutable/workers/${script}`, '/api/projects']) {
			const { status, headers } = await ask('GET', path);
			expect(status, path).to.equal(200);
			expect(headers.get('cross-origin-opener-policy'), path).to.equal('same-origin');
			expect(headers.get('cross-origin-embedder-policy'), path).to.equal('require-corp');
			expect(headers.get('cross-origin-resource-policy'), path).to.equal('same-origin');
		}
	});

	it('a stored picture is served as the drawing it is, and nothing in it runs', async () => {
		const id = await create(START);
		const picture = '<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>';
		await ask('PUT', `/api/projects/${id}/picture`, { picture, pieces: 1 });
		const { headers } = await ask('GET', `/api/projects/${id}/picture`);
		expect(headers.get('content-type')).to.match(/^image\/svg\+xml/);
		expect(headers.get('content-security-policy')).to.match(/default-src 'none'.*sandbox/);
		expect(
			(await ask('PUT', `/api/projects/${id}/picture`, { picture: '<html>', pieces: 1 })).status
		).to.equal(400);
	});

	it('a client that asks too often is asked to wait, and served again', async () => {
		const own = await launch(running.databaseUrl, { MOST_REQUESTS: '20' });
		try {
			const statuses: number[] = [];
			for (let k = 0; k < 150; k++) {
				const answer = await fetch(`${own.address}/api/health`);
				statuses.push(answer.status);
				if (answer.status === 429) expect(answer.headers.get('retry-after')).to.equal('1');
			}
			expect(statuses).to.include(429);
			await new Promise((resolve) => setTimeout(resolve, 1000));
			expect((await fetch(`${own.address}/api/health`)).status).to.equal(200);
		} finally {
			await own.stop();
		}
	});

	it('unknown projects, revisions and routes are told as such', async () => {
		const id = randomUUID();
		for (const [method, path, body] of [
			['GET', `/api/projects/${id}`],
			['DELETE', `/api/projects/${id}`],
			['POST', `/api/projects/${id}/restore`],
			['POST', `/api/projects/${id}/duplicate`, {}],
			['GET', `/api/projects/${id}/history`],
			['GET', `/api/projects/${id}/states/1`],
			['GET', `/api/projects/${id}/picture`],
			['PUT', `/api/projects/${id}/picture`, { picture: '<svg ></svg>', pieces: 0 }],
			['POST', `/api/projects/${id}/edits`, { epoch: id, base: 0, commands: [] }],
			['GET', `/api/files/${'0'.repeat(64)}`],
			['GET', '/api/files/0'],
			['GET', '/api/projects/no-such-id'],
			['GET', '/api/nothing']
		] as const)
			expect((await ask(method, path, body)).status, `${method} ${path}`).to.equal(404);
	});
});
