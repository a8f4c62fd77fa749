// npm run dev: the same with the development server.
import { takeLock } from './lib/processes.mjs';
import { ensurePackages, fail, start, SetUpError } from './lib/system.mjs';

const port = process.env.PORT ?? '4300';

try {
	const release = await takeLock('set-up');
	ensurePackages();
	const { startDatabase } = await import('./lib/postgres.mjs');
	const { startPartners } = await import('./lib/partners.mjs');
	const { claimPort, prepareDatabase, serverSettings, stopOnSignal } = await import('./lib/serve.mjs');
	await claimPort(Number(port));
	const database = await startDatabase();
	await prepareDatabase(database.url);
	const partners = await startPartners(Number(port));
	await release();
	const server = start(process.execPath, ['node_modules/vite/bin/vite.js', 'dev', '--port', port], {
		env: { ...serverSettings(database.url, port), ...partners.settings },
		detached: true
	});
	const ended = new Promise((resolve) => server.once('exit', (code, signal) => resolve(signal ?? code)));
	const stop = async () => {
		server.kill('SIGTERM');
		await ended;
		await partners.stop();
		database.stop();
	};
	stopOnSignal(stop);
	const why = await ended;
	await partners.stop();
	database.stop();
	if (why !== 0) throw new SetUpError(`the development server ended (${why})`);
} catch (error) {
	fail(error);
}
