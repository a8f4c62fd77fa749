// npm run restore -- FILE: the database as it was when the backup was made. What is there now is backed up first.
import { existsSync, mkdirSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { takeLock } from './lib/processes.mjs';
import { data, ensurePackages, fail, say, SetUpError } from './lib/system.mjs';

try {
	const file = process.argv[2] && resolve(process.argv[2]);
	if (!file || !existsSync(file))
		throw new SetUpError(
			`name a backup that is there: npm run restore -- FILE${file ? ` (not ${file})` : ''}`
		);
	const release = await takeLock('set-up');
	ensurePackages();
	const { startDatabase } = await import('./lib/postgres.mjs');
	const { readBackup, writeBackup } = await import('./lib/archive.mjs');
	const { prepareDatabase } = await import('./lib/serve.mjs');
	const database = await startDatabase();
	try {
		await prepareDatabase(database.url);
		const stamp = new Date().toISOString().slice(0, 19).replaceAll(':', '-');
		const before = join(data, 'backups', `${stamp}-before-restore.zyg-backup`);
		mkdirSync(join(data, 'backups'), { recursive: true });
		await writeBackup(database.url, before);
		say(`what was there is kept in ${before}`);
		const projects = await readBackup(database.url, file);
		await prepareDatabase(database.url);
		say(`${projects.length} projects are as they were, each with the number it had; open windows notice`);
	} finally {
		if (!database.wasRunning) database.stop();
		await release();
	}
} catch (error) {
	fail(error);
}
