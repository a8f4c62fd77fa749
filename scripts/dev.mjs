// npm run dev: the same with the development server.
import { startDatabase } from './lib/postgres.mjs';
import { ensurePackages, fail, start } from './lib/system.mjs';

try {
	ensurePackages();
	const { prepareDatabase, stopOnSignal } = await import('./lib/serve.mjs');
	const database = await startDatabase();
	prepareDatabase(database.url);
	const server = start(
		process.execPath,
		['node_modules/vite/bin/vite.js', 'dev', '--port', process.env.PORT ?? '4300'],
		{
			env: { ...process.env, DATABASE_URL: database.url },
			detached: true
		}
	);
	stopOnSignal(server, database);
} catch (error) {
	fail(error);
}
