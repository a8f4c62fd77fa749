// npm run licences: every package that ships with the application, and its licence.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { root } from './lib/system.mjs';

const lock = JSON.parse(readFileSync(join(root, 'package-lock.json'), 'utf8'));
const COPYLEFT = /\b(A?GPL|LGPL|SSPL|EUPL|MPL)\b/i;

const shipped = Object.entries(lock.packages)
	.filter(([path, entry]) => path && !entry.dev && !entry.devOptional && !entry.optional)
	.map(([path, { version, license }]) => {
		const manifest = JSON.parse(readFileSync(join(root, path, 'package.json'), 'utf8'));
		const named = manifest.license ?? license ?? 'not said';
		return {
			name: path.slice(path.lastIndexOf('node_modules/') + 'node_modules/'.length),
			version,
			licence: typeof named === 'string' ? named : named.type
		};
	})
	.sort((a, b) => a.name.localeCompare(b.name));

const width = Math.max(...shipped.map(({ name, version }) => `${name} ${version}`.length));
for (const { name, version, licence } of shipped)
	console.log(`${`${name} ${version}`.padEnd(width + 2)}${licence}`);
const asking = shipped.filter(({ licence }) => COPYLEFT.test(licence) && !/\bOR\b/.test(licence));
console.log(
	`\n${shipped.length} packages; ${asking.length ? `to be looked at: ${asking.map(({ name }) => name).join(', ')}` : 'none asks for more than its notice'}`
);
