import { defineConfig } from '@playwright/test';
import { CHROMIUM_ARGS } from './scripts/lib/chromium-args.mjs';

const port = Number(process.env['BROWSER_PORT'] ?? 4390);
const desk = `http://127.0.0.1:${process.env['DESK_PORT'] ?? port + 1}`;

export default defineConfig({
	testDir: 'tests/browser',
	workers: 1,
	timeout: 240_000,
	expect: { timeout: 25_000 },
	reporter: [['list']],
	use: {
		// Its own test has it; for the others it would only fetch the whole application anew each time.
		serviceWorkers: 'block',
		baseURL: `http://127.0.0.1:${port}`,
		viewport: { width: 1280, height: 800 },
		launchOptions: {
			executablePath: process.env['CHROMIUM'] ?? '/usr/bin/chromium',
			args: CHROMIUM_ARGS
		}
	},
	webServer: [
		{
			command: 'node build/cli/partner.js',
			url: desk,
			// It fails until a test mends it.
			env: { PARTNER: 'desk', PORT: new URL(desk).port, TROUBLES: 'error', TROUBLE_SHARE: '1' }
		},
		{
			command: 'node build/index.js',
			url: `http://127.0.0.1:${port}/api/health`,
			env: {
				DATABASE_URL: process.env['DATABASE_URL'] ?? '',
				HOST: '127.0.0.1',
				PORT: String(port),
				ORIGIN: `http://127.0.0.1:${port}`,
				BODY_SIZE_LIMIT: '64M',
				MOST_REQUESTS: '100000',
				FABRICATOR_DESK: desk
			}
		}
	]
});
