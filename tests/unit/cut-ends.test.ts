import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import type { ZoneModel } from '../../src/core/cladding/model';
import { findClashes } from '../../src/core/clash/find';
import { pointAt, subtract } from '../../src/core/geometry/vector';
import type { Form } from '../../src/core/project/form-schema';
import type { PatternChoice } from '../../src/core/project/schema';
import { flagSentence } from '../../src/core/units/flag';
import { count, projectOf, revolved, sheet } from '../faces';
import { cornersOf, facesOf, volumeWithin } from '../trial-run';

const [BAYS, COURSES, W, H, WIDTH, DEPTH] = [6, 4, 1500, 1200, 60, 20];
const strip = {
	id: 'strip',
	name: 'strip',
	part: 'cap-strip',
	values: { width: WIDTH, depth: DEPTH }
};

async function zoneOf(
	ends: object | null,
	lines = ['bay', 'course', 'rim'],
	rest: object = {},
	form: Form = sheet(BAYS * W, COURSES * H),
	pattern: PatternChoice = { kind: 'rectangles' },
	grid = count(BAYS, COURSES)
): Promise<ZoneModel> {
	const runs = [{ id: 'r', lines, variant: 'strip', ends, ...rest }];
	const project = projectOf(form, grid, { pattern, runs } as never, { variants: [strip] });
	const model = await new Chain().run(project);
	expect(model.problems.filter(({ remark }) => !remark)).to.deep.equal([]);
	return model.zones[0]!.model!;
}
const tablesOf = ({ groups }: ZoneModel) => groups.flatMap(({ group }) => group.run.elements);
const sum = (values: Iterable<number>) => [...values].reduce((a, b) => a + b, 0);
const volumeOf = (zone: ZoneModel) => sum(tablesOf(zone).flatMap(({ volume }) => [...volume]));
const lengthOf = (zone: ZoneModel) => sum(tablesOf(zone).flatMap(({ length }) => [...length]));

const LINES = (BAYS + 1) * COURSES * H + (COURSES + 1) * BAYS * W;
const INNER = (BAYS - 1) * COURSES * H + (COURSES - 1) * BAYS * W;
/** Nodes where four, three, two lines meet. */
const [FOUR, THREE, TWO] = [(BAYS - 1) * (COURSES - 1), 2 * (BAYS - 1) + 2 * (COURSES - 1), 4];

