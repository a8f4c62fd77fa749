// Our own programs for the terminal, built once into build/cli and again when a source has changed.
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { hashSources } from './build.mjs';
import { root } from './system.mjs';

const folder = join(root, 'build/cli');
const stamp = join(folder, '.sources');
const entries = {
	zyg: 'src/cli/zyg.ts',
	partner: 'src/partners/main.ts',
	'prepare-database': 'scripts/prepare-database.ts',
	'project-numbers': 'scripts/project-numbers.ts'
};

/** The path of a program that is built from the sources as they are. */
export async function programFile(name) {
	const files = ['package-lock.json', 'scripts/lib/programs.mjs', ...Object.values(entries)];
	const sources = hashSources(
		['src/core', 'src/cli', 'src/lib/server', 'src/partners'],
		[...files, 'src/lib/protocol.ts']
	);
	if (!existsSync(stamp) || readFileSync(stamp, 'utf8') !== sources) {
		rmSync(stamp, { force: true });
		const { build } = await import('vite');
		await build({
			root,
			configFile: false,
			logLevel: 'error',
			publicDir: false,
			resolve: { alias: { $core: join(root, 'src/core'), $lib: join(root, 'src/lib') } },
			// Each in one file, without what is not used: it starts in a fraction of the time.
			ssr: { noExternal: true, external: ['manifold-3d', 'pg'] },
			build: {
				ssr: true,
				rolldownOptions: { input: entries },
				outDir: folder,
				emptyOutDir: true,
				target: 'node20',
				minify: true
			}
		});
		writeFileSync(stamp, sources);
	}
	return join(folder, `${name}.js`);
}
