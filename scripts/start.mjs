// npm start: set up what is missing, then serve.
import { startDatabase } from './lib/postgres.mjs';
import { ensurePackages, fail, say } from './lib/system.mjs';

const port = Number(process.env.PORT ?? 4300);

try {
	ensurePackages();
	const { ensureBuild } = await import('./lib/build.mjs');
	const { prepareDatabase, serve, stopOnSignal } = await import('./lib/serve.mjs');
	ensureBuild();
	const database = await startDatabase();
	try {
		prepareDatabase(database.url);
		const { server, address } = await serve(database.url, port);
		stopOnSignal(server, database);
		say(`Zygaster is ready: ${address}`);
	} catch (error) {
		database.stop();
		throw error;
	}
} catch (error) {
	fail(error);
}
