import { expect } from 'chai';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import type { Model } from '../../src/core/cladding/model';
import { scheduleCsv } from '../../src/core/exchange/csv/write';
import { massFaces } from '../../src/core/mass/faces';
import { readProject } from '../../src/core/project/read';
import type { Mass } from '../../src/core/project/form-schema';
import { scheduleNames } from '../../src/core/project/schedules-schema';
import { cellsOf } from '../../src/core/schedule/column';
import { isGathered, makeSchedule } from '../../src/core/schedule/table';
import { count, sheet } from '../faces';

const empty = { format: 'zygaster project', version: 4, name: 'Marks' };

/** Prisms of several sides with zones on all of them, whose codes may run into each other's face numbers. */
const zoneOf = (id: string, code: string, mass: Mass, pattern: object) => ({
	id,
	code,
	name: `Zone ${id}`,
	faces: massFaces(mass)
		.filter(({ name }) => name !== 'cap')
		.map(({ name }) => ({ mass: mass.id, face: name })),
	settingOut: count(3, 2),
	pattern,
	rules: [
		{ id: 'blades', cells: 'whole', put: { variant: 'blades' } },
		{ id: 'rest', cells: 'all', put: { variant: 'glass' } }
	],
	runs: [{ id: 'posts', lines: ['bay', 'course', 'diagonal', 'rim'], variant: 'post' }],
	nodes: [{ id: 'balls', variant: 'ball' }]
});
const massOf = (id: string, form: object): Mass =>
	readProject({ ...empty, masses: [{ id, name: `Mass ${id}`, form }] }).masses[0]!;
const prism = (id: string, sides: number, at: number) =>
	massOf(id, { kind: 'prism', outline: { shape: 'polygon', sides, radius: 4000 }, at: [at, 0], head: 3000 });
const variants = [
	{ id: 'glass', name: 'Glass', part: 'framed-glass', values: {} },
	{ id: 'blades', name: 'Blades', part: 'blade-stack', values: {} },
	{ id: 'post', name: 'Post', part: 'box-mullion', values: {} },
	{ id: 'ball', name: 'Ball', part: 'node-ball', values: {} }
];
const projectWith = (masses: object[], zones: object[]) => readProject({ ...empty, masses, zones, variants });

function marksOf(model: Model): Map<string, string> {
	const named = new Map<string, string>();
	// Points are listed under the marks of their pieces.
	for (const name of scheduleNames.filter((one) => one !== 'anchors' && !isGathered(one))) {
		const schedule = makeSchedule(model, name);
		const column = (key: string) => cellsOf(schedule.column(key)!) as string[];
		column('mark').forEach((mark, k) => {
			expect(mark, 'printable').to.match(/^[A-Z][A-Z0-9]*(\.\d+)?-[A-Za-z0-9-]+$/);
			// A blade is an element too, and has its mark there; what stands on a node has that of the node.
			const element = name === 'blades' || name === 'elements' ? `element ${/\d+$/.exec(mark)![0]}` : null;
			const what = `${column('address')[k]} ${element ?? (name === 'connectors' ? 'nodes' : name)}`;
			expect(named.get(mark) ?? what, `${mark} names one thing`).to.equal(what);
			named.set(mark, what);
		});
		expect(new Set(column('mark')).size, `${name}: each mark once`).to.equal(schedule.rows);
		expect(scheduleCsv(schedule.columns).replaceAll('\r\n', '')).to.not.match(/\p{Cc}|[{|}~]/u);
	}
	for (const mark of cellsOf(makeSchedule(model, 'anchors').columns.find(({ key }) => key === 'mark')!))
		expect(named.has(String(mark)), `${mark} is a piece's`).to.equal(true);
	return named;
}

const patterns = [
	{ kind: 'rectangles' },
	{ kind: 'diamonds' },
	{ kind: 'triangles', diagonal: 'alternating' },
	{ kind: 'voronoi', seed: 3, count: 40 }
];

describe('marks', () => {
	it('are printable and name one thing in the project, whatever zones, faces and patterns it has', async () => {
		const arrangement = fc.record({
			sides: fc.array(fc.integer({ min: 3, max: 5 }), { minLength: 2, maxLength: 3 }),
			codes: fc.uniqueArray(fc.constantFrom('GR', 'GR2', 'GR1', 'G', 'GR22', 'G2'), {
				minLength: 3,
				maxLength: 3
			}),
			chosen: fc.array(fc.nat(2), { minLength: 3, maxLength: 3 })
		});
		await fc.assert(
			fc.asyncProperty(arrangement, async ({ sides, codes, chosen }) => {
				const masses = sides.map((n, k) => prism(`m${k}`, n, 20_000 * k));
				const zones = sides.map((_, k) => zoneOf(`z${k}`, codes[k]!, masses[k]!, patterns[chosen[k]!]!));
				const model = await new Chain().run(projectWith(masses, zones));
				expect(model.problems.filter(({ remark }) => !remark)).to.deep.equal([]);
				marksOf(model);
			}),
			{ numRuns: 12 }
		);
	}).timeout(120_000);

	it('go on after z where more than 26 cells share a step', async () => {
		const mass = massOf('m', sheet(12_000, 9000));
		const scattered = { ...zoneOf('z', 'V', mass, patterns[3]!), settingOut: count(1, 1) };
		const model = await new Chain().run(projectWith([mass], [scattered]));
		expect(model.problems).to.deep.equal([]);
		expect(model.zones[0]!.model!.faces[0]!.cells.count).to.be.greaterThan(26);
		const named = marksOf(model);
		expect([...named.keys()]).to.include.members(['V-C01-B01a', 'V-C01-B01z', 'V-C01-B01aa']);
	});

	it('a second zone of the same code is told, with a code that is free', async () => {
		const mass = prism('m', 3, 0);
		const zones = [
			zoneOf('one', 'GR', mass, patterns[0]!),
			zoneOf('two', 'GR', mass, patterns[0]!),
			zoneOf('three', 'GR2', mass, patterns[0]!)
		];
		const { problems } = await new Chain().run(projectWith([mass], zones));
		expect(problems.filter(({ remark }) => !remark)).to.deep.equal([
			{
				at: 'zones/two/code',
				text: 'GR is the code of Zone one already; every zone has its own, since marks begin with it',
				fixes: [{ label: 'GR3', path: 'zones/two/code', value: 'GR3' }]
			}
		]);
	});
});
