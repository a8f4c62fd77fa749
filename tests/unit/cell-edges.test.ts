import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import { edgeAddress } from '../../src/core/cladding/address';
import type { FaceModel } from '../../src/core/cladding/model';
import { siteSetOf } from '../../src/core/cladding/sites';
import { outlineOf } from '../../src/core/pattern/cells';
import { NO_CELL } from '../../src/core/pattern/edges';
import { plainPatterns } from '../../src/core/project/pattern-schema';
import { readProject } from '../../src/core/project/read';
import fc from '../property';
import { count, projectOf, revolved, sheet } from '../faces';

const [WIDTH, HEIGHT] = [12_000, 8000];
/** They look to -y: the sheet, and a drum and a dome about the middle of it. */
const forms = {
	sheet: sheet(WIDTH, HEIGHT),
	drum: {
		...revolved([
			[5000, 0],
			[5000, HEIGHT]
		]),
		axis: [WIDTH / 2, 6000]
	},
	dome: { kind: 'dome', at: [WIDTH / 2, 6000], foot: 0, radii: [6000, 6000, HEIGHT], cut: 0 }
} as const;

interface Asked {
	readonly form: keyof typeof forms;
	readonly grid: readonly [number, number];
	readonly pattern: object;
	readonly low?: object;
	readonly trim: object | null;
}

/** A round opening with its middle there. */
const opening = ([x, z]: readonly [number, number]) => ({
	by: 'outline',
	outline: { shape: 'circle', radius: 1100 },
	at: [x, -9000, z],
	direction: [0, 1, 0]
});

async function facesOf({ form, grid, pattern, low, trim }: Asked): Promise<FaceModel[]> {
	const setting = count(...grid);
	const project = projectOf(forms[form] as never, setting, { pattern } as never);
	const [mass, zone] = [project.masses[0]!, project.zones[0]!];
	const on = { is: 'layer', of: zone.id, depth: '-100 mm', shifted: true };
	const behind = { id: 'low', code: 'L', name: 'Low', faces: [], settingOut: setting, pattern: low, on };
	const { zones, problems } = await new Chain().run(
		readProject({
			...project,
			masses: [{ ...mass, trims: trim ? [{ ...trim, id: 't', face: zone.faces[0]!.face }] : [] }],
			zones: low ? [zone, behind] : [zone]
		} as never)
	);
	// Some patterns go round only with so many bays, and an opening may leave no whole step.
	for (const { text } of problems)
		expect(text).to.match(
			/closed ring|no cell|crosses itself|turns over|does not come to lie|does not meet|nothing is left/
		);
	return zones.flatMap(({ model }) => model?.faces ?? []);
}

/** Every side of a cell is one edge, which has its cells beside it and an address of its own. */
function expectEdgesOf(face: FaceModel): void {
	const { cells, edges, grid } = face;
	const { start, nodes } = outlineOf(cells);
	const name = (a: number, b: number) => (a < b ? `${a} ${b}` : `${b} ${a}`);
	const beside = new Map<string, Set<number>>();
	for (let c = 0; c < cells.count; c++)
		for (let k = start[c]!; k < start[c + 1]!; k++) {
			const side = name(nodes[k]!, nodes[k + 1 < start[c + 1]! ? k + 1 : start[c]!]!);
			beside.set(side, (beside.get(side) ?? new Set()).add(c));
		}
	const found = Array.from({ length: edges.count }, (_, e) => name(edges.from[e]!, edges.to[e]!));
	expect(new Set(found)).to.deep.equal(new Set(beside.keys()));
	expect(edges.count).to.equal(beside.size);
	for (const [e, side] of found.entries()) {
		const own = [edges.left[e]!, edges.right[e]!].filter((c) => c !== NO_CELL);
		for (const c of beside.get(side)!) expect(own).to.include(c);
	}
	const addresses = new Set(Array.from(found, (_, e) => edgeAddress('f', edges, e)));
	expect(addresses.size).to.equal(edges.count);
	const sites = siteSetOf(face, 'node');
	for (let n = 0; n < grid.positions.length / 3; n++) {
		expect(sites.course(n)).to.be.within(1, grid.rows);
		expect(sites.bay(n)).to.be.within(1, grid.columns);
	}
}

describe('edges of cells', () => {
	const pattern = fc.oneof(
		fc.constantFrom(...plainPatterns).map((kind) => ({ kind })),
		fc.constantFrom('triangles', 'hexagons', 'running bond', 'random splits').map((kind) => ({ kind })),
		fc.integer({ min: 10, max: 60 }).map((cells) => ({ kind: 'voronoi', count: cells, smallest: 40 }))
	);
	const slope = fc.double({ min: -0.5, max: 0.5, noNaN: true });
	const trim = fc.option(
		fc.oneof(
			fc.tuple(fc.integer({ min: 0, max: WIDTH }), fc.integer({ min: -300, max: HEIGHT + 300 })).map(opening),
			fc
				.tuple(fc.integer({ min: 0, max: HEIGHT }), slope, slope)
				.map(([z, x, y]) => ({ by: 'plane', at: [WIDTH / 2, 0, z], normal: [x, y, 1] }))
		),
		{ freq: 5 }
	);

	it('are each side once, under an address of its own, wherever trims run, over the seam and between the lines of another grid', async () => {
		const asked = fc.record({
			form: fc.constantFrom('sheet' as const, 'drum' as const, 'dome' as const),
			grid: fc.tuple(fc.integer({ min: 3, max: 12 }), fc.integer({ min: 2, max: 9 })),
			pattern,
			low: pattern,
			trim
		});
		await fc.assert(
			fc.asyncProperty(asked, async (one) => {
				for (const face of await facesOf(one)) expectEdgesOf(face);
			}),
			{ numRuns: 120 }
		);
	});

	it('are told apart where hundreds lie in one step', async () => {
		const scatter = { kind: 'voronoi', count: 700, smallest: 20 };
		const [face] = await facesOf({ form: 'sheet', grid: [1, 1], pattern: scatter, trim: null });
		expect(face!.cells.count).to.equal(700);
		expectEdgesOf(face!);
	});
});
