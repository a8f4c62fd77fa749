import { expect } from 'chai';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import { NO_RULE } from '../../src/core/cladding/assign';
import type { FaceModel, Model } from '../../src/core/cladding/model';
import { columnValues, everySite } from '../../src/core/field/column';
import { fieldOf } from '../../src/core/field/fields';
import { cellKinds } from '../../src/core/pattern/cells';
import { applyEdits } from '../../src/core/project/commands';
import type { Condition } from '../../src/core/project/condition-schema';
import type { Form } from '../../src/core/project/form-schema';
import type { Project } from '../../src/core/project/schema';
import { cellsOf } from '../../src/core/schedule/column';
import { makeSchedule } from '../../src/core/schedule/table';
import { readProject } from '../../src/core/project/read';
import { count, projectOf, revolved, sheet } from '../faces';

const panel = [{ id: 'p', name: 'p', part: 'flat-panel', values: {} }];
const put = { variant: 'p', values: {} };
const asks = (...of: Condition[]) => ({ is: 'all' as const, of });
const rule = (id: string, where: Condition, more: object = {}) => ({ id, where, put, ...more });
const run = (project: Project) => new Chain().run(project);
const faceOf = ({ zones }: Model): FaceModel => zones[0]!.model!.faces[0]!;
const taken = ({ zones }: Model) => [...zones[0]!.model!.assignments[0]!.taken];
const values = (face: FaceModel, name: string) =>
	columnValues(fieldOf('cell', name).column(face, everySite(face.cells.count)), face.cells.count);
const wall = (across: number, up: number, zone: object = {}, rest: Partial<Project> = {}) =>
	projectOf(sheet(across * 1000, up * 1000), count(across, up), zone, { variants: panel, ...rest });
const rulesOn = (across: number, up: number, rules: object[], rest: Partial<Project> = {}) =>
	wall(across, up, { rules }, rest);
const problemsOf = async (project: Project) =>
	(await run(project)).problems.map(({ at, text }) => `${at}: ${text}`);

const range = (
	field: string,
	at_least: number | string | null,
	at_most: number | string | null
): Condition => ({
	is: 'range',
	field,
	at_least,
	at_most
});

/** The same question asked of one cell in the plainest way, of the numbers that a person would look at. */
function plainly(condition: Condition, face: FaceModel, c: number): boolean {
	const { cells } = face;
	const of = (name: string) => values(face, name)[c]!;
	switch (condition.is) {
		case 'all':
			return condition.of.every((one) => plainly(one, face, c));
		case 'any':
			return condition.of.some((one) => plainly(one, face, c));
		case 'none':
			return !condition.of.some((one) => plainly(one, face, c));
		case 'kind':
			return condition.of.includes(cellKinds[cells.kind[c]!]!);
		case 'corners':
			return condition.of.includes(cells.start[c + 1]! - cells.start[c]!);
		case 'every': {
			const number = {
				bays: cells.bay[c]!,
				courses: cells.course[c]!,
				cells: cells.bay[c]! + cells.course[c]! + cells.slot[c]! - 2
			};
			return (number[condition.by] - condition.from) % condition.step === 0;
		}
		case 'range': {
			const value = of(condition.field);
			return (
				value >= Number(condition.at_least ?? -Infinity) && value <= Number(condition.at_most ?? Infinity)
			);
		}
		default:
			throw new Error(`not asked plainly: ${condition.is}`);
	}
}

