import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import { fieldNames } from '../../src/core/field/fields';
import { namedValues } from '../../src/core/named/named-values';
import { applyEdits } from '../../src/core/project/commands';
import type { Project } from '../../src/core/project/schema';
import { summarise } from '../../src/core/schedule/summary';
import { count, projectOf, sheet } from '../faces';

const variants = [{ id: 'p', name: 'p', part: 'pyramid', values: {} }];
const named = [
	{ id: 'storey', value: '3.6 m' },
	{ id: 'half', value: 'storey / 2' },
	{ id: 'lean', value: '30 deg' }
];
/** Every place where a value can be named: a bound, a formula of a rule, ends of a driver, a depth. */
const project = (of: (text: string) => string, rest: Partial<Project> = {}) =>
	projectOf(
		sheet(6000, 7200),
		count(6, 8),
		{
			layer: { depth: of('-half / 4'), shifted: false },
			rules: [
				{
					id: 'low',
					where: { is: 'all', of: [{ is: 'range', field: 'height', at_least: null, at_most: of('storey') }] },
					put: {
						variant: 'p',
						values: {
							height: { is: 'follows', field: 'height', from: [0, of('storey')], to: [100, of('half / 4')] }
						}
					}
				},
				{
					id: 'high',
					where: {
						is: 'all',
						of: [{ is: 'formula', formula: of('height > storey + half and sin(lean) < 1') }]
					},
					put: { variant: 'p', values: { height: of('half / 10 + bay * 1 mm') } }
				}
			]
		} as never,
		{ variants, ...rest }
	);
const asTyped = (text: string) =>
	text.replaceAll('storey', '(3600 mm)').replaceAll('half', '(1800 mm)').replaceAll('lean', '(30 deg)');
const figures = async (given: Project, chain = new Chain()) => {
	const model = await chain.run(given);
	expect(model.problems).to.deep.equal([]);
	const { zones, mass_kg } = summarise(model) as unknown as { zones: object[]; mass_kg: number };
	const values = model.zones[0]!.model!.groups.map(({ group }) =>
		[...group.perPiece.values()].map((one) => [...one])
	);
	return { zones, mass_kg, values, layer: [...model.zones[0]!.model!.faces[0]!.layer!.positions] };
};
const told = async (list: Project['named'], rest = project(asTyped)) =>
	(await new Chain().run({ ...rest, named: list })).problems.map(({ at, text }) => `${at}: ${text}`);

describe('named values of the project', () => {
	it('the model is the one with the same values typed by hand', async () => {
		const byName = await figures(project((text) => text, { named }));
		const byHand = await figures(project(asTyped));
		expect(byName).to.deep.equal(byHand);
		expect(byName.values.flat(2).length).to.be.above(30);
	});

	it('one that changes moves all that names it: the kept chain gives what a fresh one gives', async () => {
		const chain = new Chain();
		const before = project((text) => text, { named });
		const first = await figures(before, chain);
		const { project: after } = applyEdits(before, [
			{ do: 'set', path: 'named/storey/value', value: '2.7 m' }
		]);
		const kept = await figures(after, chain);
		expect(kept).to.deep.equal(await figures(after));
		expect(kept).to.not.deep.equal(first);
		expect(kept).to.deep.equal(
			await figures(
				project((text) =>
					text.replaceAll('storey', '(2.7 m)').replaceAll('half', '(1.35 m)').replaceAll('lean', '(30 deg)')
				)
			)
		);
	});

	it('a change of one leaves the pieces that name another as they are', async () => {
		const chain = new Chain();
		const before = project((text) => text, { named: [...named, { id: 'joint', value: '12 mm' }] });
		const serials = async (given: Project) =>
			(await chain.run(given)).zones[0]!.model!.groups.map(({ serial }) => serial);
		const first = await serials(before);
		const { project: after } = applyEdits(before, [{ do: 'set', path: 'named/joint/value', value: '20 mm' }]);
		expect(await serials(after)).to.deep.equal(first);
	});

	it('what cannot be is said at the value: unlike kinds, a circle, a name that means something else', async () => {
		expect(await told([{ id: 'a', value: '1 m + 30 deg' }])).to.deep.equal([
			'named/a/value: "1 m + 30 deg" mixes a length with an angle; both sides need the same unit'
		]);
		const [circle] = await told([
			{ id: 'a', value: 'b' },
			{ id: 'b', value: 'a' }
		]);
		expect(circle).to.match(/^named\/a\/value: "b" in "b" is not known/);
		expect((await told([{ id: 'height', value: '1 m' }]))[0]).to.match(
			/"height" means something else in formulas/
		);
		expect((await told([{ id: 'a', value: '1 m / 0' }]))[0]).to.match(/has no finite value/);
		expect(namedValues([{ id: 'a', value: '12 mm' }], fieldNames).get('a')!.value).to.equal(12);
		// A value that is named and gone is told where it is named.
		const gone = await told(
			[],
			project((text) => text)
		);
		expect(gone.join()).to.match(/"half" in "-half \/ 4" is not known|"storey" in "storey" is not known/);
	});
});
