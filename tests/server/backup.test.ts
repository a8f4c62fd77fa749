import { expect } from 'chai';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { projectNumbers, readBackup, writeBackup } from '../../scripts/lib/archive.mjs';
import { startDatabase } from '../../scripts/lib/postgres.mjs';
import { prepareDatabase } from '../../scripts/lib/serve.mjs';
import { data } from '../../scripts/lib/system.mjs';
import { START } from '../saving/wardrobe';
import { ask, create, launch, open, running, save } from './running';

describe('backup and restore', () => {
	const folder = mkdtempSync(join(tmpdir(), 'zygaster-backup-'));
	after(() => rmSync(folder, { recursive: true }));

	it('into a fresh database: the same projects with the same numbers, and open windows notice', async () => {
		const id = await create(START);
		const { epoch } = await open(id);
		const naming = (value: string) => ({
			kind: 'do',
			id: randomUUID(),
			window: randomUUID(),
			label: value,
			edits: [{ do: 'set', path: 'name', value }]
		});
		await save(id, { epoch, base: 0, commands: [naming('first'), naming('second')] });
		const path = `/api/projects/${id}/releases`;
		expect((await ask('POST', path, { revision: 2, note: 'kept' })).status).to.equal(201);
		const { body: released } = await ask<object>('GET', `${path}/1`);
		const file = join(folder, 'one.zyg-backup');
		const written = await writeBackup(running.databaseUrl, file);
		await save(id, { epoch, base: 2, commands: [naming('after the backup')] });

		const fresh = await startDatabase('pg-fresh');
		try {
			await prepareDatabase(fresh.url);
			const restored = await readBackup(fresh.url, file);
			expect(restored).to.deep.equal(written);
			expect(await projectNumbers(running.databaseUrl)).not.to.deep.equal(written);
			const own = await launch(fresh.url);
			try {
				const opened = await fetch(`${own.address}/api/projects/${id}`);
				const { document, revision, history } = (await opened.json()) as Awaited<ReturnType<typeof open>>;
				expect([document.name, revision]).to.deep.equal(['second', 2]);
				expect(history.map(({ label }) => label)).to.deep.equal(['first', 'second']);
				// What was released came with it, and is kept as well as before.
				expect(await (await fetch(`${own.address}${path}/1`)).json()).to.deep.equal(released);
				// A window of the database before: it knows revision 3, and the epoch it had.
				const late = await fetch(`${own.address}/api/projects/${id}/edits`, {
					method: 'POST',
					headers: { 'content-type': 'application/json' },
					body: JSON.stringify({ epoch, base: 3, commands: [naming('late')] })
				});
				expect(late.status).to.equal(409);
			} finally {
				await own.stop();
			}
		} finally {
			fresh.stop();
			for (const left of ['pg-fresh', 'pg-fresh.json'])
				rmSync(join(data, left), { recursive: true, force: true });
		}
	});

	it('what is no backup is refused in words, and nothing has changed', async () => {
		const file = join(folder, 'none');
		writeFileSync(file, 'something else');
		const before = await projectNumbers(running.databaseUrl);
		let said = '';
		await readBackup(running.databaseUrl, file).catch((error: Error) => (said = error.message));
		expect(said).to.match(/is not a backup of Zygaster/);
		expect(await projectNumbers(running.databaseUrl)).to.deep.equal(before);
		expect((await ask('GET', '/api/health')).status).to.equal(200);
	});
});
