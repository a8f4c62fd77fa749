// Everything between an empty checkout and a page that answers.
import { start, say, run, SetUpError } from './system.mjs';

const node = process.execPath;

/** Bring the database's tables up to date and load the demo project once. */
export function prepareDatabase(url) {
	run(node, ['--import', './scripts/typescript.mjs', 'scripts/prepare-database.ts'], {
		env: { ...process.env, DATABASE_URL: url }
	});
}

/** Start the built server. @returns the process and its address, once it answers */
export async function serve(url, port) {
	const address = `http://127.0.0.1:${port}`;
	const server = start(node, ['build/index.js'], {
		env: {
			...process.env,
			DATABASE_URL: url,
			HOST: '127.0.0.1',
			PORT: String(port),
			ORIGIN: address,
			BODY_SIZE_LIMIT: '64M'
		},
		// Its own group: a Ctrl-C reaches the starter, which then stops things in order.
		detached: true
	});
	let ended = false;
	server.once('exit', () => (ended = true));
	for (let tries = 0; tries < 300; tries++) {
		if (ended) throw new SetUpError(`the server ended before it answered; is port ${port} free?`);
		const answer = await fetch(`${address}/api/health`).catch(() => null);
		if (answer?.ok) return { server, address };
		await new Promise((resolve) => setTimeout(resolve, 100));
	}
	throw new SetUpError(`the server does not answer on ${address}`);
}

/** Stop the server, then the database, whichever way this process ends. */
export function stopOnSignal(server, database) {
	const stop = () => {
		say('stopping');
		server.once('exit', () => {
			database.stop();
			process.exit(0);
		});
		server.kill('SIGTERM');
		setTimeout(() => server.kill('SIGKILL'), 8000).unref();
	};
	process.once('SIGINT', stop);
	process.once('SIGTERM', stop);
	server.once('exit', (code) => {
		if (code) {
			database.stop();
			process.exit(code);
		}
	});
}
