import { expect } from 'chai';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import type { FaceModel, Model } from '../../src/core/cladding/model';
import { columnValues, everySite } from '../../src/core/field/column';
import { fieldOf } from '../../src/core/field/fields';
import type { Driver } from '../../src/core/project/driver-schema';
import type { PartDefinition } from '../../src/core/project/part-definition';
import { partSchema } from '../../src/core/project/part-definition';
import type { Project } from '../../src/core/project/schema';
import { count, projectOf, sheet } from '../faces';

/** A bar out of the middle of a cell, as long as its input says. */
const spike: PartDefinition = partSchema.parse({
	id: 'spike',
	label: 'Spike',
	role: 'structure',
	use: 'tests',
	anchor: { kind: 'ring', corners: 'any' },
	inputs: [
		{ name: 'depth', label: 'Depth', kind: 'length', default: 100, min: 0, max: 9000, scope: 'per piece' },
		{ name: 'ratio', label: 'Ratio', kind: 'ratio', default: 0.5, min: 0, max: 1, scope: 'per piece' },
		{
			name: 'way',
			label: 'Way',
			kind: 'choice',
			default: 'left',
			options: [
				{ name: 'left', label: 'left' },
				{ name: 'right', label: 'right' }
			],
			scope: 'per piece'
		}
	],
	limits: [],
	steps: [
		{ name: 'tip', do: 'lift', of: 'centre', by: 'depth + 1 mm', along: 'normal' },
		{ name: 'way_out', do: 'line', from: 'centre', to: 'tip' },
		{ name: 'bar', do: 'bar', path: 'way_out', profile: { shape: 'round', diameter: '20 mm' }, facing: 'up' }
	],
	elements: [{ name: 'spike', label: 'Spike', category: 'bar', of: ['bar'], material: 'aluminium' }],
	measures: []
});
/** A ball whose size is set piece by piece. */
const growingBall: PartDefinition = partSchema.parse({
	id: 'growing-ball',
	label: 'Growing ball',
	role: 'structure',
	use: 'tests',
	anchor: { kind: 'node', corners: 'any' },
	inputs: [
		{
			name: 'diameter',
			label: 'Diameter',
			kind: 'length',
			default: 100,
			min: 1,
			max: 900,
			scope: 'per piece'
		}
	],
	limits: [],
	steps: [{ name: 'ball', do: 'sphere', centre: 'node', diameter: 'diameter' }],
	elements: [{ name: 'ball', label: 'Ball', category: 'connector', of: ['ball'], material: 'steel' }],
	measures: []
});
const variants = [{ id: 's', name: 's', part: 'spike', values: {} }];
const project = (across: number, up: number, values: Record<string, unknown>, rest: Partial<Project> = {}) =>
	projectOf(
		sheet(across * 1000, up * 1000),
		count(across, up),
		{ rules: [{ id: 'all', put: { variant: 's', values } }] } as never,
		{ variants, parts: [spike], ...rest }
	);
const faceOf = ({ zones }: Model): FaceModel => zones[0]!.model!.faces[0]!;
const fieldOn = (face: FaceModel, name: string) =>
	columnValues(fieldOf('cell', name).column(face, everySite(face.cells.count)), face.cells.count);

/** What an input came to for every cell, and what was told of pieces. */
async function driven(given: Project, name: string) {
	const model = await new Chain().run(given);
	expect(model.problems).to.deep.equal([]);
	const values: number[] = [];
	const told: string[] = [];
	for (const { group } of model.zones[0]!.model!.groups) {
		group.sites.forEach((c, row) => (values[c] = group.perPiece.get(name)![row]!));
		for (const row of group.flags.rows()) told.push(...group.flags.of(row).map(({ code }) => code));
	}
	return { values, told, face: faceOf(model) };
}
const told = async (driver: unknown) =>
	(await new Chain().run(project(3, 3, { depth: driver }))).problems[0]?.text ?? '';
const follows = (more: object): Driver => ({
	is: 'follows',
	field: 'height',
	from: [0, 4000],
	to: [200, 600],
	curve: [],
	steps: null,
	outside: 'held',
	...more
});

