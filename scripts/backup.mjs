// npm run backup [-- FILE]: everything in the database, in one file, with the number of every project's document.
import { existsSync, mkdirSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { takeLock } from './lib/processes.mjs';
import { data, ensurePackages, fail, say } from './lib/system.mjs';

try {
	const release = await takeLock('set-up');
	ensurePackages();
	const { startDatabase } = await import('./lib/postgres.mjs');
	const { writeBackup } = await import('./lib/archive.mjs');
	const stamp = new Date().toISOString().slice(0, 19).replaceAll(':', '-');
	const file = resolve(process.argv[2] ?? join(data, 'backups', `${stamp}.zyg-backup`));
	if (existsSync(file)) throw new Error(`${file} is there already; name another file`);
	mkdirSync(dirname(file), { recursive: true });
	const database = await startDatabase();
	try {
		const projects = await writeBackup(database.url, file);
		say(`${projects.length} projects are in ${file}`);
	} finally {
		if (!database.wasRunning) database.stop();
		await release();
	}
} catch (error) {
	fail(error);
}