describe('ends of bars where others of their run meet them', () => {
	it('mitred: together they fill their strips once (area of the union, closed form)', async () => {
		const plain = await zoneOf(null);
		expect(volumeOf(plain)).to.be.closeTo(LINES * WIDTH * DEPTH, 1);
		const mitred = await zoneOf({ is: 'mitred' });
		const twice = WIDTH * WIDTH * (FOUR + THREE / 2 + TWO / 4);
		expect(volumeOf(mitred)).to.be.closeTo((LINES * WIDTH - twice) * DEPTH, 1e-5 * volumeOf(plain));
		for (const table of tablesOf(mitred))
			for (let k = 0; k < table.count; k++)
				expect(volumeWithin(cornersOf(table, k), facesOf(table, k))).to.be.closeTo(
					table.volume[k]!,
					1e-4 * table.volume[k]!
				);
	});

	it('set back: each ends so far before every node where it is not alone', async () => {
		const zone = await zoneOf({ is: 'set back', by: 85 }, ['bay', 'course']);
		expect(lengthOf(zone)).to.be.closeTo(INNER - 4 * FOUR * 85, 0.05);
		expect(volumeOf(zone)).to.be.closeTo((INNER - 4 * FOUR * 85) * WIDTH * DEPTH, 100);
	});

	it('butted: those that go through stay whole, the others end at their sides', async () => {
		const zone = await zoneOf({ is: 'butted', through: 'bay' }, ['bay', 'course']);
		const [face] = zone.faces;
		for (const { group } of zone.groups)
			for (const { row, length } of group.run.elements)
				row.forEach((r, k) => {
					const line = group.sites[r]!;
					const [a, b] = [face!.edges.from[line]!, face!.edges.to[line]!].map((node) => [
						...face!.grid.positions.subarray(3 * node, 3 * node + 3)
					]);
					const upright = Math.abs(a![2]! - b![2]!) > 1;
					// At the sides of the wall a course line is alone.
					const ends = [a!, b!].filter(([x]) => x! > 1 && x! < BAYS * W - 1).length;
					expect(length[k]).to.be.closeTo(upright ? H : W - (ends * WIDTH) / 2, 0.01);
				});
	});

	it('butted with rims that run so: uprights go through to the edges of the wall, what is level ends at all of them', async () => {
		const zone = await zoneOf({ is: 'butted', through: 'bay', rims: true });
		const uprights = (BAYS + 1) * COURSES * H;
		expect(lengthOf(zone)).to.be.closeTo(uprights + (COURSES + 1) * BAYS * (W - WIDTH), 0.05);
		// Without, rims meet each other and the lines that end there as they come: less of them goes through.
		const other = await zoneOf({ is: 'butted', through: 'bay' });
		expect(lengthOf(other)).to.not.be.closeTo(lengthOf(zone), 1);
		const level = await zoneOf({ is: 'butted', through: 'course', rims: true });
		expect(lengthOf(level)).to.be.closeTo(
			(COURSES + 1) * BAYS * W + (BAYS + 1) * COURSES * (H - WIDTH),
			0.05
		);
	});

	it('against bars that are joined over the node the others butt, whatever else is said', async () => {
		const joined = { stock: 12000, within: 1, staggered: false };
		const zone = await zoneOf({ is: 'butted', through: 'bay' }, ['bay', 'course'], { joined });
		// Bay lines are one bar each; so are course lines, which end at the sides of the wall alone.
		expect(lengthOf(zone)).to.be.closeTo(INNER, 0.05);
	});

	describe('and bars of other runs', () => {
		const wide = { ...strip, id: 'wide', values: { width: 90, depth: DEPTH } };
		const two = async (mullions: object, transoms: object, form?: Form) => {
			const runs = [
				{ id: 'm', lines: ['bay', 'rim'], variant: 'wide', ...mullions },
				{ id: 't', lines: ['course'], variant: 'strip', ...transoms }
			];
			const project = projectOf(
				form ?? sheet(BAYS * W, COURSES * H),
				count(BAYS, COURSES),
				{ runs } as never,
				{
					variants: [strip, wide]
				}
			);
			const model = await new Chain().run(project);
			expect(model.problems.filter(({ remark }) => !remark)).to.deep.equal([]);
			const { groups, faces } = model.zones[0]!.model!;
			const lengthsOf = (id: string) =>
				groups
					.filter(({ clause }) => clause.kind === 'run' && clause.run.id === id)
					.flatMap(({ group }) => group.run.elements.flatMap(({ length }) => [...length]));
			const volume = sum(
				groups.flatMap(({ group }) => group.run.elements.flatMap((table) => [...table.volume]))
			);
			return { mullions: lengthsOf('m'), transoms: lengthsOf('t'), volume, groups, face: faces[0]! };
		};

		it('transoms end at the sides of mullions of another clause, which go on', async () => {
			for (const ends of [
				{ is: 'butted', through: 'bay', others: true },
				{ is: 'mitred', others: true }
			]) {
				const { mullions, transoms } = await two({}, { ends });
				// Those on the rim are mullions too.
				for (const length of transoms) expect(length).to.be.closeTo(W - 90, 0.01);
				expect(sum(mullions)).to.be.closeTo((BAYS + 1) * COURSES * H + 2 * BAYS * W, 0.01);
			}
			const apart = await two({}, { ends: { is: 'set back', by: 70, others: true } });
			for (const length of apart.transoms) expect(length).to.be.closeTo(W - 140, 0.01);
			const alone = await two({}, { ends: { is: 'butted', through: 'bay', others: false } });
			for (const length of alone.transoms) expect(length).to.be.closeTo(W, 0.01);
		});

		it('to each side as far as the other bar reaches there: an angle does not stand in the middle of its line', async () => {
			const angle = {
				id: 'angle',
				label: 'Angle',
				role: 'mullion',
				use: 'Holds the side of a panel.',
				limits: [],
				measures: [],
				anchor: { kind: 'pair' },
				inputs: [
					{ name: 'material', label: 'Material', kind: 'material', default: 'steel', scope: 'shared' }
				],
				steps: [
					{
						name: 'leg',
						do: 'bar',
						path: 'line',
						profile: { shape: 'angle', width: '80 mm', depth: '40 mm', wall: '8 mm' },
						facing: 'normal',
						placed: 'behind',
						turn: '20°'
					}
				],
				elements: [{ name: 'leg', label: 'Leg', category: 'bar', of: ['leg'], material: 'material' }]
			};
			const runs = [
				{ id: 'm', lines: ['bay', 'rim'], variant: 'angle' },
				{ id: 't', lines: ['course'], variant: 'strip', ends: { is: 'mitred', others: true } }
			];
			const project = projectOf(sheet(BAYS * W, COURSES * H), count(BAYS, COURSES), { runs } as never, {
				parts: [angle] as never,
				variants: [strip, { id: 'angle', name: 'angle', part: 'angle', values: {} }]
			});
			const model = await new Chain().run(project);
			expect(model.problems).to.deep.equal([]);
			const { groups, faces } = model.zones[0]!.model!;
			// The wall runs with x: how far the angles of one upright reach to either side of it.
			const xs = groups
				.filter(({ group }) => group.ready.part.id === 'angle')
				.flatMap(({ group, face }) =>
					group.run.elements.flatMap((table) =>
						Array.from(table.row, (_, k) => cornersOf(table, k)).flatMap((corners) =>
							Array.from(corners).flatMap((value, n) => (n % 3 ? [] : [value + faces[face]!.origin[0]]))
						)
					)
				)
				.map((x) => x - 2 * W)
				.filter((x) => Math.abs(x) < 100);
			const [left, right] = [-Math.min(...xs), Math.max(...xs)];
			expect(Math.abs(left - right)).to.be.greaterThan(5);
			for (const { group } of groups.filter(({ group }) => group.ready.part.id === 'cap-strip'))
				for (const { row, length } of group.run.elements)
					row.forEach((r, k) => {
						const x = faces[0]!.grid.positions[3 * faces[0]!.edges.from[group.sites[r]!]!]!;
						// Beside the rims others are in the way.
						if (x > 1 && x < (BAYS - 1) * W - 1) expect(length[k]).to.be.closeTo(W - left - right, 0.01);
					});
		});

		it('a bar that another clause goes on with is met end to end, though the line bends there', async () => {
			// A wall in one plane whose uprights bow to the side.
			const bowed: Form = {
				kind: 'net',
				degrees: [3, 3],
				points: 'control',
				rows: [0, 1, 2, 3, 4].map((j) =>
					[0, 1, 2, 3].map((i) => [2000 * i + 800 * Math.sin((j * Math.PI) / 4), 0, 1500 * j])
				)
			} as never;
			const low = { is: 'range', field: 'height', at_least: null, at_most: 3000 };
			const runs = [
				{
					id: 'low',
					lines: ['bay'],
					variant: 'strip',
					where: { is: 'all', of: [low] },
					ends: { is: 'butted', through: 'course', others: true }
				},
				{ id: 'high', lines: ['bay'], variant: 'wide' }
			];
			const project = projectOf(bowed, count(4, 4), { runs } as never, { variants: [strip, wide] });
			const model = await new Chain().run(project);
			expect(model.problems).to.deep.equal([]);
			const { groups, faces } = model.zones[0]!.model!;
			const { edges, grid } = faces[0]!;
			let met = 0;
			for (const { group, clause } of groups)
				for (const { row, length } of group.run.elements)
					row.forEach((r, k) => {
						const line = group.sites[r]!;
						const [a, b] = [edges.from[line]!, edges.to[line]!].map((node) => pointAt(grid.positions, node));
						const whole = Math.hypot(...subtract(b!, a!));
						if (clause.kind === 'run' && clause.run.id === 'low') met++;
						expect(length[k]).to.be.closeTo(whole, 0.05 * whole);
					});
			expect(met).to.equal(6);
		});

		it('at a corner between faces as well, where the bar that stands there is the other face’s', async () => {
			const walls = ['south', 'east'].map((face) => ({ mass: 'm', face }));
			const form: Form = {
				kind: 'prism',
				outline: { shape: 'rectangle', width: 6000, depth: 4500, rounding: 0 },
				at: [0, 0],
				foot: 0,
				head: 3600,
				curved: []
			};
			const posts = { id: 'm', lines: ['bay', 'rim'], variant: 'wide' };
			const rails = { id: 't', lines: ['course'], variant: 'strip', ends: { is: 'mitred', others: true } };
			const project = projectOf(
				form,
				{ across: { by: 'at most', size: W }, up: { by: 'at most', size: H } },
				{ faces: walls, runs: [posts, rails] } as never,
				{ variants: [strip, wide] }
			);
			const model = await new Chain().run(project);
			expect(model.problems).to.deep.equal([]);
			const { groups, faces } = model.zones[0]!.model!;
			expect(faces).to.have.length(2);
			// The corner's strip lies askew to both walls: half of it, and what its depth adds, seen along either (45°).
			const corner = (90 / 2) * Math.SQRT1_2;
			const inner = W - 90;
			const lengths = groups
				.filter(({ clause }) => clause.kind === 'run' && clause.run.id === 't')
				.flatMap(({ group, face }) =>
					group.run.elements.flatMap(({ length }) => [...length].map((one) => [face, one] as const))
				);
			for (const f of [0, 1]) {
				const own = lengths.filter(([face]) => face === f).map(([, one]) => one);
				const short = own.filter((one) => Math.abs(one - inner) > 1);
				// Two courses, one of whose rails on either wall ends at the corner.
				expect(short).to.have.length(2);
				for (const one of short) expect(one).to.be.closeTo(W - 90 / 2 - corner, DEPTH);
			}
			// And as far on the one wall as on the other.
			const ends = lengths.map(([, one]) => one).filter((one) => Math.abs(one - inner) > 1);
			expect(Math.max(...ends) - Math.min(...ends)).to.be.lessThan(0.01);
		});

		it('two clauses that both end where any bars meet come to what one clause of all lines comes to', async () => {
			const ends = { is: 'mitred', others: true };
			const one = await zoneOf({ is: 'mitred' });
			const { volume } = await two({ ends, variant: 'strip' }, { ends });
			expect(volume).to.be.closeTo(volumeOf(one), 1e-5 * volume);
		});

		it('in a chain that is kept they follow the other clause: a wider mullion leaves shorter transoms', async () => {
			const chain = new Chain();
			const projectWith = (width: number) =>
				projectOf(
					sheet(BAYS * W, COURSES * H),
					count(BAYS, COURSES),
					{
						runs: [
							{ id: 'm', lines: ['bay', 'rim'], variant: 'wide' },
							{ id: 't', lines: ['course'], variant: 'strip', ends: { is: 'mitred', others: true } }
						]
					} as never,
					{ variants: [strip, { ...wide, values: { width, depth: DEPTH } }] }
				);
			for (const width of [90, 140, 90]) {
				const model = await chain.run(projectWith(width));
				const transoms = model.zones[0]!.model!.groups.filter(
					({ clause }) => clause.kind === 'run' && clause.run.id === 't'
				).flatMap(({ group }) => group.run.elements.flatMap(({ length }) => [...length]));
				for (const length of transoms) expect(length).to.be.closeTo(W - width, 0.01);
			}
		});
	});

	it('of a dome in triangles leave nothing in common between neighbours', async () => {
		const dome = revolved(
			[
				[9000, 0],
				[7000, 4500],
				[3000, 6500]
			],
			'smooth'
		);
		const zone = await zoneOf(
			{ is: 'mitred' },
			['bay', 'course', 'diagonal', 'rim'],
			{},
			dome,
			{ kind: 'triangles', diagonal: 'alternating' },
			count(20, 6)
		);
		const project = projectOf(dome, count(20, 6), {}, {});
		// Joints are looked at too when the pieces are said to hang on nothing that they share.
		const apart = {
			...zone,
			groups: zone.groups.map((one) => ({ ...one, group: { ...one.group, over: 'cell' as const } }))
		};
		const found = await findClashes(
			{
				project,
				masses: [],
				zones: [{ id: 'z', model: apart, behind: false }],
				guides: new Map(),
				problems: [],
				ms: {} as never
			},
			2
		);
		expect(found.looked).to.be.greaterThan(1000);
		expect(Math.max(0, ...found.depth)).to.be.lessThan(5);
	});

	it('are cut where all of them meet in a pole, and something is left of each', async () => {
		const dome: Form = { kind: 'dome', radii: [8000, 8000, 6000], at: [0, 0], foot: 0, cut: 0 };
		const zone = await zoneOf(
			{ is: 'mitred' },
			['bay', 'course'],
			{},
			dome,
			{ kind: 'rectangles' },
			count(20, 6)
		);
		expect(zone.groups.flatMap(({ group }) => group.flags.failed())).to.deep.equal([]);
		// Twenty about the pole, alike: each has as much as every other.
		const [face] = zone.faces;
		const volumes = zone.groups.flatMap(({ group }) =>
			group.run.elements.flatMap(({ row, volume }) =>
				[...row].flatMap((r, k) =>
					face!.edges.course[group.sites[r]!] === 6 && face!.edges.direction[group.sites[r]!] === 0
						? [volume[k]!]
						: []
				)
			)
		);
		expect(volumes).to.have.length(20);
		expect(Math.max(...volumes) - Math.min(...volumes)).to.be.lessThan(1e-3 * volumes[0]!);
	});

	it('that leave nothing of a bar, or would overrun the node, are told', async () => {
		const zone = await zoneOf({ is: 'set back', by: 800 }, ['bay', 'course']);
		const told = zone.groups.flatMap(({ group }) => group.flags.failed().map((row) => group.flags.of(row)));
		expect(told.length).to.be.greaterThan(10);
		for (const flags of told) expect(flags.map(flagSentence)).to.deep.equal(['its ends leave nothing of it']);
		const runs = [{ id: 'r', lines: ['bay'], variant: 'strip', ends: { is: 'set back', by: -5 } }];
		const project = projectOf(sheet(9000, 6000), count(3, 3), { runs } as never, { variants: [strip] });
		const { problems } = await new Chain().run(project);
		expect(problems[0]!.at).to.equal('zones/z/runs/r/ends/by');
	});
});
