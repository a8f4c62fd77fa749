import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import type { ZoneModel } from '../../src/core/cladding/model';
import { outlineOf } from '../../src/core/pattern/cells';
import { writeIfc } from '../../src/core/exchange/ifc/write';
import { textOf } from '../written';
import { plainPatterns } from '../../src/core/project/pattern-schema';
import type { Form } from '../../src/core/project/form-schema';
import type { PatternChoice, ZoneInput } from '../../src/core/project/schema';
import { partSchema } from '../../src/core/project/part-definition';
import { placesOf } from '../../src/core/part/places';
import { cellsOf } from '../../src/core/schedule/column';
import { makeSchedule } from '../../src/core/schedule/table';
import { summarise } from '../../src/core/schedule/summary';
import { count, projectOf, revolved, sheet, scattered } from '../faces';

const variants = [
	{ id: 'ball', name: 'Ball', part: 'node-ball', values: {} },
	{ id: 'post', name: 'Post', part: 'box-mullion', values: {} }
];
const everywhere = [{ id: 'n', variant: 'ball' }];
const lines: ZoneInput['runs'] = [{ id: 'r', lines: ['bay', 'course', 'diagonal', 'rim'], variant: 'post' }];

async function zoneOf(form: Form, zone: Partial<ZoneInput>, grid = count(6, 5)): Promise<ZoneModel> {
	const model = await new Chain().run(projectOf(form, grid, zone, { variants }));
	expect(model.problems).to.deep.equal([]);
	return model.zones[0]!.model!;
}

/** Where something lies, to the tenth of a millimetre: what is told apart by this is told apart by nothing else. */
const placeName = (p: ArrayLike<number>, o: number) =>
	[0, 1, 2].map((a) => Math.round(10 * p[o + a]!) / 10 + 0).join(' ');

/** Neighbours of every point in space, and how many cells each of its lines has, from the cells' outlines alone. */
function neighboursOf(zone: ZoneModel): Map<string, Map<string, number>> {
	const found = new Map<string, Map<string, number>>();
	const join = (a: string, b: string) => {
		const near = found.get(a) ?? new Map<string, number>();
		found.set(a, near);
		near.set(b, (near.get(b) ?? 0) + 1);
	};
	for (const { cells, grid } of zone.faces) {
		const { start, nodes } = outlineOf(cells);
		for (let c = 0; c < cells.count; c++)
			for (let k = start[c]!; k < start[c + 1]!; k++) {
				const next = k + 1 < start[c + 1]! ? k + 1 : start[c]!;
				const [a, b] = [nodes[k]!, nodes[next]!].map((node) => placeName(grid.positions, 3 * node));
				join(a!, b!);
				join(b!, a!);
			}
	}
	return found;
}

/** How many places there are by how many lines meet, and how many of them are on a rim. */
function counted(zone: ZoneModel): { byLines: Map<number, number>; rim: number } {
	const byLines = new Map<number, number>();
	let rim = 0;
	for (const near of neighboursOf(zone).values()) {
		byLines.set(near.size, (byLines.get(near.size) ?? 0) + 1);
		if ([...near.values()].some((cells) => cells === 1)) rim++;
	}
	return { byLines, rim };
}

function piecesByLines({ groups }: ZoneModel): Map<number, number> {
	const found = new Map<number, number>();
	for (const { group } of groups)
		if (group.over === 'node') found.set(group.corners, (found.get(group.corners) ?? 0) + group.sites.length);
	return found;
}
const sorted = (map: ReadonlyMap<number, number>) => [...map].sort(([a], [b]) => a - b);
const pieces = (zone: ZoneModel) => [...piecesByLines(zone).values()].reduce((a, b) => a + b, 0);

const tube = revolved([
	[4000, 0],
	[4000, 9000]
]);
const hall: Form = {
	kind: 'prism',
	outline: { shape: 'rectangle', width: 12_000, depth: 8000, rounding: 0 },
	at: [0, 0],
	foot: 0,
	head: 6000,
	curved: []
};
const sides = ['south', 'east', 'north', 'west'].map((face) => ({ mass: 'm', face }));
const patterns: PatternChoice[] = [
	...plainPatterns.map((kind) => ({ kind })),
	{ kind: 'hexagons', sides: 'upright' },
	{ kind: 'running bond', offset: 0.5, way: 'back and forth' },
	{ kind: 'random splits', seed: 7, smallest: 250, often: 0.8, along: 'both' },
	scattered(60)
];