const simple: fc.Arbitrary<Condition> = fc.oneof(
	fc.record({
		is: fc.constant('kind' as const),
		of: fc.subarray(['whole', 'edge', 'strip', 'cut'] as const, { minLength: 1 })
	}),
	fc.record({ is: fc.constant('corners' as const), of: fc.subarray([3, 4, 5], { minLength: 1 }) }),
	fc.record({
		is: fc.constant('every' as const),
		step: fc.integer({ min: 1, max: 5 }),
		from: fc.integer({ min: 1, max: 5 }),
		by: fc.constantFrom('cells', 'bays', 'courses')
	}),
	fc
		.tuple(
			fc.constantFrom('course', 'bay', 'corners', 'from_rim'),
			fc.integer({ min: 1, max: 4 }),
			fc.integer({ min: 0, max: 4 })
		)
		.map(([field, low, more]) => range(field, low, low + more)),
	fc
		.tuple(fc.integer({ min: 0, max: 8000 }), fc.integer({ min: 0, max: 4000 }))
		.map(([low, more]) => range('height', low, low + more))
) as fc.Arbitrary<Condition>;
const { condition } = fc.letrec<{ condition: Condition }>((tie) => ({
	condition: fc.oneof(
		{ depthSize: 'small', withCrossShrink: true },
		simple,
		fc.record({
			is: fc.constantFrom('all', 'any', 'none'),
			of: fc.array(tie('condition'), { maxLength: 3 })
		}) as fc.Arbitrary<Condition>
	)
}));

describe('rules and what they ask', () => {
	it('part the cells: each goes to the first rule that asks for it and fits, or to none', async () => {
		await fc.assert(
			fc.asyncProperty(fc.array(condition, { minLength: 1, maxLength: 5 }), async (conditions) => {
				const rules = conditions.map((where, k) => rule(`r${k}`, asks(where)));
				const model = await run(wall(9, 8, { rules, pattern: { kind: 'diamonds' } }));
				const face = faceOf(model);
				const { rule: found, taken, untaken, asked } = model.zones[0]!.model!.assignments[0]!;
				const counted = new Array<number>(rules.length).fill(0);
				for (let c = 0; c < face.cells.count; c++) {
					const wanted = conditions.findIndex((one) => plainly(one, face, c));
					expect(found[c], `cell ${c}`).to.equal(wanted < 0 ? NO_RULE : wanted);
					conditions.forEach((one, k) => (counted[k]! += Number(plainly(one, face, c))));
				}
				expect([...asked]).to.deep.equal(counted);
				expect(taken.reduce((a, b) => a + b, 0) + untaken).to.equal(face.cells.count);
				const pieces = model.zones[0]!.model!.groups.reduce((sum, { group }) => sum + group.sites.length, 0);
				expect(pieces).to.equal(face.cells.count - untaken);
			}),
			{ numRuns: 60 }
		);
	});

	it('every second cell of a wall of 22 by 11 is 121 of 242', async () => {
		const every = { is: 'every' as const, step: 2, from: 1, by: 'cells' as const };
		expect(taken(await run(rulesOn(22, 11, [rule('a', asks(every))])))).to.deep.equal([121]);
	});

	it('storeys share no cell: what stands on a level is above it, what lies under it is below', async () => {
		const levels = [0, 3000, 6000].map((height, k) => ({ id: `l${k}`, name: `Level ${k}`, height }));
		const between = (above: string | null, below: string | null): Condition => ({
			is: 'levels',
			above,
			below
		});
		const rules = [
			rule('low', asks(between('l0', 'l1'))),
			rule('middle', asks(between('l1', 'l2'))),
			rule('top', asks(between('l2', null)))
		];
		expect(taken(await run(rulesOn(4, 9, rules, { levels })))).to.deep.equal([12, 12, 12]);
		// Middles of the cells of courses of two metres lie on the levels themselves.
		const odd = projectOf(
			sheet(4000, 8000),
			count(4, 4),
			{ rules },
			{ variants: panel, levels: levels.map((one) => ({ ...one, height: one.height + 1000 })) }
		);
		expect(taken(await run(odd))).to.deep.equal([4 * 2, 4 * 1, 4 * 1]);
	});

	it('by chance: about as many as asked for, the same for as long as a place is there', async () => {
		const chosen = async (across: number, up: number, seed: number, more: object[] = []) => {
			const model = await run(
				rulesOn(across, up, [...more, rule('some', asks({ is: 'chance', share: 0.3, seed }))])
			);
			const { cells } = faceOf(model);
			const { rule: found } = model.zones[0]!.model!.assignments[0]!;
			const last = more.length;
			return new Set(
				[...found.keys()].filter((c) => found[c] === last).map((c) => `${cells.course[c]} ${cells.bay[c]}`)
			);
		};
		const first = await chosen(60, 50, 1);
		// 3,000 draws: 900 wanted, four standard deviations are 100.
		expect(first.size).to.be.within(800, 1000);
		// More bays and courses, another size, another rule before it: whoever is there still has drawn as before.
		const wider = await chosen(70, 55, 1);
		for (const one of first) expect(wider.has(one), one).to.equal(true);
		const rest = await chosen(60, 50, 1, [rule('head', asks(range('course', 50, 50)))]);
		for (const one of first) expect(rest.has(one) || one.startsWith('50 '), one).to.equal(true);
		const other = await chosen(60, 50, 2);
		const both = [...first].filter((one) => other.has(one)).length;
		expect(both / first.size).to.be.within(0.2, 0.4);
	});

	it('what is put there also takes no cell away, and its pieces have a place of their own', async () => {
		const rules = [rule('screen', asks(range('course', 2, 3)), { also: true }), rule('all', asks())];
		const model = await run(rulesOn(5, 4, rules));
		expect(taken(model)).to.deep.equal([10, 20]);
		expect(model.zones[0]!.model!.groups.map(({ group }) => group.sites.length)).to.deep.equal([10, 20]);
		const { columns, rows } = makeSchedule(model, 'panels');
		expect(rows).to.equal(30);
		for (const key of ['mark', 'address']) {
			const names = cellsOf(columns.find((one) => one.key === key)!).map(String);
			expect(new Set(names).size, key).to.equal(30);
			expect(names.filter((name) => name.endsWith('+screen')).length, key).to.equal(10);
		}
	});

	it('a condition changed moves what changed its rule, and nothing else is made again', async () => {
		const chain = new Chain();
		// Eight chunks of 1,024 cells.
		const project = rulesOn(128, 64, [rule('low', asks(range('course', 1, 20))), rule('rest', asks())]);
		const before = await chain.run(project);
		const { project: next } = applyEdits(project, [
			{ do: 'set', path: 'zones/z/rules/low/where/of/0/at_most', value: 22 }
		]);
		const after = await chain.run(next);
		const serials = ({ zones }: Model) =>
			new Map(zones[0]!.model!.groups.map(({ serial, group }) => [serial, group]));
		const old = serials(before);
		const made = [...serials(after)].filter(([serial]) => !old.has(serial)).map(([, group]) => group);
		expect(taken(after)).to.deep.equal([22 * 128, 42 * 128]);
		// Courses 21 and 22 are cells 2,560 to 2,815: all in the third chunk, once for each rule.
		expect(made.length).to.equal(2);
		for (const { sites } of made) for (const c of sites) expect(Math.floor(c / 1024)).to.equal(2);
	});
});

