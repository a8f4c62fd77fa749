// Build when a source is other than what was built.
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root, runAside, say } from './system.mjs';

const stamp = join(root, 'build/.sources');

/** One number of everything a build is made from. */
export function hashSources(folders, files) {
	const hash = createHash('sha256');
	const add = (path) => hash.update(path).update(readFileSync(join(root, path)));
	for (const folder of folders)
		for (const entry of readdirSync(join(root, folder), { recursive: true, withFileTypes: true }).sort(
			(a, b) => (join(a.parentPath, a.name) < join(b.parentPath, b.name) ? -1 : 1)
		))
			if (entry.isFile()) add(join(entry.parentPath, entry.name).slice(root.length));
	for (const file of files) add(file);
	return hash.digest('hex');
}

export async function ensureBuild() {
	const sources = hashSources(
		['src', 'static'],
		['package-lock.json', 'svelte.config.js', 'vite.config.ts', 'tsconfig.json']
	);
	if (existsSync(stamp) && readFileSync(stamp, 'utf8') === sources) return;
	say('building');
	// A build that is killed half way must not pass for the one before.
	rmSync(stamp, { force: true });
	await runAside('build', 'npx', ['--no-install', 'vite', 'build', '--logLevel', 'warn']);
	writeFileSync(stamp, sources);
}