describe('parts on nodes', () => {
	for (const pattern of patterns)
		it(`${Object.values(pattern).join(' ')}: a ball for every node, by how many lines meet (by counting places)`, async () => {
			for (const form of [sheet(7000, 6000), tube]) {
				const grid = count(12, 5);
				const zone = await zoneOf(form, { pattern, nodes: everywhere }, grid);
				const { byLines, rim } = counted(zone);
				expect(sorted(piecesByLines(zone))).to.deep.equal(sorted(byLines));
				const onRims = await zoneOf(form, { pattern, nodes: [{ ...everywhere[0]!, nodes: 'rim' }] }, grid);
				const inner = await zoneOf(form, { pattern, nodes: [{ ...everywhere[0]!, nodes: 'inner' }] }, grid);
				expect([pieces(onRims), pieces(inner)]).to.deep.equal([rim, pieces(zone) - rim]);
			}
		});

	it('faces that share rims have one ball where they meet, with the lines of all', async () => {
		const model = await new Chain().run(
			projectOf(hall, count(3, 4), { nodes: everywhere, faces: sides }, { variants })
		);
		expect(model.problems).to.deep.equal([]);
		const zone = model.zones[0]!.model!;
		expect(sorted(piecesByLines(zone))).to.deep.equal(sorted(counted(zone).byLines));
		// Four sides of 3 by 4 steps round a ring: 12 columns of 5 nodes.
		expect(pieces(zone)).to.equal(60);
	});

	it('a cut face and a dome with a pole', async () => {
		const dome: Form = { kind: 'dome', at: [0, 0], foot: 0, radii: [6000, 6000, 6000], cut: 0 };
		const zone = await zoneOf(dome, { nodes: everywhere, pattern: { kind: 'diamonds' } }, count(12, 6));
		expect(sorted(piecesByLines(zone))).to.deep.equal(sorted(counted(zone).byLines));
	});

	it('at a pole they stand along the mean of the normals all round it: of a dome, a cone, both ends of a spindle', async () => {
		const dome: Form = { kind: 'dome', at: [0, 0], foot: 0, radii: [6000, 6000, 6000], cut: 0 };
		const cone = revolved([
			[4000, 0],
			[0, 5000]
		]);
		const spindle = revolved([
			[0, 0],
			[3000, 1500],
			[0, 3000]
		]);
		for (const [form, outward] of [
			[dome, [1]],
			[cone, [1]],
			[spindle, [-1, 1]]
		] as const) {
			const { grid } = (await zoneOf(form, {}, count(8, 4))).faces[0]!;
			expect(grid.poles.length).to.equal(outward.length);
			for (const [k, row] of grid.poles.entries())
				for (let i = 0; i < grid.columns; i++) {
					const [x, y, z] = grid.normals.subarray(3 * (row * grid.columns + i)) as unknown as number[];
					expect(Math.hypot(x!, y!, z! - outward[k]!)).to.be.below(1e-3);
				}
		}
	});

	it('the first that takes a node has it; muted ones and parts for other counts pass over', async () => {
		const zone = await zoneOf(sheet(7000, 6000), {
			nodes: [
				{ id: 'muted', variant: 'ball', muted: true },
				{ id: 'corners', variant: 'ball', nodes: 'rim', lines: 2 },
				{ id: 'rest', variant: 'ball' }
			]
		});
		const of = (id: string) =>
			zone.groups
				.filter(({ clause }) => clause.kind === 'nodes' && clause.placing.id === id)
				.reduce((sum, { group }) => sum + group.sites.length, 0);
		expect([of('muted'), of('corners'), of('rest')]).to.deep.equal([0, 4, 7 * 6 - 4]);
	});

	it('ways go to the neighbours, in turn counter-clockwise from the right, whatever the pattern', async () => {
		const fork = partSchema.parse({
			id: 'fork',
			label: 'Fork',
			role: 'structure',
			use: '',
			anchor: { kind: 'node', corners: 4 },
			inputs: [],
			limits: [],
			steps: [
				{ name: 'end', do: 'lift', of: 'node', by: '100 mm', along: 'way1' },
				{ name: 'ball', do: 'sphere', centre: 'end', diameter: '20 mm' }
			],
			elements: [{ name: 'body', label: 'Body', category: 'connector', of: ['ball'], material: 'steel' }],
			measures: [{ name: 'height', label: 'Height', kind: 'length', value: 'height' }]
		});
		const model = await new Chain().run(
			projectOf(
				sheet(7000, 6000),
				count(6, 5),
				{ nodes: [{ id: 'n', variant: 'fork' }] },
				{ parts: [fork], variants: [{ id: 'fork', name: 'Fork', part: 'fork', values: {} }] }
			)
		);
		expect(model.problems).to.deep.equal([]);
		const { groups, faces } = model.zones[0]!.model!;
		// Only inner nodes of a grid of rectangles have four lines.
		expect(groups.reduce((sum, { group }) => sum + group.sites.length, 0)).to.equal(5 * 4);
		const [{ group }] = groups as [(typeof groups)[number]];
		const { grid, origin, nodes } = faces[0]!;
		const { start, ways } = nodes();
		group.sites.forEach((node, row) => {
			const at = grid.positions.subarray(3 * node, 3 * node + 3);
			const [places] = [placesOf(group.run.elements[0]!.shape, row)];
			const middle = [0, 1, 2].map((a) => {
				const of = Array.from(places).filter((_, k) => k % 3 === a);
				return (Math.min(...of) + Math.max(...of)) / 2 + origin[a]!;
			});
			// The first way goes to the right, which is east on a wall that faces south.
			expect(middle[0]! - at[0]!).to.be.closeTo(100, 0.5);
			expect(Math.hypot(middle[1]! - at[1]!, middle[2]! - at[2]!)).to.be.below(0.5);
			expect(group.run.results.get('height')![row]).to.be.closeTo(at[2]!, 1e-9);
			const turns = [0, 1, 2, 3].map((k) => {
				const o = 3 * (start[node]! + k);
				return Math.round((Math.atan2(ways[o + 2]!, ways[o]!) * 180) / Math.PI);
			});
			expect(turns.map((turn) => (turn + 360) % 360)).to.deep.equal([0, 90, 180, 270]);
		});
	});

	it('are scheduled as connectors, counted, and exported; a part for cells is refused in words', async () => {
		const model = await new Chain().run(
			projectOf(sheet(7000, 6000), count(6, 5), { nodes: everywhere, runs: lines }, { variants })
		);
		const schedule = makeSchedule(model, 'connectors');
		const column = (key: string) => cellsOf(schedule.columns.find((one) => one.key === key)!);
		expect(schedule.rows).to.equal(42);
		expect(column('mark').slice(0, 2)).to.deep.equal(['Z-N-C01-B01', 'Z-N-C01-B02']);
		expect(column('address')[0]).to.equal('z/m.wall/N/C01/B01');
		expect(column('node').filter((one) => one === 'rim')).to.have.length(22);
		// A ball of 140 mm in steel, written as a mesh of flats: a little under its volume.
		const ball = ((4 / 3) * Math.PI * 0.07 ** 3 * 7850) as number;
		for (const mass of column('mass')) expect(mass as number).to.be.within(0.9 * ball, ball);
		expect(summarise(model).connectors).to.equal(42);
		expect(textOf(writeIfc(model, '2026-01-01T00:00:00')).match(/=IFCDISCRETEACCESSORY\(/g)).to.have.length(
			42
		);
		const wrong = await new Chain().run(
			projectOf(sheet(7000, 6000), count(6, 5), { nodes: [{ id: 'n', variant: 'post' }] }, { variants })
		);
		expect(wrong.problems.map(({ at, text }) => [at, text])).to.deep.equal([
			['zones/z/nodes/n', 'Box mullion hangs on lines, not on nodes; choose a connector here']
		]);
		const none = await new Chain().run(
			projectOf(
				sheet(700, 600),
				count(2, 2),
				{ nodes: [{ id: 'n', variant: 'ball', lines: 1 }] },
				{ variants }
			)
		);
		expect(none.problems[0]!.text).to.match(/nodes where 1 line meets do not exist; 2 or more/);
	});
});