describe('line runs and nodes ask too', () => {
	const kit = [
		{ id: 'bar', name: 'bar', part: 'box-mullion', values: {} },
		{ id: 'ball', name: 'ball', part: 'node-ball', values: {} }
	];
	const zoneWith = (more: object) =>
		projectOf(sheet(6000, 4000), count(6, 4), more as never, { variants: kit });
	const sitesOf = async (project: Project) => {
		const model = await run(project);
		expect(model.problems).to.deep.equal([]);
		return model.zones[0]!.model!.groups.reduce((sum, { group }) => sum + group.sites.length, 0);
	};

	it('by their own fields: lines of one direction in some courses, nodes above a height, all by chance', async () => {
		const lines = (where: Condition[], more: object = {}) => ({
			runs: [{ id: 'l', lines: ['bay', 'course', 'rim'], where: asks(...where), variant: 'bar', ...more }]
		});
		// 6 by 4: uprights of the second course are 7; two courses of rails, over and under it, have 6 each.
		expect(await sitesOf(zoneWith(lines([range('height', 1400, 1600)])))).to.equal(7);
		expect(await sitesOf(zoneWith(lines([range('length', null, 1001), range('course', 2, 2)])))).to.equal(
			7 + 6
		);
		expect(
			await sitesOf(
				zoneWith({ nodes: [{ id: 'n', where: asks(range('height', 1500, null)), variant: 'ball' }] })
			)
		).to.equal(3 * 7);
		expect(
			await sitesOf(
				zoneWith({ nodes: [{ id: 'n', where: asks({ is: 'corners', of: [2] }), variant: 'ball' }] })
			)
		).to.equal(4);
		const chance: Condition = { is: 'chance', share: 0.5, seed: 5 };
		const some = await sitesOf(zoneWith(lines([chance])));
		expect(some).to.be.within(15, 45);
	});

	it('what only cells have is not asked of them', async () => {
		const [text] = await problemsOf(
			zoneWith({ nodes: [{ id: 'n', where: asks({ is: 'kind', of: ['cut'] }), variant: 'ball' }] })
		);
		expect(text).to.match(/^zones\/z\/nodes\/n\/where\/of\/0: that is asked of cells; of nodes ask for/);
	});

	it('every condition is answered at every clause, or it is said of what it can be asked', async () => {
		const ring = [
			[0, 0, 0],
			[3000, 0, 0],
			[3000, 0, 3000]
		] as [number, number, number][];
		const everything: Condition[] = [
			{ is: 'kind', of: ['whole'] },
			{ is: 'corners', of: [4] },
			{ is: 'slot', of: ['rectangle'] },
			{ is: 'rim', of: ['foot', 'left'] },
			{ is: 'beside', variant: 'p', on: 'one side' },
			{ is: 'face', of: ['m.wall'] },
			{ is: 'looks', towards: 'south', within: 45 },
			{ is: 'levels', above: 'one', below: null },
			{ is: 'every', step: 2, from: 1, by: 'cells' },
			{ is: 'every', step: 2, from: 1, by: 'bays' },
			{ is: 'every', step: 2, from: 1, by: 'courses' },
			{ is: 'chance', share: 0.5, seed: 3 },
			range('height', 0, 2000),
			{ is: 'inside', guide: 'ring' },
			{ is: 'formula', formula: 'height > 2 m' }
		];
		const rope = { id: 'rope', name: 'rope', part: 'woven-tube', values: {} };
		const clauses: Record<string, (where: Condition) => object> = {
			cells: (where) => ({ rules: [{ id: 'r', where, put }] }),
			lines: (where) => ({ runs: [{ id: 'r', lines: ['bay', 'rim'], where, variant: 'bar' }] }),
			'lines in chains': (where) => ({
				runs: [{ id: 'r', over: 'chains', lines: ['bay'], where, variant: 'rope' }]
			}),
			nodes: (where) => ({ nodes: [{ id: 'r', where, variant: 'ball' }] })
		};
		for (const [over, clause] of Object.entries(clauses))
			for (const condition of everything) {
				const { problems } = await run(
					projectOf(sheet(6000, 4000), count(6, 4), clause(asks(condition)), {
						variants: [...panel, ...kit, rope],
						levels: [{ id: 'one', name: 'One', height: 2000 }],
						guides: [{ id: 'ring', name: 'Ring', on: 'space', points: ring, joins: 'line', closed: true }]
					})
				);
				for (const { text } of problems)
					expect(text, `${over}: ${JSON.stringify(condition)}`).to.match(
						new RegExp(`of ${over.split(' ')[0]} ask for`)
					);
			}
	});
});

