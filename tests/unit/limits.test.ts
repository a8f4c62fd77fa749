import { heatSchema } from '../../src/core/project/heat-schema';
import { loadsSchema } from '../../src/core/project/loads-schema';
import { expect } from 'chai';
import { readFileSync } from 'node:fs';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import { flagsAt, worstBeyond, worstFlags } from '../../src/core/cladding/flag-table';
import type { Model } from '../../src/core/cladding/model';
import { pieceQuantities } from '../../src/core/cladding/quantities';
import { pointAt } from '../../src/core/geometry/vector';
import { measuresFor } from '../../src/core/limit/measures';
import { limitsOfProject, shippedLimits } from '../../src/core/limit/shipped';
import { smallestRectangle } from '../../src/core/measure/smallest-rectangle';
import { shippedParts } from '../../src/core/part/kit';
import type { Limit } from '../../src/core/project/limit-schema';
import { readProjectText } from '../../src/core/project/read';
import type { Project, ZoneInput } from '../../src/core/project/schema';
import { flagSentence } from '../../src/core/units/flag';
import { flagTexts } from '../../src/core/schedule/pieces';
import { modelMessage, type ToldView } from '../../src/lib/worker/views';
import { count, projectOf, sheet } from '../faces';

const rules: ZoneInput['rules'] = [{ id: 'r', put: { variant: 'pane' } }];
const runs: ZoneInput['runs'] = [{ id: 'b', lines: ['bay'], variant: 'bar' }];
const variants = [
	{ id: 'pane', name: 'Pane', part: 'flat-panel', values: { sheet: 'glass', thickness: 10 } },
	{ id: 'bar', name: 'Bar', part: 'box-mullion', values: {} }
];
const limit = (more: Partial<Limit>): Limit => ({
	id: 'own',
	of: 'cell.area',
	than: 'most',
	bound: 1,
	material: null,
	part: null,
	zone: null,
	muted: false,
	source: '',
	...more
});
/** No limit but some of one's own. */
const alone = (...limits: Limit[]): Limit[] => [
	...shippedLimits.map((one) => ({ ...one, muted: true })),
	...limits
];
const wall = (size: [number, number], steps: [number, number], limits: Limit[] = []): Project =>
	projectOf(sheet(...size), count(...steps), { rules, runs }, { variants, limits });

/** Rows of each limit that go beyond, of all groups, by the kind of their sites. */
function beyond(model: Model, id: string): Map<string, number[]> {
	expect(model.problems).to.deep.equal([]);
	const found = new Map<string, number[]>();
	for (const { group } of model.zones[0]!.model!.groups)
		for (const row of group.flags.rows())
			if (group.flags.of(row).some(({ code, subject }) => code === 'limit.beyond' && subject === id))
				found.set(group.over, [...(found.get(group.over) ?? []), row]);
	return found;
}

