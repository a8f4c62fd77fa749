// Build when a source is newer or other than what was built.
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { root, run, say } from './system.mjs';

const stamp = join(root, 'build/.sources');

function hashSources() {
	const hash = createHash('sha256');
	const add = (path) => hash.update(path).update(readFileSync(join(root, path)));
	for (const folder of ['src', 'static'])
		for (const entry of readdirSync(join(root, folder), { recursive: true, withFileTypes: true }).sort(
			(a, b) => (join(a.parentPath, a.name) < join(b.parentPath, b.name) ? -1 : 1)
		))
			if (entry.isFile()) add(join(entry.parentPath, entry.name).slice(root.length));
	for (const file of ['package-lock.json', 'svelte.config.js', 'vite.config.ts', 'tsconfig.json']) add(file);
	return hash.digest('hex');
}

export function ensureBuild() {
	const sources = hashSources();
	if (existsSync(stamp) && readFileSync(stamp, 'utf8') === sources) return;
	say('building');
	run('npx', ['--no-install', 'vite', 'build', '--logLevel', 'warn']);
	writeFileSync(stamp, sources);
}