describe('fields of places, against closed forms', () => {
	const first = (points: readonly number[][]) => points as [number, number][];
	const faceWith = async (form: Form, across: number, up: number, rest: Partial<Project> = {}) =>
		faceOf(await run(projectOf(form, count(across, up), {}, rest)));
	const degrees = (radians: number) => (radians * 180) / Math.PI;

	it('on a plane: upright, facing south, flat; so many from the rim', async () => {
		const face = await faceWith(sheet(7000, 5000), 7, 5);
		for (const c of everySite(35)) {
			expect(degrees(values(face, 'slope')[c]!)).to.be.closeTo(90, 1e-6);
			expect(degrees(values(face, 'facing')[c]!)).to.be.closeTo(180, 1e-6);
			expect(values(face, 'radius')[c]).to.be.above(1e8);
			const [bay, course] = [face.cells.bay[c]!, face.cells.course[c]!];
			expect(values(face, 'from_rim')[c]).to.equal(Math.min(bay, 8 - bay, course, 6 - course));
			expect(values(face, 'across')[c]).to.be.closeTo((bay - 0.5) / 7, 1e-12);
			expect(values(face, 'up')[c]).to.be.closeTo((course - 0.5) / 5, 1e-12);
		}
	});

	it('on a cylinder: its radius one way, straight the other; facing round the compass', async () => {
		const radius = 5000;
		const face = await faceWith(
			revolved(
				first([
					[radius, 0],
					[radius, 4000]
				])
			),
			24,
			4
		);
		for (let c = 0; c < face.cells.count; c++) {
			expect(values(face, 'radius')[c]).to.be.closeTo(radius, radius * 1e-9);
			expect(values(face, 'largest_radius')[c]).to.be.above(1e8);
			expect(degrees(values(face, 'slope')[c]!)).to.be.closeTo(90, 1e-6);
			// The drum begins to the east and turns to the north: the bearing runs the other way.
			const bearing = (90 - (face.cells.bay[c]! - 0.5) * 15 + 360) % 360;
			// Lines are set out to a tenth of a millimetre: a thousandth of a degree at this radius.
			expect(degrees(values(face, 'facing')[c]!)).to.be.closeTo(bearing, 1e-3);
		}
	});

	it('on a sphere: one radius both ways, the slope is the angle from the top', async () => {
		const radius = 6000;
		const dome: Form = { kind: 'dome', at: [0, 0], foot: 0, radii: [radius, radius, radius], cut: 0 };
		const face = await faceWith(dome, 24, 6);
		const heights = values(face, 'height');
		let looked = 0;
		for (let c = 0; c < face.cells.count; c++) {
			expect(values(face, 'radius')[c]).to.be.closeTo(radius, radius * 1e-6);
			expect(values(face, 'largest_radius')[c]).to.be.closeTo(radius, radius * 1e-6);
			const { centre } = face.measures;
			const plan = Math.hypot(centre[3 * c]!, centre[3 * c + 1]!);
			if (face.cells.start[c + 1]! - face.cells.start[c]! !== 4) continue;
			// The chord plane of a cell leans as the sphere does over its middle, to the size of the cell squared.
			expect(values(face, 'slope')[c]).to.be.closeTo(Math.atan2(plan, heights[c]!), 0.02);
			looked++;
		}
		expect(looked).to.be.above(100);
	});

	it('distances from a guide, and what lies inside it', async () => {
		const guides = [
			{
				id: 'post',
				name: 'Post',
				on: 'space' as const,
				points: [
					[0, 0, 0],
					[0, 0, 9000]
				] as [number, number, number][],
				joins: 'line' as const,
				closed: false
			},
			{
				id: 'pool',
				name: 'Pool',
				on: 'space' as const,
				points: [
					[1000, -500, 1000],
					[4000, -500, 1000],
					[4000, -500, 3000],
					[1000, -500, 3000]
				] as [number, number, number][],
				joins: 'line' as const,
				closed: true
			}
		];
		const rules = [
			rule('near', asks(range('distance.post', null, 2000))),
			rule('within', asks({ is: 'inside', guide: 'pool' })),
			rule('else', asks({ is: 'formula', formula: 'distance.post > 5 m and not inside.pool' }))
		];
		const model = await run(wall(7, 5, { rules }, { guides } as never));
		expect(model.problems).to.deep.equal([]);
		// Middles at 500, 1 500, … of each bay: two bays are nearer than two metres, two of the next three are inside for two courses, two lie over 5 m away.
		expect(taken(model)).to.deep.equal([2 * 5, 2 * 2, 2 * 5]);
	});
});

