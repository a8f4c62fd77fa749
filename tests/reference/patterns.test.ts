import { expect } from 'chai';
import { Delaunay } from 'd3-delaunay';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import { cellAddress, edgeAddress } from '../../src/core/cladding/address';
import type { FaceModel } from '../../src/core/cladding/model';
import { outlineOf } from '../../src/core/pattern/cells';
import { patternOf } from '../../src/core/pattern/catalogue';
import { NO_CELL } from '../../src/core/pattern/edges';
import { isOnLattice } from '../../src/core/pattern/tile';
import { polygonArea } from '../../src/core/geometry/polygon';
import type { Form } from '../../src/core/project/form-schema';
import { plainPatterns } from '../../src/core/project/pattern-schema';
import type { PatternChoice } from '../../src/core/project/schema';
import { count, projectOf, revolved, sheet, scattered } from '../faces';

const patterns: PatternChoice[] = [
	...plainPatterns.map((kind) => ({ kind })),
	{ kind: 'hexagons', sides: 'upright' },
	{ kind: 'hexagons', sides: 'level' },
	{ kind: 'running bond', offset: 0.5, way: 'back and forth' },
	{ kind: 'running bond', offset: 0.3, way: 'back and forth' },
	{ kind: 'running bond', offset: 1 / 3, way: 'onward' },
	{ kind: 'undulating', bays: 6, rise: 0.8 }
];
const byChance: PatternChoice[] = [
	{ kind: 'random splits', seed: 7, smallest: 250, often: 0.8, along: 'both' },
	scattered(90)
];
const tube = revolved([
	[4000, 0],
	[4000, 9000]
]);
const torus = revolved(
	Array.from({ length: 13 }, (_, k): [number, number] => [
		5000 + 1500 * Math.cos((k * Math.PI) / 6),
		k % 12 === 0 ? 0 : 1500 * Math.sin((k * Math.PI) / 6)
	]),
	'smooth'
);
const dome: Form = { kind: 'dome', at: [0, 0], foot: 0, radii: [6000, 6000, 6000], cut: 1500 };

async function layOut(form: Form, across: number, up: number, pattern: PatternChoice): Promise<FaceModel> {
	const model = await new Chain().run(projectOf(form, count(across, up), { pattern }));
	expect(model.problems).to.deep.equal([]);
	return model.zones[0]!.model!.faces[0]!;
}
const nameOf = (pattern: PatternChoice) => Object.values(pattern).join(' ');
const areaOf = (face: FaceModel) => face.measures.area.reduce((a, b) => a + b, 0);
const euler = (face: FaceModel) => face.usedNodes - face.edges.count + face.cells.count;

/** No NaN; unique addresses; each directed side of a cell once, with its opposite on the neighbour or on a rim. */
function expectWhole({ cells, edges, grid, measures }: FaceModel): void {
	for (const column of [grid.positions, grid.normals, grid.flat, ...Object.values(measures)])
		expect((column as Float64Array).every(Number.isFinite)).to.equal(true);
	const names = [
		...Array.from({ length: cells.count }, (_, c) => cellAddress('f', cells, c)),
		...Array.from({ length: edges.count }, (_, e) => edgeAddress('f', edges, e))
	];
	expect(new Set(names).size).to.equal(names.length);
	const { start, nodes } = outlineOf(cells);
	const sides = new Set<string>();
	let count = 0;
	for (let c = 0; c < cells.count; c++)
		for (let k = start[c]!; k < start[c + 1]!; k++) {
			sides.add(`${nodes[k]} ${nodes[k + 1 < start[c + 1]! ? k + 1 : start[c]!]}`);
			count++;
		}
	expect(sides.size, 'directed sides').to.equal(count);
	const rims = Array.from(edges.right).filter((cell) => cell === NO_CELL).length;
	expect(2 * edges.count - rims).to.equal(count);
	expect(cells.share.every((share) => share > 0 && share <= 1 + 1e-9)).to.equal(true);
}

