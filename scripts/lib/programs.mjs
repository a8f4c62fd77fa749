// Our own programs for the terminal, built once into a folder of build and again when a source has changed.
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { hashSources } from './build.mjs';
import { root } from './system.mjs';

const sets = {
	cli: {
		entries: {
			zyg: 'src/cli/zyg.ts',
			partner: 'src/partners/main.ts',
			'prepare-database': 'scripts/prepare-database.ts',
			'project-numbers': 'scripts/project-numbers.ts'
		},
		folders: ['src/core', 'src/cli', 'src/lib/server', 'src/partners']
	},
	// What is measured is what ships: programs that are read file by file take a seventh longer.
	bench: {
		entries: { bench: 'tests/bench/main.ts', 'side-worker': 'tests/bench/side-worker.ts' },
		folders: ['src/core', 'src/cli', 'src/lib', 'tests']
	}
};

/** The path of a program that is built from the sources as they are. */
export async function programFile(name) {
	const [set, { entries, folders }] = Object.entries(sets).find(([, { entries }]) => name in entries);
	const folder = join(root, 'build', set);
	const stamp = join(folder, '.sources');
	const files = ['package-lock.json', 'scripts/lib/programs.mjs', ...Object.values(entries)];
	const sources = hashSources(folders, [...files, 'src/lib/protocol.ts']);
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
			ssr: { noExternal: true, external: ['manifold-3d', 'pg', 'web-ifc'] },
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
