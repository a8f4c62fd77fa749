import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import { fieldNames } from '../../src/core/field/fields';
import { boundValues } from '../../src/core/named/bound-values';
import { namedValues } from '../../src/core/named/named-values';
import { applyEdits } from '../../src/core/project/commands';
import { readProject } from '../../src/core/project/read';
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

describe('numbers that follow named values', () => {
	const storeys = (storey: string): Project =>
		readProject({
			...projectOf(
				sheet(8000, 12_000),
				{ across: { by: 'count', count: 4 }, up: { by: 'levels', each: 1 } } as never,
				{}
			),
			named: [{ id: 'storey', value: storey }],
			levels: [
				{ id: 'ground', name: 'Ground', height: 0 },
				{ id: 'first-floor', name: 'First', height: 1 },
				{ id: 'second', name: 'Second', height: 2 }
			],
			bound: [
				// In an order in which the second has to wait for the first.
				{ id: 'levels/second/height', kind: 'length', value: 'level.first_floor + storey' },
				{ id: 'levels/first-floor/height', kind: 'length', value: 'level.ground + storey' },
				{ id: 'zones/z/settingOut/across/count', kind: 'count', value: 'round(storey / 900 mm)' }
			]
		});
	/** The project as somebody would type it who reckons for himself. */
	const typed = (height: number): Project => {
		const made = storeys(`${height} mm`);
		return readProject({
			...made,
			bound: [],
			levels: made.levels.map((level, k) => ({ ...level, height: k * height })),
			zones: [
				{
					...made.zones[0]!,
					settingOut: {
						...made.zones[0]!.settingOut,
						across: { by: 'count', count: Math.round(height / 900) }
					}
				}
			]
		});
	};

	it('one change moves all: levels upon levels and counts, and the model is the one that is typed by hand', async () => {
		for (const height of [3600, 3150]) {
			const followed = await new Chain().run(storeys(`${height} mm`));
			expect(followed.problems).to.deep.equal([]);
			const byHand = await new Chain().run(typed(height));
			const [a, b] = [followed, byHand].map(({ zones }) => zones[0]!.model!.faces[0]!);
			expect(a!.cells.count).to.equal(b!.cells.count);
			expect([...a!.grid.positions]).to.deep.equal([...b!.grid.positions]);
			// What was reckoned is written down; from then on nothing is left to do.
			const { edits } = boundValues(storeys(`${height} mm`));
			const settled = applyEdits(storeys(`${height} mm`), edits).project;
			expect(settled.levels.map((level) => level.height)).to.deep.equal([0, height, 2 * height]);
			expect(boundValues(settled).edits).to.deep.equal([]);
		}
	});

	it('that go round and round, are of another kind, or have lost their number are told', async () => {
		const project = storeys('3600 mm');
		const round = {
			...project,
			bound: [
				{ id: 'levels/second/height', kind: 'length', value: 'level.first_floor + storey' },
				{ id: 'levels/first-floor/height', kind: 'length', value: 'level.second - 1 mm' }
			]
		} as Project;
		expect(boundValues(round).problems[0]!.text).to.match(/follows itself round and round/);
		expect((await new Chain().run(round)).problems.map(({ at }) => at)).to.include('levels/second/height');
		const unlike = {
			...project,
			bound: [{ id: 'levels/second/height', kind: 'length', value: 'storey * storey' }]
		} as Project;
		expect(boundValues(unlike).problems[0]!.text).to.match(/is an area; a length is wanted/);
		const lost = {
			...project,
			bound: [{ id: 'levels/attic/height', kind: 'length', value: 'storey' }]
		} as Project;
		expect(boundValues(lost)).to.deep.include({ edits: [], gone: ['levels/attic/height'] });
	});

	it('courses by the levels, each storey divided by a list from its foot, then the rest', async () => {
		const made = typed(3600);
		const [zone] = made.zones;
		const divided = (sizes: number[]) => ({
			...made,
			zones: [
				{ ...zone!, settingOut: { ...zone!.settingOut, up: { by: 'levels' as const, each: 1, sizes } } }
			]
		});
		const heights = async (sizes: number[]) => {
			const { problems, zones } = await new Chain().run(divided(sizes));
			expect(problems).to.deep.equal([]);
			const { grid } = zones[0]!.model!.faces[0]!;
			return Array.from({ length: grid.rows }, (_, j) =>
				Math.round(grid.positions[3 * j * grid.columns + 2]!)
			);
		};
		// 12 m high, levels at 3.6 and 7.2 m.
		expect(await heights([2700, 900])).to.deep.equal([0, 2700, 3600, 6300, 7200, 9900, 10_800, 12_000]);
		expect(await heights([1000])).to.deep.equal([0, 1000, 3600, 4600, 7200, 8200, 12_000]);
		expect(await heights([5000])).to.deep.equal([0, 3600, 7200, 12_000]);
		const { problems } = await new Chain().run(divided([2700, 0]));
		expect(problems[0]!.text).to.match(/a course of 0 mm cannot be made/);
	});
});