describe('limits', () => {
	it('those that ship are there from the first pane: one that no sheet of glass is large enough for is told', async () => {
		const model = await new Chain().run(wall([14_000, 3000], [2, 1]));
		expect(beyond(model, 'glass-long-side').get('cell')).to.deep.equal([0, 1]);
		expect(beyond(model, 'glass-short-side').size).to.equal(0);
		const { group } = model.zones[0]!.model!.groups.find(({ group }) => group.over === 'cell')!;
		expect(flagTexts(group, 0).join()).to.contain(
			'the long side of the sheet is beyond its limit (7 000 mm; at most 6 000 mm)'.replaceAll(
				' 000',
				'\u202f000'
			)
		);
		// At its bound a piece is within it.
		const fits = await new Chain().run(wall([12_000, 3210], [2, 1]));
		expect(beyond(fits, 'glass-long-side').size + beyond(fits, 'glass-short-side').size).to.equal(0);
	});

	it('a limit is of a material, a part or a zone; muted it says nothing; of bars it is about bars', async () => {
		const area = { of: 'cell.area', bound: 1e6 } as const;
		for (const [more, cells] of [
			[{}, 8],
			[{ material: 'glass' }, 8],
			[{ material: 'steel' }, 0],
			[{ part: 'flat-panel' }, 8],
			[{ part: 'framed-glass' }, 0],
			[{ zone: 'z' }, 8],
			[{ zone: 'other' }, 0],
			[{ muted: true }, 0],
			[{ than: 'least' }, 0]
		] as const) {
			const model = await new Chain().run(wall([8000, 4000], [4, 2], alone(limit({ ...area, ...more }))));
			expect([more, beyond(model, 'own').get('cell')?.length ?? 0]).to.deep.equal([more, cells]);
			expect(beyond(model, 'own').has('line')).to.equal(false);
		}
		const bars = await new Chain().run(
			wall([8000, 4000], [4, 2], alone(limit({ of: 'bar.length', bound: 1999 })))
		);
		expect(beyond(bars, 'own').get('line')).to.have.length(6);
		expect(beyond(bars, 'own').has('cell')).to.equal(false);
	});

	it('mass is area by thickness by density; angles are told in degrees; part measures by their names', async () => {
		// 2 m by 2 m of 10 mm glass, less its joints of 8 mm.
		const mass = 1.984 ** 2 * 0.01 * 2500;
		const at = async (bound: number) =>
			beyond(
				await new Chain().run(wall([8000, 4000], [4, 2], alone(limit({ of: 'piece.mass', bound })))),
				'own'
			);
		expect((await at(mass + 0.01)).has('cell')).to.equal(false);
		expect((await at(mass - 0.01)).get('cell')).to.have.length(8);
		const angle = await new Chain().run(
			wall([8000, 4000], [4, 2], alone(limit({ of: 'cell.smallest_angle', than: 'least', bound: 91 })))
		);
		expect(beyond(angle, 'own').get('cell')).to.have.length(8);
		const right = await new Chain().run(
			wall([8000, 4000], [4, 2], alone(limit({ of: 'cell.smallest_angle', than: 'least', bound: 89 })))
		);
		expect(beyond(right, 'own').size).to.equal(0);
		const cut = await new Chain().run(
			wall([8000, 4000], [4, 2], alone(limit({ of: 'part.cut_length', bound: 1000 })))
		);
		expect(beyond(cut, 'own').get('line')).to.have.length(6);
	});

	it('every measure finds the pieces that looking at each by itself finds', async () => {
		const project = projectOf(
			{ kind: 'dome', at: [0, 0], foot: 0, radii: [9000, 7000, 5000], cut: 800 },
			count(10, 4),
			{ rules, runs, pattern: { kind: 'diamonds' } },
			{ variants }
		);
		const [zone] = (await new Chain().run(project)).zones;
		const { faces, groups } = zone!.model!;
		const { cells, grid, measures } = faces[0]!;
		const cellGroups = groups.filter(({ group }) => group.over === 'cell');
		const ring = (c: number) =>
			Array.from(cells.corners.subarray(cells.start[c], cells.start[c + 1]), (node) =>
				pointAt(grid.positions, node)
			);
		const plain: Record<string, (group: (typeof groups)[number]['group'], row: number) => number> = {
			'sheet.long': ({ sites }, row) => smallestRectangle(ring(sites[row]!))[0],
			'sheet.short': ({ sites }, row) => smallestRectangle(ring(sites[row]!))[1],
			'cell.area': ({ sites }, row) => measures.area[sites[row]!]!,
			'plate.warp': ({ sites }, row) => measures.warp[sites[row]!]!,
			'piece.mass': (group, row) => pieceQuantities(group).mass[row]!
		};
		await fc.assert(
			fc.asyncProperty(
				fc.constantFrom(...Object.keys(plain)),
				fc.constantFrom('most' as const, 'least' as const),
				fc.double({ min: 0, max: 1, noNaN: true }),
				async (of, than, share) => {
					const values = cellGroups.map(({ group }) =>
						Array.from(group.sites, (_, row) => plain[of]!(group, row))
					);
					const all = values.flat().sort((a, b) => a - b);
					const bound = all[Math.floor(share * (all.length - 1))]!;
					const limited = await new Chain().run({ ...project, limits: alone(limit({ of, than, bound })) });
					const found = limited.zones[0]!.model!.groups.filter(({ group }) => group.over === 'cell');
					for (const [k, { group }] of found.entries()) {
						const failed = new Set(group.flags.failed());
						for (const [row, value] of values[k]!.entries()) {
							// What rounding could turn is not asked about.
							if (Math.abs(value - bound) < 1e-6 * Math.abs(bound) || failed.has(row)) continue;
							const isBeyond = than === 'most' ? value > bound : value < bound;
							const told = group.flags.of(row).some(({ code }) => code === 'limit.beyond');
							expect([of, than, value, told]).to.deep.equal([of, than, value, isBeyond]);
						}
					}
				}
			),
			{ numRuns: 30 }
		);
	});

	it('another bound changes what is told, and no piece: nothing of the geometry is sent anew', async () => {
		const chain = new Chain();
		const known = new Set<string>();
		const project = wall([8000, 4000], [4, 2]);
		modelMessage(await chain.run(project), known, 0);
		const changed = await chain.run({ ...project, limits: [limit({ bound: 1e6 })] });
		const message = modelMessage(changed, known, 0);
		const { groups, told } = message.zones[0]!;
		expect(groups.every((group) => 'unchanged' in group)).to.equal(true);
		const [cells, bars] = told as ToldView[];
		expect(worstBeyond(cells!.flags, 'own').rows).to.deep.equal([0, 1, 2, 3, 4, 5, 6, 7]);
		expect('unchanged' in bars!).to.equal(true);
		const fresh = await new Chain().run({ ...project, limits: [limit({ bound: 1e6 })] });
		const texts = ({ zones }: Model) =>
			zones[0]!.model!.groups.map(({ group }) => group.flags.all().map(flagSentence));
		expect(texts(changed)).to.deep.equal(texts(fresh));
		// And without it they are as before.
		const back = await chain.run(project);
		expect(texts(back).flat()).to.deep.equal([]);
	});

	it('a form that has grown is held against the limits anew, where its pieces stay in their places', async () => {
		const chain = new Chain();
		const own = alone(limit({ of: 'sheet.long', bound: 2500 }));
		expect(beyond(await chain.run(wall([8000, 4000], [4, 2], own)), 'own').size).to.equal(0);
		const wider = await chain.run(wall([12_000, 4000], [4, 2], own));
		expect(beyond(wider, 'own').get('cell')).to.have.length(8);
	});

	it('the worst comes first: what could not be made, then by the share beyond the bound', async () => {
		const project = wall([8000, 4000], [4, 2], [limit({ of: 'cell.height', bound: 900 })]);
		const message = modelMessage(await new Chain().run(project), new Set(), 0);
		const { rows, badness } = worstFlags((message.zones[0]!.told[0] as ToldView).flags);
		expect(rows).to.deep.equal([0, 1, 2, 3, 4, 5, 6, 7]);
		// Middles of the courses are at 1 m and 3 m.
		expect(badness.map((one) => Math.round(one * 1000) / 1000)).to.deep.equal([
			...Array.from({ length: 4 }, () => 0.111),
			...Array.from({ length: 4 }, () => 2.333)
		]);
	});

	it('flags in columns are those that are told row by row, on every group of a whole project', async () => {
		const demo = readProjectText(readFileSync(new URL('../lido.json', import.meta.url), 'utf8'));
		const codes = new Set<string>();
		for (const { model } of (await new Chain().run(demo)).zones)
			for (const { group } of model!.groups) {
				const table = group.flags.table();
				expect([...new Set(table.row)]).to.deep.equal([...group.flags.rows()]);
				for (let row = 0; row < group.sites.length; row++) {
					const told = flagsAt(table, row);
					expect(told).to.deep.equal(group.flags.of(row).map((flag) => ({ ...flag })));
					for (const { code } of told) codes.add(code);
				}
			}
		expect([...codes])
			.to.include('limit.beyond')
			.and.to.have.length.above(1);
	});

	it('every measure says how it is reckoned, and fields by more than their name', () => {
		const measures = measuresFor(shippedParts, { loads: loadsSchema.parse({}), heat: heatSchema.parse({}) });
		for (const { id, how } of measures) {
			expect(how.length, id).to.be.above(12);
			if (/^(cell|line|node)\./.test(id)) expect(how, id).to.not.include('as formulas name it');
		}
	});

	it('every limit that ships is of a measure that some part has, and says where it is from', () => {
		const measures = measuresFor(shippedParts, { loads: loadsSchema.parse({}), heat: heatSchema.parse({}) });
		for (const { of, source } of limitsOfProject({ limits: [] })) {
			expect(measures.some(({ id }) => id === of)).to.equal(true);
			expect(source).to.match(/EN \d+|no source/);
		}
		const own = { ...shippedLimits[0]!, bound: 4000 };
		expect(limitsOfProject({ limits: [own] })[0]).to.deep.equal(own);
		expect(limitsOfProject({ limits: [own] })).to.have.length(shippedLimits.length);
	});
});

