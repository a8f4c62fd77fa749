// The simulated partners, each a program of its own beside the server.
import { join } from 'node:path';
import { endLeft, keepRunning } from './keep-running.mjs';
import { freePort, isFree } from './processes.mjs';
import { programFile } from './programs.mjs';
import { data } from './system.mjs';

const partners = [
	{ id: 'desk', what: 'the fabricator desk', setting: 'FABRICATOR_DESK' },
	{ id: 'site', what: 'the site receiver', setting: 'SITE_RECEIVER' }
];

/**
 * Start the partners of a server, on the ports after its own where they are free.
 * @returns what the server is told of them, and how to stop them
 */
export async function startPartners(port) {
	const program = await programFile('partner');
	const settings = {};
	const running = [];
	for (const [k, { id, what, setting }] of partners.entries()) {
		const name = `partner-${id}-${port}`;
		await endLeft(name);
		const wanted = port + 1 + k;
		const own = (await isFree(wanted)) ? wanted : await freePort();
		const env = { ...process.env, PARTNER: id, PORT: String(own), LEDGER: join(data, 'partners', id) };
		running.push(keepRunning(name, what, [program], env));
		settings[setting] = `http://127.0.0.1:${own}`;
	}
	return { settings, stop: () => Promise.all(running.map((one) => one.stop())) };
}
