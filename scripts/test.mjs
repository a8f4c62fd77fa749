// npm test: set up what is missing, then run everything that has to hold, on two cores.
import { spawn } from 'node:child_process';
import { freePort, takeLock } from './lib/processes.mjs';
import {
	CHROMIUM,
	ensureChromium,
	ensureGmsh,
	ensureDrawingReaders,
	ensureSheetReaders,
	ensurePackages,
	fail,
	root,
	say,
	SetUpError
} from './lib/system.mjs';

const running = new Set();

/**
 * Run an npm script; what it prints comes in one piece when it has ended.
 * @param yielding whether it takes only what the others leave of the machine
 * @throws SetUpError when it fails
 */
function npm(script, env = {}, yielding = false) {
	const began = Date.now();
	return new Promise((resolve, reject) => {
		const [command, ...before] = yielding ? ['nice', '-n', '19', 'npm'] : ['npm'];
		const child = spawn(command, [...before, 'run', '--silent', script], {
			cwd: root,
			env: { ...process.env, ...env },
			stdio: ['ignore', 'pipe', 'pipe'],
			detached: true
		});
		running.add(child);
		let output = '';
		for (const stream of [child.stdout, child.stderr])
			stream.on('data', (text) => {
				output += text;
			});
		child.once('exit', (code, signal) => {
			running.delete(child);
			const seconds = Math.round((Date.now() - began) / 1000);
			say(`${script}: ${code === 0 ? 'passed' : `failed (${signal ?? code})`} in ${seconds} s`);
			process.stdout.write(output);
			if (code === 0) resolve();
			else reject(new SetUpError(`${script} failed`));
		});
	});
}

async function inTurn(...scripts) {
	for (const script of scripts) await npm(script, {}, true);
}

const began = Date.now();
try {
	const release = await takeLock('set-up');
	ensurePackages();
	ensureChromium();
	ensureGmsh();
	ensureSheetReaders();
	ensureDrawingReaders();
	await npm('sync');
	const { ensureBuild } = await import('./lib/build.mjs');
	const { programFile } = await import('./lib/programs.mjs');
	const { prepareDatabase } = await import('./lib/serve.mjs');
	const { emptyDatabase, startDatabase } = await import('./lib/postgres.mjs');
	// What needs no browser goes on beside it, in the time it leaves.
	const beside = inTurn(
		'check:format',
		'check:svelte',
		'check:lint',
		'check:imports',
		'check:unused',
		'test:unit'
	);
	beside.catch(() => {});
	await ensureBuild();
	await programFile('zyg');
	const database = await startDatabase('pg-test');
	try {
		const forServer = await emptyDatabase(database.url, 'for_server');
		const forBrowser = await emptyDatabase(database.url, 'for_browser');
		await prepareDatabase(forServer);
		await prepareDatabase(forBrowser);
		await release();
		await npm('test:server', { DATABASE_URL: forServer });
		await npm('test:browser', {
			DATABASE_URL: forBrowser,
			CHROMIUM,
			BROWSER_PORT: String(await freePort()),
			DESK_PORT: String(await freePort())
		});
		await beside;
	} finally {
		for (const child of running) process.kill(-child.pid, 'SIGTERM');
		database.stop();
	}
	say(`everything passed in ${Math.round((Date.now() - began) / 1000)} s`);
} catch (error) {
	fail(error);
}
