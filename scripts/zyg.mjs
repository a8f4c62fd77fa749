// npm run -s zyg -- …: the command line, built once into build/ and again when a source has changed.
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { hashSources } from './lib/build.mjs';

const root = fileURLToPath(new URL('../', import.meta.url));
const folder = join(root, 'build/cli');
const stamp = join(folder, '.sources');

const sources = hashSources(['src/core', 'src/cli'], ['package-lock.json', 'scripts/zyg.mjs']);
if (!existsSync(stamp) || readFileSync(stamp, 'utf8') !== sources) {
	const { build } = await import('vite');
	await build({
		root,
		configFile: false,
		logLevel: 'error',
		publicDir: false,
		resolve: { alias: { $core: join(root, 'src/core') } },
		// In one file, without what is not used: it starts in a fraction of the time.
		ssr: { noExternal: true, external: ['manifold-3d'] },
		build: { ssr: 'src/cli/zyg.ts', outDir: folder, target: 'node20', minify: true }
	});
	writeFileSync(stamp, sources);
}
await import('../build/cli/zyg.js');
