import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import type { FaceModel } from '../../src/core/cladding/model';
import { rimSidesOf } from '../../src/core/condition/rim-sides';
import { columnValues, everySite } from '../../src/core/field/column';
import { fieldOf } from '../../src/core/field/fields';
import { pointAt, type Vector } from '../../src/core/geometry/vector';
import type { Condition } from '../../src/core/project/condition-schema';
import type { Form } from '../../src/core/project/form-schema';
import { rimSides, type RimSide } from '../../src/core/project/line-kinds';
import { plainPatterns } from '../../src/core/project/pattern-schema';
import { readProject } from '../../src/core/project/read';
import type { PatternChoice, Project } from '../../src/core/project/schema';
import { count, projectOf, revolved, scattered, sheet } from '../faces';

const [WIDTH, HEIGHT] = [12_000, 8000];
const variants = ['p', 'q'].map((id) => ({ id, name: id, part: 'flat-panel', values: {} }));
const bar = { id: 'bar', name: 'bar', part: 'box-mullion', values: {} };
const along = (where: Condition[], more: object = {}) => ({
	id: 'l',
	lines: ['bay', 'course', 'diagonal', 'rim'],
	where: { is: 'all', of: where },
	variant: 'bar',
	...more
});
const modelOf = (project: Project) => new Chain().run(project);
async function facesOf(project: Project): Promise<readonly FaceModel[]> {
	const { zones, problems } = await modelOf(project);
	expect(problems.filter(({ remark }) => !remark)).to.deep.equal([]);
	return zones[0]!.model!.faces;
}
/** The ends of every line that lies on a side. */
function linesOn(face: FaceModel, side: RimSide): [Vector, Vector][] {
	const { from, to } = face.edges;
	const found: [Vector, Vector][] = [];
	rimSidesOf(face).forEach((number, e) => {
		if (rimSides[number] !== side) return;
		const { positions } = face.grid;
		found.push([pointAt(positions, from[e]!), pointAt(positions, to[e]!)]);
	});
	return found;
}
const lengthOf = (lines: readonly [Vector, Vector][]) =>
	lines.reduce((sum, [a, b]) => sum + Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]), 0);

