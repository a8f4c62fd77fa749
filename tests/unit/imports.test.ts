import { expect } from 'chai';
import { execFile } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';

const root = resolve(import.meta.dirname, '../..');
const depcruise = join(root, 'node_modules/.bin/depcruise');

/** What the check of imports says of a small tree of files, by path. */
async function said(files: Readonly<Record<string, string>>): Promise<string> {
	const folder = mkdtempSync(join(tmpdir(), 'imports-'));
	for (const [path, text] of Object.entries(files)) {
		mkdirSync(dirname(join(folder, path)), { recursive: true });
		writeFileSync(join(folder, path), text);
	}
	symlinkSync(join(root, 'node_modules'), join(folder, 'node_modules'));
	for (const one of ['.dependency-cruiser.cjs', 'scripts', 'tsconfig.json', '.svelte-kit'])
		symlinkSync(join(root, one), join(folder, one));
	try {
		return await new Promise((done) =>
			execFile(
				depcruise,
				['src', '--config', '.dependency-cruiser.cjs', '--output-type', 'err'],
				{ cwd: folder },
				(_, out) => done(out)
			)
		);
	} finally {
		rmSync(folder, { recursive: true });
	}
}

describe('the check of imports', () => {
	it('finds a breach however the import is written, a circle of folders, and a name that leads nowhere', async () => {
		const text = await said({
			'src/core/units/back.ts': "import { a } from '$core/part/later';\nexport const b = a;\n",
			'src/core/part/later.ts': 'export const a = 1;\n',
			'src/core/grid/up.ts': "import { c } from '$lib/state/page';\nexport const d = c;\n",
			'src/lib/state/page.ts': "import { e } from '$lib/server/database';\nexport const c = e;\n",
			'src/lib/server/database.ts': 'export const e = 1;\n',
			'src/lib/map/one.ts': "import { f } from '$lib/model/two';\nexport const g = f;\n",
			'src/lib/model/two.ts': 'export const f = 1;\n',
			'src/lib/model/three.ts': "import { g } from '$lib/map/one';\nexport const h = g;\n",
			'src/lib/check/lost.ts': "import { x } from '$lib/nowhere';\nexport const y = x;\n"
		});
		for (const rule of [
			'core-units-looks-back-only',
			'core-stands-alone',
			'server-stays-on-the-server',
			'no-circles-of-folders',
			'everything-resolves'
		])
			expect(text, rule).to.include(rule);
	});

	it('has nothing to say of a tree that keeps to it', async () => {
		const text = await said({
			'src/core/part/later.ts': "import { b } from '$core/units/first';\nexport const a = b;\n",
			'src/core/units/first.ts': 'export const b = 1;\n',
			'src/lib/map/one.ts': "import { a } from '$core/part/later';\nexport const g = a;\n"
		});
		expect(text).to.match(/no dependency violations/);
	});
});