describe('tiles that ship', () => {
	for (const choice of patterns)
		it(`${nameOf(choice)}: polygons cover their tile once, counter-clockwise`, () => {
			const { tile } = patternOf(choice as Parameters<typeof patternOf>[0]);
			for (const polygon of tile.polygons) expect(polygonArea(polygon)).to.be.above(0);
			const covered = tile.polygons.reduce((sum, polygon) => sum + polygonArea(polygon), 0);
			expect(covered).to.be.closeTo(tile.across * tile.up, 1e-12);
		});

	it('regular polygons where the steps are in proportion: edges of one length (by definition)', () => {
		const edgesOf = (kind: 'truncated square' | 'trihexagonal' | 'snub square', stretch: number) =>
			patternOf({ kind }).tile.polygons.flatMap((polygon) =>
				polygon.map((p, k) => {
					const q = polygon[(k + 1) % polygon.length]!;
					return Math.hypot(q[0] - p[0], stretch * (q[1] - p[1]));
				})
			);
		for (const [kind, stretch, edge] of [
			['truncated square', 1, Math.SQRT2 - 1],
			['snub square', 1, 1 / Math.sqrt(2 + Math.sqrt(3))],
			['trihexagonal', Math.sqrt(3), 2]
		] as const)
			for (const size of edgesOf(kind, stretch)) expect(size, kind).to.be.closeTo(edge, 1e-12);
		// The Cairo dual of the snub square tiling has four equal sides and one shorter, by √3 − 1.
		const sides = patternOf({ kind: 'cairo' }).tile.polygons[0]!.map((p, k, all) => {
			const q = all[(k + 1) % 5]!;
			return Math.hypot(q[0] - p[0], q[1] - p[1]);
		});
		const [shortest, ...rest] = [...sides].sort((a, b) => a - b);
		for (const size of rest) expect(size).to.be.closeTo(rest[0]!, 1e-12);
		expect(shortest! / rest[0]!).to.be.closeTo(Math.sqrt(3) - 1, 1e-12);
	});
});

describe('every pattern on a sheet, a tube and a cap', () => {
	for (const choice of [...patterns, ...byChance])
		it(nameOf(choice), async () => {
			// Steps that divide by every tile, so that rings close.
			const onSheet = await layOut(sheet(12000, 7000), 13, 8, choice);
			expectWhole(onSheet);
			expect(areaOf(onSheet) / 84e6).to.be.closeTo(1, 1e-9);
			expect(euler(onSheet)).to.equal(1);
			const onTube = await layOut(tube, 12, 7, choice);
			expectWhole(onTube);
			expect(euler(onTube)).to.equal(0);
			// Closed both ways: V − E + F = 0, and no rim.
			const onTorus = await layOut(torus, 12, 12, choice);
			expectWhole(onTorus);
			expect(euler(onTorus)).to.equal(0);
			expect(onTorus.edges.right.includes(NO_CELL)).to.equal(false);
			// A pole closes the cap: Euler again, but that cells which meet in the pole share it as one corner.
			const onCap = await layOut(dome, 12, 6, choice);
			expectWhole(onCap);
			const tiled = choice.kind !== 'voronoi' && choice.kind !== 'random splits';
			if (tiled && isOnLattice(patternOf(choice as Parameters<typeof patternOf>[0]).tile))
				expect(euler(onCap)).to.equal(1);
		});
});

describe('counts by enumeration', () => {
	it('tiles on a ring: whole ones by rows, those cut at both rims as edge cells', async () => {
		const kinds = (face: FaceModel) =>
			[0, 1].map((kind) => face.cells.kind.filter((one) => one === kind).length);
		// Bricks moved by half a bay stay whole on a ring: 12 in each of 7 courses.
		expect(
			kinds(await layOut(tube, 12, 7, { kind: 'running bond', offset: 0.5, way: 'back and forth' }))
		).to.deep.equal([84, 0]);
		// On an open sheet every second course has two halves: 13 bricks in 4 courses, 12 + 2 in 4.
		expect(
			kinds(
				await layOut(sheet(13000, 8000), 13, 8, { kind: 'running bond', offset: 0.5, way: 'back and forth' })
			)
		).to.deep.equal([4 * 13 + 4 * 12, 4 * 2]);
		// Octagons 12 by 7, squares whole on the 6 inner lines and cut in half on both rims.
		expect(kinds(await layOut(tube, 12, 7, { kind: 'truncated square' }))).to.deep.equal([
			12 * 7 + 12 * 6,
			24
		]);
		// Two upright hexagons for every 2 by 6 steps; the rows at both rims are cut.
		const hexes = await layOut(tube, 12, 12, { kind: 'hexagons', sides: 'upright' });
		expect(hexes.cells.kind.filter((kind) => kind === 0).length).to.equal(6 * 3);
		expect(hexes.cells.share.reduce((a, b) => a + b, 0) * 6).to.be.closeTo(12 * 12, 1e-9);
	});
});