describe('what cannot be asked', () => {
	const told = async (where: Condition, rest: Partial<Project> = {}) => {
		const [first] = await problemsOf(rulesOn(4, 3, [rule('r', asks(where)), rule('all', asks())], rest));
		return first ?? '';
	};
	it('is said at its value, with what would fit', async () => {
		const at = 'zones/z/rules/r/where/of/0';
		expect(await told(range('area', 3e6, 1e6))).to.match(
			new RegExp(`^${at}: area from 3000000 to 1000000 is empty`)
		);
		expect(await told(range('colour', 0, 1))).to.match(
			new RegExp(`^${at}/field: what is asked for "colour" does not exist; known: warp, area, `)
		);
		expect(await told(range('area', '2 m', null))).to.match(
			/^.*\/at_least: "2 m" is a length; an area is wanted/
		);
		expect(await told({ is: 'slot', of: ['lantern'] })).to.match(
			/the pattern has no slot "lantern"; it has /
		);
		expect(await told({ is: 'face', of: ['hall.south'] })).to.match(
			/the face "hall.south" does not exist; known: m\./
		);
		expect(await told({ is: 'levels', above: 'roof', below: null })).to.match(
			/the level "roof" does not exist; known: none yet/
		);
		expect(await told({ is: 'chance', share: 1.5, seed: 1 })).to.match(
			/a share of 1.5 is none; 0 to 1 is accepted/
		);
		expect(await told({ is: 'looks', towards: 'south', within: 0 })).to.match(/within 0° cannot be/);
		expect(await told({ is: 'inside', guide: 'pool' })).to.match(/the guide "pool" does not exist/);
		expect(await told({ is: 'formula', formula: 'area + 1 m > 2' })).to.match(
			/\/formula: .*mixes an area with a length/
		);
		expect(await told({ is: 'formula', formula: 'area' })).to.match(/is an area; a yes-or-no is wanted/);
		expect(await told({ is: 'corners', of: [2] })).to.match(/cells with 2 corners do not exist/);
		expect(await told({ is: 'every', step: 0, from: 1, by: 'bays' })).to.match(/every 0 from 1 cannot be/);
	});

	it('never matches, or comes after a rule that has it all: said, with that rule', async () => {
		expect(await told(range('course', 9, 9))).to.match(/^zones\/z\/rules\/r: no cell is as it asks/);
		const [all] = await problemsOf(
			rulesOn(4, 3, [rule('first', asks()), rule('low', asks(range('course', 1, 1)))])
		);
		expect(all).to.equal(
			'zones/z/rules/low: All 4 cells that it asks for are taken by rules before it, first by the first one; move it up, or ask for others'
		);
	});
});

