import { expect } from 'chai';
import { sql } from 'kysely';
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { START } from '../saving/wardrobe';
import { ask, create, open, running, save } from './running';

async function query(text: string): Promise<pg.QueryResult> {
	const client = new pg.Client({ connectionString: running.databaseUrl });
	await client.connect();
	const result = await client.query(text);
	await client.end();
	return result;
}

/** Do something while another connection holds a project's row. */
async function whileLocked(id: string, act: () => Promise<void>): Promise<void> {
	const client = new pg.Client({ connectionString: running.databaseUrl });
	await client.connect();
	await client.query('begin');
	await client.query('select 1 from project where id = $1 for update', [id]);
	await act();
	await client.query('rollback');
	await client.end();
}

const naming = (value: string) => ({
	kind: 'do',
	id: randomUUID(),
	window: randomUUID(),
	label: 'name',
	edits: [{ do: 'set', path: 'name', value }]
});

describe('the server and its database', () => {
	it('adds a project once, whoever else does; while it is made no transaction is open that could be ended', async () => {
		const { connect } = await import('../../src/lib/server/database');
		const { Documents } = await import('../../src/lib/server/documents');
		const { Projects } = await import('../../src/lib/server/projects');
		const { readProject } = await import('../../src/core/project/read');
		const db = connect(running.databaseUrl);
		try {
			const projects = new Projects(db, new Documents(db));
			const name = `once ${randomUUID()}`;
			let open = -1;
			const make = async () => [readProject({ ...START, name }), { pieces: 7, picture: null }] as const;
			await projects.addOnce(`alone ${name}`, async () => {
				const client = new pg.Client({ connectionString: running.databaseUrl });
				await client.connect();
				const asked =
					"select count(*)::int as n from pg_stat_activity where state like 'idle in transaction%'";
				open = (await client.query(asked)).rows[0].n as number;
				await client.end();
				return make();
			});
			expect(open).to.equal(0);
			await Promise.all([1, 2, 3].map(() => projects.addOnce(`together ${name}`, make)));
			await projects.addOnce(`together ${name}`, make);
			const { rows } = await query(`select 1 from project where name = '${name}'`);
			expect(rows).to.have.length(2);
		} finally {
			await db.destroy();
		}
	});

	it('outlives its connections: all are ended, and the next request is served', async () => {
		const id = await create(START);
		const { epoch } = await open(id);
		for (let k = 0; k < 10; k++) {
			const asked = Array.from({ length: 8 }, () => save(id, { epoch, base: 0, commands: [naming(`${k}`)] }));
			await query(
				"select pg_terminate_backend(pid) from pg_stat_activity where pid <> pg_backend_pid() and backend_type = 'client backend'"
			);
			for (const { status } of await Promise.all(asked)) expect(status).to.be.oneOf([200, 503]);
		}
		expect(running.server.exitCode).to.equal(null);
		expect((await ask('GET', '/api/health')).status).to.equal(200);
		expect((await save(id, { epoch, base: 0, commands: [naming('after')] })).status).to.equal(200);
	});

	it('connections that ended while they lay idle, and nobody here was told yet, are not given to anybody', async () => {
		const { connect } = await import('../../src/lib/server/database');
		const db = connect(running.databaseUrl);
		try {
			const here = sql<{ pid: number }>`select pg_backend_pid() as pid from pg_sleep(0.2)`;
			const idle = await Promise.all([1, 2, 3].map(async () => (await here.execute(db)).rows[0]!.pid));
			expect(new Set(idle)).to.have.length(3);
			// By another program while this one stands still, so that it hears of it only after it has asked.
			execFileSync(process.execPath, [
				'--input-type=module',
				'--eval',
				`import pg from 'pg';
				const client = new pg.Client({ connectionString: process.argv[1] });
				await client.connect();
				await client.query('select pg_terminate_backend(pid, 5000) from unnest($1::int[]) pid', [[${idle}]]);
				await client.end();`,
				running.databaseUrl
			]);
			const [now] = (await here.execute(db)).rows;
			expect(now!.pid).not.to.be.oneOf(idle);
		} finally {
			await db.destroy();
		}
	});

	it('more windows than connections wait for each other, and none hangs', async () => {
		const id = await create(START);
		const { epoch } = await open(id);
		let asked: ReturnType<typeof save>[] = [];
		await whileLocked(id, async () => {
			asked = Array.from({ length: 40 }, (_, k) => save(id, { epoch, base: 0, commands: [naming(`${k}`)] }));
			await new Promise((resolve) => setTimeout(resolve, 500));
		});
		for (const { status } of await Promise.all(asked)) expect(status).to.equal(200);
		expect((await open(id)).revision).to.equal(40);
	});

	it('a row that stays locked is answered with when to ask again', async () => {
		const id = await create(START);
		const { epoch } = await open(id);
		await whileLocked(id, async () => {
			const { status, headers, body } = await ask('POST', `/api/projects/${id}/edits`, {
				epoch,
				base: 0,
				commands: [naming('x')]
			});
			expect(status).to.equal(503);
			expect(headers.get('retry-after')).to.equal('2');
			expect(body).to.include({ code: 'database' });
			expect(body.message).to.match(/does not answer for the moment/);
		});
	});
});