describe('Voronoi cells', () => {
	it('as d3-delaunay has them: the same areas, and together the whole sheet', async () => {
		const choice = { ...byChance[1]!, evening: 0, smallest: 0 } as PatternChoice;
		const face = await layOut(sheet(12000, 7000), 12, 7, choice);
		expect(face.cells.count).to.equal(90);
		// The points are those whose cells these are: their neighbours' bisectors. Rebuilt from the cells' edges.
		const centres = Array.from({ length: 90 }, (_, c) => [
			face.measures.centre[3 * c]!,
			face.measures.centre[3 * c + 2]!
		]);
		const voronoi = Delaunay.from(centres as [number, number][]).voronoi([0, 0, 12000, 7000]);
		const sum = centres.reduce(
			(total, _, k) =>
				total + Math.abs(polygonArea(voronoi.cellPolygon(k).slice(0, -1) as [number, number][])),
			0
		);
		expect(sum).to.be.closeTo(84e6, 1e-3);
		expect(areaOf(face)).to.be.closeTo(84e6, 1e-3);
		// 2n − 2 − h triangles: every inner node has three cells, so E = 3(n − 1) − h with h cells on the rim counted by corners.
		expect(euler(face)).to.equal(1);
	});

	it('any seed: no overlap, no gap, smallest edges kept, the same again for the same seed', async () => {
		await fc.assert(
			fc.asyncProperty(
				fc.integer({ min: 1, max: 1e6 }),
				fc.integer({ min: 5, max: 120 }),
				fc.integer({ min: 0, max: 3 }),
				fc.constantFrom(0, 80, 200),
				fc.constantFrom<Form>(sheet(12000, 7000), tube),
				async (seed, many, evening, smallest, form) => {
					const choice: PatternChoice = {
						kind: 'voronoi',
						seed,
						count: many,
						evening,
						smallest,
						margin: 0,
						near: null,
						size: 1,
						sheet: null
					};
					const face = await layOut(form, 12, 7, choice);
					expectWhole(face);
					expect(euler(face)).to.equal(form.kind === 'ruled' ? 1 : 0);
					if (form.kind === 'ruled') {
						expect(areaOf(face) / 84e6).to.be.closeTo(1, 1e-9);
						const short = face.measures.shortestEdge.filter((size) => size < smallest - 0.01).length;
						expect(short / face.cells.count, 'cells with an edge that is too short').to.be.below(0.03);
					}
					const again = await layOut(form, 12, 7, choice);
					expect([...again.grid.positions]).to.deep.equal([...face.grid.positions]);
				}
			),
			{ numRuns: 25 }
		);
	});
});

describe('random splits', () => {
	it('any seed: whole, none smaller than asked, and a step keeps its cells when others come', async () => {
		await fc.assert(
			fc.asyncProperty(
				fc.integer({ min: 1, max: 1e6 }),
				fc.double({ min: 0, max: 1, noNaN: true }),
				fc.constantFrom('across' as const, 'up' as const, 'both' as const),
				fc.constantFrom<Form>(sheet(12000, 6000), tube),
				async (seed, often, along, form) => {
					const choice: PatternChoice = { kind: 'random splits', seed, smallest: 220, often, along };
					const face = await layOut(form, 12, 6, choice);
					expectWhole(face);
					if (form.kind === 'ruled') {
						expect(areaOf(face) / 72e6).to.be.closeTo(1, 1e-9);
						expect(face.measures.shortestEdge.every((size) => size > 219.9)).to.equal(true);
						const wider = await layOut(sheet(13000, 6000), 13, 6, choice);
						const names = new Set(
							Array.from({ length: wider.cells.count }, (_, c) => cellAddress('f', wider.cells, c))
						);
						for (let c = 0; c < face.cells.count; c++)
							expect(names.has(cellAddress('f', face.cells, c))).to.equal(true);
					}
				}
			),
			{ numRuns: 25 }
		);
	});
});

describe('a running bond of a third', () => {
	it('is meant however the third was typed: the same tile; what is no such share is refused with the nearest', () => {
		const tileOf = (offset: number) => patternOf({ kind: 'running bond', offset, way: 'onward' }).tile;
		for (const typed of [0.333333, 0.3333, 0.333]) expect(tileOf(typed)).to.deep.equal(tileOf(1 / 3));
		expect(tileOf(0.6667)).to.deep.equal(tileOf(2 / 3));
		expect(tileOf(1 / 3).up).to.equal(3);
		expect(() => tileOf(0.38)).to.throw(/does not come round within 12 courses; 0.375 does/);
	});
});