describe('what version 7 asked otherwise', () => {
	const earlier = {
		id: 'r',
		cells: 'whole',
		corners: 4,
		slot: 'any',
		every: { step: 2, from: 1, by: 'bays' },
		courses: [2, 3],
		put
	};
	const today: Condition[] = [
		{ is: 'kind', of: ['whole', 'strip'] },
		{ is: 'corners', of: [4] },
		{ is: 'every', step: 2, from: 1, by: 'bays' },
		range('course', 2, 3)
	];
	const document = (rules: unknown[]) =>
		readProject({ ...wall(6, 5), version: 7, zones: [{ ...wall(6, 5).zones[0], rules }] });

	it('is asked in the same way of the same cells', async () => {
		const project = document([earlier]);
		expect(project.zones[0]!.rules[0]!.where).to.deep.equal(asks(...today));
		expect(taken(await run(project))).to.deep.equal([3 * 2]);
	});

	it('commands of the log are carried out on rules of today, and taken back', () => {
		const project = document([earlier]);
		const list = 'zones/z/rules';
		const log = [
			{ do: 'set', path: `${list}/r/cells`, value: 'edge' },
			{ do: 'set', path: `${list}/r/every/step`, value: 3 },
			{ do: 'set', path: `${list}/r/courses/1`, value: 5 },
			{ do: 'set', path: `${list}/r/corners`, value: 'any' },
			{ do: 'insert', path: list, index: 1, value: { ...earlier, id: 'second', every: null } }
		] as const;
		const { project: next, inverse } = applyEdits(project, log);
		expect(next.zones[0]!.rules[0]!.where.of).to.deep.equal([
			{ is: 'kind', of: ['edge'] },
			{ is: 'every', step: 3, from: 1, by: 'bays' },
			range('course', 2, 5)
		]);
		expect(next.zones[0]!.rules[1]!.where.of.length).to.equal(3);
		expect(applyEdits(next, inverse).project).to.deep.equal(project);
		const again = applyEdits(next, [{ do: 'set', path: `${list}/r/slot`, value: 'cell' }]);
		expect(again.project.zones[0]!.rules[0]!.where.of.at(-1)).to.deep.equal({ is: 'slot', of: ['cell'] });
	});
});