describe('what figures are reckoned from', () => {
	it('comes to the figures when it is put into their formulas', async () => {
		const variants = [
			{ id: 'pane', name: 'pane', part: 'framed-glass', values: {} },
			{ id: 'bar', name: 'bar', part: 'box-mullion', values: {} }
		];
		const zone = {
			rules: [{ id: 'all', put: { variant: 'pane', values: {} } }],
			runs: [{ id: 'r', lines: ['bay' as const], variant: 'bar' }]
		};
		const loads = loadsSchema.parse({ wind: 1.2 });
		const saddle = {
			kind: 'ruled',
			foot: {
				points: [
					[0, 0, 0],
					[4000, 0, 0]
				],
				joins: 'line',
				closed: false
			},
			head: {
				points: [
					[0, 4000, 0],
					[4000, 4000, 2000]
				],
				joins: 'line',
				closed: false
			}
		} as Parameters<typeof projectOf>[0];
		const model = await new Chain().run(projectOf(saddle, count(2, 2), zone, { variants, loads }));
		const { groups, faces } = model.zones[0]!.model!;
		const figure = (id: string, over: 'cell' | 'line') => {
			const { group } = groups.find((one) => one.group.over === over)!;
			const measure = measuresFor([group.ready.part], model.project).find((one) => one.id === id)!;
			const value = measure.read(faces[0]!, group, { than: 'most', bound: -Infinity }, () => true)[0]!;
			const given = measure.given!(faces[0]!, group, 0);
			const of = (label: string) => given.find((one) => one.label === label)!.value;
			return { value, given, of };
		};
		const mass = figure('piece.mass', 'cell');
		const sum = mass.given.reduce(
			(all, { label, value }) =>
				all + (value / 1e9) * Number(/([\d\s]+) kg/.exec(label)![1]!.replace(/\s/g, '')),
			0
		);
		expect(mass.value).to.be.closeTo(sum, 1e-9);
		const bar = figure('bar.deflection', 'line');
		const [span, load, stiff, inertia] = ['span L', 'wind on it, w L', 'E', 'I'].map(bar.of) as [
			number,
			number,
			number,
			number
		];
		expect(bar.value).to.be.closeTo(
			(5 * ((load * 1000) / span) * span ** 4) / (384 * stiff * inertia * 1e4),
			1e-9
		);
		const share = figure('bar.deflection_share', 'line');
		expect(share.value).to.be.closeTo(bar.value / share.of('may bend'), 1e-12);
		const bent = figure('glass.bent', 'cell');
		const stress = bent.of('warp') > 0 ? (bent.of('E') * bent.of('t')) / (2 * bent.of('R')) : 0;
		expect(bent.value).to.be.closeTo(stress, 1e-9);
		const bracket = figure('piece.bracket', 'cell');
		expect(bracket.value).to.be.closeTo((bracket.of('m') * 9.80665) / 2000, 1e-9);
		const glass = figure('unit.glass_share', 'cell');
		expect(glass.value).to.be.closeTo(glass.of('glass among them') / glass.of('area of the cell'), 1e-9);
		const area = figure('cell.perimeter', 'cell');
		expect(area.value).to.be.closeTo(
			area.given.reduce((all, { value }) => all + value, 0),
			1e-6
		);
	});
});
