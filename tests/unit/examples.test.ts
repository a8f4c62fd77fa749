import { expect } from 'chai';
import { execFileSync } from 'node:child_process';
import { mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { join, relative, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('../..', import.meta.url));
const core = join(root, 'src/core');
const scope = join(root, 'tests/examples/scope.ts');
const out = join(root, '.svelte-kit/examples');

const modules = readdirSync(core, { recursive: true, encoding: 'utf8' })
	.filter((file) => file.endsWith('.ts'))
	.map((file) => join(core, file));
const textOf = new Map(modules.map((file) => [file, readFileSync(file, 'utf8')]));
const exported = (text: string) => [
	...new Set(
		[...text.matchAll(/^export (?:declare |abstract |async )*(?:function\*?|class|const) (\w+)/gm)].map(
			([, name]) => name!
		)
	)
];
const given = exported(readFileSync(scope, 'utf8'));
/** Where each name of core is: names that stand for two things are taken from the example's own module. */
const homes = new Map<string, string>();
for (const [file, text] of textOf) for (const name of exported(text)) homes.set(name, file);

const examplesOf = (text: string) =>
	[...text.matchAll(/^[\t ]*\* ```ts\n((?:[\t ]*\*.*\n)*?)[\t ]*\* ```$/gm)].map(([, lines]) =>
		lines!.replace(/^[\t ]*\* ?/gm, '')
	);

/** One file for each module: its own names, those of core that its examples use, and what is taken for given. */
function written(file: string, text: string, examples: readonly string[]): string {
	const own = exported(text);
	const words = new Set(examples.join('\n').match(/\b[A-Za-z_]\w*\b/g));
	const from = (home: string, names: readonly string[]) =>
		`import { ${names.join(', ')} } from '${relative(out, home).replace(/\.ts$/, '')}';`;
	const used = [...words].filter((name) => !own.includes(name));
	return [
		from(
			file,
			own.filter((name) => words.has(name))
		),
		from(
			scope,
			used.filter((name) => given.includes(name))
		),
		...used
			.filter((name) => !given.includes(name) && homes.has(name))
			.map((name) => from(homes.get(name)!, [name])),
		...examples.map((example, k) => `export async function example${k}() {\n${example}\n}`)
	].join('\n');
}

describe('examples in docstrings', () => {
	it('stand at every function and class of core that other rooms use', () => {
		const rooms = /src\/(core\/[^/]+|[^/]+)/;
		const roomOf = (file: string) => rooms.exec(file)![0];
		const all = readdirSync(join(root, 'src'), { recursive: true, encoding: 'utf8' })
			.filter((file) => /\.(ts|svelte)$/.test(file))
			.map((file) => join(root, 'src', file));
		const asked = new Map<string, Set<string>>();
		for (const user of all)
			for (const [, names, from] of readFileSync(user, 'utf8').matchAll(
				/import \{([^}]*)\} from '([^']+)'/g
			)) {
				const home = from!.startsWith('$core/') ? join(core, from!.slice(6)) : resolve(user, '..', from!);
				if (!textOf.has(`${home}.ts`) || roomOf(`${home}.ts`) === roomOf(user)) continue;
				for (const name of names!.split(',').map((one) => one.trim().split(' as ')[0]!)) {
					if (!asked.has(`${home}.ts`)) asked.set(`${home}.ts`, new Set());
					asked.get(`${home}.ts`)!.add(name);
				}
			}
		const without: string[] = [];
		for (const [file, names] of asked)
			for (const name of names) {
				const text = textOf.get(file)!;
				const at = text.search(new RegExp(`^export (?:async )?(?:function\\*?|class) ${name}\\b`, 'm'));
				if (at < 0) continue;
				const before = text.slice(0, at).trimEnd();
				const doc = before.endsWith('*/') ? before.slice(before.lastIndexOf('/**')) : '';
				if (!doc.includes('```ts')) without.push(`${relative(core, file)} ${name}`);
			}
		expect(asked.size).to.be.above(80);
		expect(without).to.deep.equal([]);
	});

	it('are programs: the compiler takes every one of them', function () {
		this.timeout(120_000);
		rmSync(out, { recursive: true, force: true });
		mkdirSync(out, { recursive: true });
		let examples = 0;
		for (const [file, text] of textOf) {
			const found = examplesOf(text);
			if (!found.length) continue;
			examples += found.length;
			writeFileSync(join(out, `${relative(core, file).replaceAll('/', '.')}`), written(file, text, found));
		}
		const settings = {
			extends: relative(out, join(root, 'tsconfig.json')),
			include: ['*.ts', relative(out, join(core, '**/*.d.ts'))],
			compilerOptions: {
				noEmit: true,
				noUnusedLocals: false,
				noUnusedParameters: false,
				rootDir: relative(out, root)
			}
		};
		writeFileSync(join(out, 'tsconfig.json'), JSON.stringify(settings));
		let told = '';
		try {
			execFileSync(join(root, 'node_modules/.bin/tsgo'), ['-p', out], { encoding: 'utf8', stdio: 'pipe' });
		} catch (error) {
			told = (error as { stdout: string }).stdout;
		}
		expect(examples).to.be.above(240);
		expect(told).to.equal('');
	});
});
