import { expect } from 'chai';
import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { freePort } from '../../scripts/lib/processes.mjs';
import { data } from '../../scripts/lib/system.mjs';
import { Installation } from '../chaos/installation';

/** Once of each kind; `npm run chaos:start` does it thirty times. */
describe('npm start', () => {
	/** Do something with an installation of its own, and leave nothing of it. */
	async function fresh(act: (installation: Installation) => Promise<void>): Promise<void> {
		const folder = mkdtempSync(join(data, 'start-'));
		// PostgreSQL runs as a user of its own.
		chmodSync(folder, 0o711);
		const installation = new Installation(folder, await freePort());
		try {
			await act(installation);
		} finally {
			await installation.stop();
			rmSync(folder, { recursive: true });
		}
	}
	const projects = async ({ port }: Installation) =>
		((await (await fetch(`http://127.0.0.1:${port}/api/projects`)).json()) as { name: string }[]).map(
			({ name }) => name
		);
	const until = async (holds: () => boolean | Promise<boolean>) => {
		for (const end = Date.now() + 30_000; !(await holds());) {
			if (Date.now() > end) throw new Error('it has not come to that');
			await new Promise((resolve) => setTimeout(resolve, 50));
		}
	};

	it('comes up at the first try whatever was killed, says what it found, and keeps what there was', () =>
		fresh(async (installation) => {
			await installation.start();
			expect(await projects(installation)).to.deep.equal(['Tidal Lido']);
			expect(installation.saidSoFar.trim().split('\n').length).to.be.below(12);

			expect(installation.kill('starter')).to.deep.equal(['starter']);
			await installation.start();
			expect(installation.saidSoFar).to.match(
				/server of an earlier start was still on port \d+; it is ended/
			);
			expect(installation.saidSoFar).to.match(/database of an earlier start was still running/);

			installation.kill('starter', 'server', 'database');
			const record = join(installation.data, 'pg/postmaster.pid');
			const [, ...rest] = readFileSync(record, 'utf8').split('\n');
			// The pid was given out again, to a process that lives.
			writeFileSync(record, [String(process.pid), ...rest].join('\n'));
			await installation.start();
			expect(await projects(installation)).to.deep.equal(['Tidal Lido']);

			// The file with the password is gone: the cluster stays, and gets a new one.
			await installation.stop();
			rmSync(join(installation.data, 'pg.json'));
			await installation.start();
			expect(await projects(installation)).to.deep.equal(['Tidal Lido']);
		})).timeout(120_000);

	it('a server and a database that die under it are started again, and the reason is said', () =>
		fresh(async (installation) => {
			await installation.start();
			installation.kill('server');
			await until(() =>
				/the server ended by the signal SIGKILL; it is started again/.test(installation.saidSoFar)
			);
			await until(async () => (await projects(installation).catch(() => [])).length === 1);
			installation.kill('database');
			await until(() => /the database does not answer; it is started again/.test(installation.saidSoFar));
			await until(async () => (await projects(installation).catch(() => [])).length === 1);
		})).timeout(120_000);

	it('a first start that is killed while it makes the database is made good by the next', () =>
		fresh(async (installation) => {
			installation.launch();
			await until(() => existsSync(join(installation.data, 'pg.new')));
			installation.kill('starter', 'server', 'database');
			await installation.start();
			expect(await projects(installation)).to.deep.equal(['Tidal Lido']);
		})).timeout(120_000);

	it('a port that another program holds is told before anything is said to be ready', () =>
		fresh(async (installation) => {
			const other = createServer().listen(installation.port, '127.0.0.1');
			let said = '';
			await installation.start().catch((error: Error) => (said = error.message));
			other.close();
			expect(said).to.match(/port \d+ is taken by another program/);
			expect(said).not.to.match(/ready/);
		})).timeout(60_000);
});