describe('lines on the rims of a face', () => {
	const patterns: PatternChoice[] = [
		...plainPatterns.map((kind) => ({ kind })),
		{ kind: 'hexagons', sides: 'level' },
		{ kind: 'running bond', offset: 0.3, way: 'back and forth' },
		{ kind: 'random splits', seed: 7, smallest: 250, often: 0.8, along: 'both' },
		scattered(60)
	];
	for (const pattern of patterns)
		it(`${Object.values(pattern).slice(0, 2).join(' ')}: those of a side lie on it, and are as long as it is`, async () => {
			const [face] = await facesOf(projectOf(sheet(WIDTH, HEIGHT), count(12, 8), { pattern }));
			const sides = [
				['foot', 2, 0, WIDTH],
				['head', 2, HEIGHT, WIDTH],
				['left', 0, 0, HEIGHT],
				['right', 0, WIDTH, HEIGHT]
			] as const;
			for (const [side, axis, at, length] of sides) {
				const lines = linesOn(face!, side);
				for (const end of lines.flat()) expect(end[axis], side).to.be.closeTo(at, 1e-6);
				expect(lengthOf(lines), side).to.be.closeTo(length, 1e-6);
			}
			expect(linesOn(face!, 'trim')).to.have.length(0);
		});

	it('a ring has a foot and a head, and neither left nor right', async () => {
		const ring = revolved([
			[4000, 0],
			[5000, 9000]
		]);
		const [face] = await facesOf(projectOf(ring, count(24, 6), { pattern: { kind: 'diamonds' } }));
		// Half a diamond stands on two bays.
		const chord = (radius: number) => 12 * 2 * radius * Math.sin(Math.PI / 12);
		expect(lengthOf(linesOn(face!, 'foot'))).to.be.closeTo(chord(4000), 1e-6);
		expect(lengthOf(linesOn(face!, 'head'))).to.be.closeTo(chord(5000), 1e-6);
		expect([...linesOn(face!, 'left'), ...linesOn(face!, 'right')]).to.have.length(0);
	});

	it('a face turned inside out has its left and right the other way round', async () => {
		const project = projectOf(sheet(WIDTH, HEIGHT), count(12, 8));
		const faces = [{ id: project.zones[0]!.faces[0]!.face, outside: 'turned', corner: 0 }];
		const [face] = await facesOf(
			readProject({ ...project, masses: [{ ...project.masses[0]!, faces }] } as never)
		);
		for (const end of linesOn(face!, 'left').flat()) expect(end[0]).to.be.closeTo(WIDTH, 1e-6);
	});

	it('along an opening lies what is neither foot nor head', async () => {
		const trims = [
			{
				by: 'outline',
				id: 'door',
				outline: { shape: 'ellipse', width: 4000, depth: 3000 },
				at: [6000, -100, 4000],
				direction: [0, 1, 0]
			}
		];
		const project = projectOf(sheet(WIDTH, HEIGHT), count(12, 8));
		const named = trims.map((trim) => ({ ...trim, face: project.zones[0]!.faces[0]!.face }));
		const [face] = await facesOf(
			readProject({ ...project, masses: [{ ...project.masses[0]!, trims: named }] } as never)
		);
		const lines = linesOn(face!, 'trim');
		expect(lines.length).to.be.above(12);
		for (const [x, , z] of lines.flat())
			expect(((x - 6000) / 2000) ** 2 + ((z - 4000) / 1500) ** 2).to.be.closeTo(1, 0.02);
		expect(lengthOf(linesOn(face!, 'foot'))).to.be.closeTo(WIDTH, 1e-6);
	});

	it('where the walls of a block meet, each corner is one line a course', async () => {
		const block: Form = {
			kind: 'prism',
			outline: {
				shape: 'drawn',
				points: [
					[0, 0],
					[6000, 0],
					[6000, 4000],
					[0, 4000]
				],
				joins: 'line',
				mirrored: false,
				rounding: 0
			},
			at: [0, 0],
			foot: 0,
			head: 3000,
			curved: []
		};
		const project = projectOf(block, { ...count(4, 3) });
		const { faces: shapes } = (await modelOf(project)).masses[0]!;
		const walls = shapes.filter(({ surface }) => {
			const heights = Array.from({ length: surface.net.length / 4 }, (_, k) => surface.net[4 * k + 2]!);
			return Math.max(...heights) - Math.min(...heights) > 1;
		});
		const zone = { ...project.zones[0]!, faces: walls.map(({ name }) => ({ mass: 'm', face: name })) };
		const corners = { is: 'rim' as const, of: ['face' as const] };
		const zoned = readProject({
			...project,
			variants: [bar],
			zones: [{ ...zone, runs: [along([corners])] }]
		} as never);
		const { zones, problems } = await modelOf(zoned);
		expect(problems).to.deep.equal([]);
		const rows = zones[0]!.model!.groups.reduce((sum, { group }) => sum + group.sites.length, 0);
		expect(walls).to.have.length(4);
		expect(rows).to.equal(4 * 3);
	});
});

describe('nodes on the rims of a face', () => {
	const ball = { id: 'ball', name: 'ball', part: 'node-ball', values: {} };
	const ballsOn = async (form: Form, across: number, up: number, where: Condition) => {
		const nodes = [{ id: 'n', where: { is: 'all', of: [where] }, variant: 'ball' }];
		const project = projectOf(form, count(across, up), { nodes } as never, { variants: [ball] });
		const { zones, problems } = await modelOf(project);
		expect(problems).to.deep.equal([]);
		return zones[0]!.model!.groups.reduce((sum, { group }) => sum + group.sites.length, 0);
	};
	const on = (...of: RimSide[]): Condition => ({ is: 'rim', of });

	it('a wall of 12 by 8: 13 at the foot, 9 on the left, one of them both', async () => {
		const wall = sheet(WIDTH, HEIGHT);
		expect(await ballsOn(wall, 12, 8, on('foot'))).to.equal(13);
		expect(await ballsOn(wall, 12, 8, on('left'))).to.equal(9);
		expect(await ballsOn(wall, 12, 8, on('foot', 'left'))).to.equal(13 + 9 - 1);
		expect(await ballsOn(wall, 12, 8, { is: 'none', of: [on('foot', 'head', 'left', 'right')] })).to.equal(
			11 * 7
		);
		expect(await ballsOn(wall, 12, 8, { is: 'all', of: [on('foot'), on('right')] })).to.equal(1);
	});

	it('a drum of 24 bays folds by 15° at every node, a wall nowhere', async () => {
		const drum = revolved([
			[4000, 0],
			[4000, 6000]
		]);
		const folded = (at_least: number, at_most: number): Condition => ({
			is: 'range',
			field: 'fold',
			at_least,
			at_most
		});
		expect(await ballsOn(drum, 24, 4, folded(14.999, 15.001))).to.equal(24 * 5);
		expect(await ballsOn(sheet(WIDTH, HEIGHT), 12, 8, folded(0.001, 180))).to.equal(0);
	});
});

