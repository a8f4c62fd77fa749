// npm test: set up what is missing, then run everything that has to hold.
import { startDatabase } from './lib/postgres.mjs';
import { CHROMIUM, ensureChromium, ensureGmsh, ensurePackages, fail, run, say } from './lib/system.mjs';

const npm = (script, env = {}) => {
	say(script);
	run('npm', ['run', '--silent', script], { env: { ...process.env, ...env } });
};

try {
	ensurePackages();
	ensureChromium();
	ensureGmsh();
	for (const script of ['check:format', 'check:types', 'check:lint', 'check:imports', 'test:unit'])
		npm(script);
	const { ensureBuild } = await import('./lib/build.mjs');
	ensureBuild();
	const database = await startDatabase('pg-test');
	try {
		npm('test:browser', { DATABASE_URL: database.url, CHROMIUM });
	} finally {
		database.stop();
	}
	say('everything passed');
} catch (error) {
	fail(error);
}
