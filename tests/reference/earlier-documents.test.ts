import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import { Chain } from '../../src/core/chain/chain';
import { readProjectText } from '../../src/core/project/read';
import { summarise } from '../../src/core/schedule/summary';

/**
 * The demo as it was kept in each earlier version of the document, and what the program of its day made of it: the
 * last one of that version, run on that file. Flags are left out: more is told today.
 */
const read = (name: string) => readFileSync(new URL(`earlier/${name}.json`, import.meta.url), 'utf8');

type Figures = { readonly [key: string]: unknown };

/** End strips are whole cells up to version 5. */
const asToday = (key: string, whole: unknown, now: Figures): unknown =>
	key === 'whole' ? Number(now['whole']) + (whole === now['whole'] ? 0 : Number(now['strip'])) : now[key];

function expectSame(before: unknown, now: unknown, at: string): void {
	if (typeof before === 'number') {
		expect(now, at).to.be.a('number');
		expect(now as number, at).to.be.closeTo(before, 1e-6 * Math.max(1, Math.abs(before)));
	} else if (typeof before === 'object' && before !== null)
		for (const [key, value] of Object.entries(before))
			expectSame(value, asToday(key, value, now as Figures), `${at}/${key}`);
	else expect(now, at).to.equal(before);
}

describe('documents of earlier versions', () => {
	for (const version of [1, 2, 3, 4, 5, 6, 7, 8])
		it(`version ${version} gives the model that the program of its day made of it`, async () => {
			const text = read(`document-${version}`);
			expect((JSON.parse(text) as { version: number }).version).to.equal(version);
			const model = await new Chain().run(readProjectText(text));
			expect(model.problems.filter(({ remark }) => !remark)).to.deep.equal([]);
			expectSame(JSON.parse(read(`model-${version}`)), summarise(model), '');
		});
});