describe('lines asked by what is beside them, and by their slope', () => {
	const zoneWith = (where: Condition[], more: object = {}) =>
		projectOf(
			sheet(WIDTH, HEIGHT),
			count(12, 8),
			{
				rules: [
					{
						id: 'low',
						where: { is: 'all', of: [{ is: 'range', field: 'course', at_least: 1, at_most: 3 }] },
						put: { variant: 'p', values: {} }
					},
					{ id: 'rest', put: { variant: 'q', values: {} } }
				],
				runs: [along(where)],
				...more
			} as never,
			{ variants: [...variants, bar] }
		);
	const barsOf = async (project: Project) => {
		const { zones, problems } = await modelOf(project);
		expect(problems).to.deep.equal([]);
		const { groups, faces } = zones[0]!.model!;
		return groups
			.filter(({ group }) => group.over === 'line')
			.flatMap(({ group, face }) =>
				Array.from(group.sites, (e) => {
					const { edges, grid } = faces[face]!;
					return [pointAt(grid.positions, edges.from[e]!), pointAt(grid.positions, edges.to[e]!)] as const;
				})
			);
	};
	const beside = (variant: string, on: 'one side' | 'both sides'): Condition => ({
		is: 'beside',
		variant,
		on
	});

	it('between two parts: a rail for every bay, on the height where they meet', async () => {
		const bars = await barsOf(zoneWith([beside('p', 'one side'), beside('q', 'one side')]));
		expect(bars).to.have.length(12);
		for (const end of bars.flat()) expect(end[2]).to.be.closeTo(3000, 1e-6);
	});

	it('with one part on both sides: what lies within its cells', async () => {
		// 12 by 3 cells: 11 uprights a course, and two rows of rails.
		expect(await barsOf(zoneWith([beside('p', 'both sides')]))).to.have.length(11 * 3 + 12 * 2);
	});

	it('a cell that a hand has opened has nothing on it', async () => {
		const exceptions = [
			{ id: 'h', put: 'open', sites: [{ id: 'm.sheet/C3/B4/1', place: null }] },
			{ id: 'i', put: { variant: 'p', values: {} }, sites: [{ id: 'm.sheet/C4/B9/1', place: null }] }
		];
		const project = zoneWith([beside('p', 'one side'), beside('q', 'one side')]);
		const address = project.zones[0]!.faces[0]!.face;
		const named = exceptions.map((one) => ({
			...one,
			sites: one.sites.map((site) => ({ ...site, id: site.id.replace('sheet', address) }))
		}));
		const [zone] = project.zones;
		const changed = readProject({ ...project, zones: [{ ...zone, exceptions: named }] } as never);
		// One rail less over the opened cell; the cell of p among those of q has three further lines and not its own rail.
		expect(await barsOf(changed)).to.have.length(12 - 1 - 1 + 3);
	});

	it('a slope is the angle to the level: the rise of every line by its length', async () => {
		const [face] = await facesOf(
			projectOf(sheet(WIDTH, HEIGHT), count(12, 4), { pattern: { kind: 'triangles' } })
		);
		const slopes = columnValues(
			fieldOf('line', 'slope').column(face!, everySite(face!.edges.count)),
			face!.edges.count
		);
		const { from, to } = face!.edges;
		slopes.forEach((slope, e) => {
			const [a, b] = [pointAt(face!.grid.positions, from[e]!), pointAt(face!.grid.positions, to[e]!)];
			// sin of it is the rise by the length.
			const length = Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);
			expect(Math.sin(slope)).to.be.closeTo(Math.abs(b[2] - a[2]) / length, 1e-12);
		});
		const degrees = new Set([...slopes].map((slope) => Math.round((slope * 180) / Math.PI)));
		expect(degrees).to.include(0);
		expect(Math.max(...degrees)).to.be.above(45);
	});

	it('a part that is gone, no rim, and cells that are asked for their rim are said at the condition', async () => {
		const at = 'zones/z/runs/l/where/of/0';
		const told = async (project: Project) => {
			const [first] = (await modelOf(project)).problems;
			return `${first!.at}: ${first!.text}`;
		};
		expect(await told(zoneWith([beside('gone', 'one side')]))).to.match(
			new RegExp(`^${at}/variant: the variant "gone" does not exist; known: p, q, bar$`)
		);
		expect(await told(zoneWith([{ is: 'rim', of: [] }]))).to.match(new RegExp(`^${at}: on no rim`));
		const rules = [
			{
				id: 'r',
				where: { is: 'all', of: [{ is: 'rim', of: ['foot'] }] },
				put: { variant: 'p', values: {} }
			}
		];
		expect(await told(zoneWith([], { rules }))).to.match(
			/asked of lines and nodes; of cells ask for a measure/
		);
	});
});
