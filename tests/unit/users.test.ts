import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import { applyEdits } from '../../src/core/project/commands';
import { readProjectText } from '../../src/core/project/read';
import { pathTo, removeAt } from '../../src/core/project/typed-path';
import { usesInWords } from '../../src/lib/bench/uses';
import { usersOf } from '../../src/lib/edits/users';

const lido = readProjectText(readFileSync('tests/lido.json', 'utf8'));

describe('what uses a thing', () => {
	it('clauses are told by the numbers they have on the sheet, with their paths', () => {
		const [first] = lido.zones[0]!.rules.filter(({ put }) => put !== 'open');
		const variant = (first!.put as { variant: string }).variant;
		const users = usersOf(lido, 'variants', variant);
		expect(users.map(({ path }) => path)).to.include(
			pathTo('zones', lido.zones[0]!.id, 'rules', first!.id) as string
		);
		expect(users[0]!.name).to.match(/^2\.\d+ Gull roof$/);
		expect(usersOf(lido, 'masses', 'gull').map(({ path }) => path)).to.include(
			pathTo('zones', 'gull', 'faces') as string
		);
		expect(usersOf(lido, 'variants', 'none of these')).to.deep.equal([]);
	});

	it('a part says in how many clauses it is put, on nodes and by hand too; of pieces only when they have been made', () => {
		const demo = readProjectText(readFileSync('demo/tidal-lido.json', 'utf8'));
		const [ball] = demo.variants.filter(({ id }) =>
			demo.zones.some(({ nodes }) => nodes.some(({ variant }) => variant === id))
		);
		const none = { zones: [], partial: false };
		const placings = demo.zones.flatMap(({ nodes }) => nodes);
		const alike = new Set(demo.variants.filter(({ part }) => part === ball!.part).map(({ id }) => id));
		const count = placings.filter(({ variant }) => alike.has(variant)).length;
		expect(usesInWords(demo, none, ball!.part)).to.equal(`in ${count} ${count === 1 ? 'clause' : 'clauses'}`);
		const zones = [{ groups: [{ variantId: ball!.id, sites: new Uint32Array(1312) }] }] as never;
		expect(usesInWords(demo, { zones, partial: false }, ball!.part)).to.match(/clauses? · 1\s312 pieces$/);
		expect(usesInWords(demo, { zones, partial: true }, ball!.part)).not.to.contain('pieces');
		const [zone] = demo.zones;
		const put = { variant: ball!.id, values: {} };
		const byHand = ['a', 'b'].map((id) => ({ id, put, sites: [] }));
		const only = { ...demo, zones: [{ ...zone!, rules: [], runs: [], nodes: [], exceptions: byHand }] };
		expect(usesInWords(only as never, none, ball!.part)).to.equal('in 1 clause');
		expect(usesInWords({ ...demo, zones: [] }, none, ball!.part)).to.equal(null);
	});

	it('a guide is used by what is measured from it', () => {
		const demo = readProjectText(readFileSync('demo/tidal-lido.json', 'utf8'));
		for (const { id } of demo.guides) {
			const users = usersOf(demo, 'guides', id);
			expect(users, id).to.have.length.above(0);
			for (const { path } of users) expect(path, id).to.match(/^zones\/[^/]+\/(rules\/|pattern)/);
		}
	});

	it('a level, a guide or a variant that nothing uses goes without a fault; one that is used leaves one', async () => {
		const lists = ['levels', 'guides', 'variants'] as const;
		const before = (await new Chain().run(lido)).problems.length;
		for (const list of lists) {
			const things = lido[list] as readonly { readonly id: string }[];
			const isUsed = ({ id }: { readonly id: string }) => usersOf(lido, list, id).length > 0;
			for (const thing of [things.find(isUsed), things.find((one) => !isUsed(one))]) {
				if (!thing) continue;
				const { project } = applyEdits(lido, [removeAt(pathTo(list, thing.id))]);
				const { problems } = await new Chain().run(project);
				if (isUsed(thing)) expect(problems.length, `${list} ${thing.id}`).to.be.above(before);
				else expect(problems.length, `${list} ${thing.id}`).to.equal(before);
			}
		}
	});
});
