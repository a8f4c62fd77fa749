// npm start: set up what is missing, then serve. With --verbose everything that is run says what it does.
import { holdLock, takeLock } from './lib/processes.mjs';
import { ensurePackages, fail, say, SetUpError } from './lib/system.mjs';

const port = Number(process.env.PORT ?? 4300);

try {
	const release = await takeLock('set-up');
	// Held for as long as this process lives: another starter of the same port knows by it.
	if (!(await holdLock(`port ${port}`)))
		throw new SetUpError(
			`Zygaster is running here already: http://127.0.0.1:${port}. Stop that one first, or choose another port: PORT=… npm start`
		);
	ensurePackages();
	const { ensureBuild } = await import('./lib/build.mjs');
	const { startDatabase } = await import('./lib/postgres.mjs');
	const { claimPort, prepareDatabase, serve, stopOnSignal } = await import('./lib/serve.mjs');
	await ensureBuild();
	await claimPort(port);
	const database = await startDatabase();
	try {
		await prepareDatabase(database.url);
		const { address, stop } = await serve(database, port);
		stopOnSignal(stop);
		await release();
		say(`Zygaster is ready: ${address}`);
	} catch (error) {
		database.stop();
		throw error;
	}
} catch (error) {
	fail(error);
}