describe('drivers', () => {
	it('follow a field from a range to a range, held at its ends, as the same formula does', async () => {
		const spelled = await driven(project(3, 6, { depth: follows({}) }), 'depth');
		const formula = await driven(
			project(3, 6, { depth: '200 mm + 400 mm * clamp(height / 4000 mm, 0, 1)' }),
			'depth'
		);
		spelled.values.forEach((value, c) => expect(value).to.be.closeTo(formula.values[c]!, 1e-9));
		// Courses are a metre high: middles at 500, 1 500 …; from 4 m on it is held.
		expect([0, 1, 2, 3, 4, 5].map((course) => spelled.values[3 * course])).to.deep.equal([
			250, 350, 450, 550, 600, 600
		]);
		expect(spelled.told).to.deep.equal([]);
	});

	it('outside the range they are flagged where that is wanted, with the field and its range', async () => {
		const { told, values } = await driven(project(3, 6, { depth: follows({ outside: 'flagged' }) }), 'depth');
		expect(told).to.deep.equal(new Array(6).fill('driver.outside'));
		expect(values.at(-1)).to.equal(600);
	});

	it('turned round, through a curve, in levels: between what they go from and to, and never the other way', async () => {
		const shares = fc.double({ min: 0, max: 1, noNaN: true });
		await fc.assert(
			fc.asyncProperty(
				fc.array(fc.tuple(shares, shares), { maxLength: 4 }),
				fc.option(fc.integer({ min: 1, max: 6 })),
				fc.boolean(),
				async (points, steps, turned) => {
					// A curve that only rises.
					const curve = points
						.map(([x]) => x)
						.sort((a, b) => a - b)
						.map((x, k) => [x, points.map(([, y]) => y).sort((a, b) => a - b)[k]!]);
					const { values } = await driven(
						project(2, 8, { depth: follows({ from: turned ? [8000, 0] : [0, 8000], curve, steps }) }),
						'depth'
					);
					for (const value of values) expect(value).to.be.within(200 - 1e-9, 600 + 1e-9);
					for (let c = 2; c < values.length; c++) {
						const rise = values[c]! - values[c - 2]!;
						expect(turned ? -rise : rise).to.be.above(-1e-9);
					}
					if (steps) expect(new Set(values.map((value) => value.toFixed(6))).size).to.be.at.most(steps);
				}
			),
			{ numRuns: 40 }
		);
		const { values } = await driven(project(1, 4, { depth: follows({ curve: [[0.5, 0.1]] }) }), 'depth');
		// Middles at 1/8, 3/8, 5/8, 7/8 of the range: 0.1 at the half, then up to 1.
		expect(values.map((value) => Math.round(value))).to.deep.equal([210, 230, 330, 510].map((n) => n));
	});

	it('area over 10 as depth; a ratio that alternates between 0.25 and 0.75; small cells stay flat', async () => {
		const rhythm = { by: 'list', sizes: [2000, 500], run: 'repeated', start: 'left' };
		const uneven = projectOf(
			sheet(10_000, 3000),
			{ across: rhythm, up: { by: 'count', count: 3 } } as never,
			{
				rules: [
					{
						id: 'all',
						put: {
							variant: 's',
							values: {
								depth: 'area < 1 m^2 ? 0 mm : area / 10 m',
								ratio: { is: 'alternates', values: [0.25, 0.75], by: 'bays' },
								way: { is: 'alternates', values: ['left', 'right'], by: 'courses' }
							}
						}
					}
				]
			} as never,
			{ variants, parts: [spike] }
		);
		const { values: depth, face } = await driven(uneven, 'depth');
		const area = fieldOn(face, 'area');
		expect(new Set(area.map((one) => Math.round(one)))).to.deep.equal(new Set([2e6, 0.5e6]));
		depth.forEach((value, c) => expect(value).to.be.closeTo(area[c]! < 1e6 ? 0 : area[c]! / 10_000, 1e-6));
		const { values: ratio } = await driven(uneven, 'ratio');
		const { values: way } = await driven(uneven, 'way');
		const { bay, course } = face.cells;
		ratio.forEach((value, c) => expect(value).to.equal(bay[c]! % 2 ? 0.25 : 0.75));
		way.forEach((value, c) => expect(value).to.equal(course[c]! % 2 ? 1 : 2));
	});

	it('by chance: evenly between the two, the same for as long as the place is there', async () => {
		const chance = { is: 'chance', to: [100, 300], seed: 3 };
		const { values } = await driven(project(50, 40, { depth: chance }), 'depth');
		const mean = values.reduce((a, b) => a + b, 0) / values.length;
		// 2,000 draws of a spread of 200/√12: the mean is within 4 · 58 / √2000 of the middle.
		expect(mean).to.be.closeTo(200, 5.2);
		expect(Math.min(...values)).to.be.within(100, 102);
		expect(Math.max(...values)).to.be.within(298, 300);
		const wider = await driven(project(60, 40, { depth: chance }), 'depth');
		const at = ({ values, face }: typeof wider, course: number, bay: number) =>
			values[values.findIndex((_, c) => face.cells.course[c] === course && face.cells.bay[c] === bay)];
		const again = await driven(project(50, 40, { depth: chance }), 'depth');
		for (const [course, bay] of [
			[1, 1],
			[7, 31],
			[40, 50]
		] as const)
			expect(at(wider, course, bay)).to.equal(at(again, course, bay));
	});

	it('follow the distance from a guide, in words and in a formula', async () => {
		const guides = [
			{
				id: 'tide-line',
				name: 'Tide line',
				on: 'space',
				points: [
					[0, 0, 0],
					[0, 0, 3000]
				],
				joins: 'line',
				closed: false
			}
		];
		const rest = { guides } as never;
		const spelled = await driven(
			project(6, 3, { depth: follows({ field: 'distance.tide_line', from: [0, 6000], to: [600, 0] }) }, rest),
			'depth'
		);
		const formula = await driven(project(6, 3, { depth: '600 mm - distance.tide_line / 10' }, rest), 'depth');
		spelled.values.forEach((value, c) => {
			expect(value).to.be.closeTo(600 - (spelled.face.cells.bay[c]! - 0.5) * 100, 1e-6);
			expect(value).to.be.closeTo(formula.values[c]!, 1e-9);
		});
	});

	it('on line runs and nodes: a ball as large as its height says', async () => {
		const balls = projectOf(
			sheet(3000, 4000),
			count(3, 4),
			{
				nodes: [
					{
						id: 'n',
						variant: 'b',
						values: { diameter: { is: 'follows', field: 'height', from: [0, 4000], to: [100, 300] } }
					}
				]
			} as never,
			{ variants: [{ id: 'b', name: 'b', part: 'growing-ball', values: {} }], parts: [growingBall] }
		);
		const model = await new Chain().run(balls);
		expect(model.problems).to.deep.equal([]);
		let looked = 0;
		for (const { group } of model.zones[0]!.model!.groups)
			group.sites.forEach((n, row) => {
				const height = faceOf(model).grid.positions[3 * n + 2]!;
				expect(group.perPiece.get('diameter')![row]).to.be.closeTo(100 + height / 20, 1e-9);
				looked++;
			});
		expect(looked).to.equal(4 * 5);
	});

	it('set the depth of a layer in words, as the same formula does', async () => {
		const depths = async (depth: unknown) => {
			const { zones, problems } = await new Chain().run(
				projectOf(sheet(4000, 5000), count(4, 5), { layer: { depth, shifted: false } } as never)
			);
			return { problems, depth: zones[0]?.model?.faces[0]!.layer!.depth };
		};
		const spelled = await depths({ is: 'follows', field: 'height', from: [0, 4000], to: [-900, -100] });
		const formula = await depths('-900 mm + 800 mm * clamp(height / 4000 mm, 0, 1)');
		expect(spelled.problems).to.deep.equal([]);
		expect(spelled.depth!.length).to.equal(5 * 6);
		spelled.depth!.forEach((value, n) => expect(value).to.be.closeTo(formula.depth![n]!, 1e-9));
		const chance = await depths({ is: 'chance', to: [-500, -400], seed: 2 });
		for (const value of chance.depth!) expect(value).to.be.within(-500, -400);
		expect(new Set(chance.depth).size).to.equal(30);
		const lines = await depths({ is: 'follows', field: 'lines', from: [0, 4], to: [-9, -1] });
		expect(lines.problems[0]!.at).to.equal('zones/z/layer/depth/field');
		expect(lines.problems[0]!.text).to.match(/cannot follow "lines"; known: height/);
	});

	it('that cannot be are said at their value', async () => {
		expect(await told(follows({ from: [3000, 3000] }))).to.match(
			/Depth follows height from 3000 to 3000, which is no range/
		);
		expect(await told(follows({ field: 'tide' }))).to.match(
			/Depth cannot follow "tide", which does not exist; known: warp, area/
		);
		expect(await told(follows({ from: ['1 m^2', 4000] }))).to.match(
			/"1 m\^2" is an area; a length is wanted/
		);
		expect(await told({ is: 'alternates', values: ['wide'], by: 'bays' })).to.match(
			/"wide" in "wide" is not known/
		);
		expect(await told(follows({ curve: [[2, 0.5]] }))).to.match(/the curve runs from 0 to 1; its point at 2/);

		const driver = follows({ from: [3000, 3000] });
		const ofRule = await new Chain().run(project(3, 3, { depth: driver }));
		expect(ofRule.problems.map(({ at }) => at)).to.deep.equal(['zones/z/rules/all/put/values/depth/from']);
		const onNodes = projectOf(
			sheet(3000, 4000),
			count(3, 4),
			{ nodes: [{ id: 'n', variant: 'b', values: { diameter: driver } }] } as never,
			{ variants: [{ id: 'b', name: 'b', part: 'growing-ball', values: {} }], parts: [growingBall] }
		);
		const ofNodes = await new Chain().run(onNodes);
		expect(ofNodes.problems.map(({ at }) => at)).to.deep.equal(['zones/z/nodes/n/values/diameter/from']);
	});
});
