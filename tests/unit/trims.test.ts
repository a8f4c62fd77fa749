import { expect } from 'chai';
import fc from 'fast-check';
import { Chain } from '../../src/core/chain/chain';
import { cellAddress, edgeAddress } from '../../src/core/cladding/address';
import type { FaceModel } from '../../src/core/cladding/model';
import { NO_CELL } from '../../src/core/pattern/edges';
import type { Form, TrimDefinition } from '../../src/core/project/form-schema';
import { count, projectOf, revolved } from '../faces';
import type { PatternChoice } from '../../src/core/project/schema';

/** A level sheet 12 by 9 m at z 4000, its outside up. */
const deck: Form = {
	kind: 'net',
	degrees: [1, 1],
	points: 'control',
	rows: [
		[
			[0, 0, 4000],
			[12000, 0, 4000]
		],
		[
			[0, 9000, 4000],
			[12000, 9000, 4000]
		]
	]
};
const trim = (part: Partial<TrimDefinition>): TrimDefinition => ({
	id: 't',
	face: 'skin',
	keep: 'outside',
	outline: { shape: 'rectangle', width: 3100, depth: 2300, rounding: 0 },
	at: [6000, 4500, 0],
	turn: 0,
	direction: [0, 0, 1],
	...part
});

async function trimmed(
	form: Form,
	trims: TrimDefinition[],
	pattern: PatternChoice = { kind: 'rectangles' },
	grid = count(12, 9)
): Promise<{ face: FaceModel; problem: string | undefined }> {
	const project = projectOf(form, grid, { pattern });
	const masses = [{ ...project.masses[0]!, trims }];
	const model = await new Chain().run({ ...project, masses });
	return { face: model.zones[0]!.model?.faces[0] as FaceModel, problem: model.problems[0]?.text };
}
const areaOf = (face: FaceModel) => face.measures.area.reduce((a, b) => a + b, 0);

/** Every interior edge has two cells, rims one; addresses are unique; nothing is NaN. */
function expectWhole(face: FaceModel): void {
	const { cells, edges, grid } = face;
	expect(grid.positions.every(Number.isFinite)).to.equal(true);
	const uses = new Map<string, number>();
	for (let c = 0; c < cells.count; c++) {
		const nodes = cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!);
		expect(new Set(nodes).size, 'corners of a cell differ').to.equal(nodes.length);
		nodes.forEach((a, k) => {
			const b = nodes[(k + 1) % nodes.length]!;
			const key = `${Math.min(a, b)} ${Math.max(a, b)}`;
			uses.set(key, (uses.get(key) ?? 0) + 1);
		});
	}
	expect(uses.size).to.equal(edges.count);
	for (let e = 0; e < edges.count; e++) {
		const key = `${Math.min(edges.from[e]!, edges.to[e]!)} ${Math.max(edges.from[e]!, edges.to[e]!)}`;
		expect(uses.get(key)).to.equal(edges.right[e] === NO_CELL ? 1 : 2);
	}
	const addresses = [
		...Array.from({ length: cells.count }, (_, c) => cellAddress('f', cells, c)),
		...Array.from({ length: edges.count }, (_, e) => edgeAddress('f', edges, e))
	];
	expect(new Set(addresses).size).to.equal(addresses.length);
}

describe('trims', () => {
	it('an opening on a plane takes out its own area, whatever the pattern, to 1e-9', async () => {
		await fc.assert(
			fc.asyncProperty(
				fc.record({
					x: fc.integer({ min: 3500, max: 8500 }),
					y: fc.integer({ min: 3000, max: 6000 }),
					turn: fc.integer({ min: 0, max: 179 }),
					sides: fc.integer({ min: 3, max: 9 }),
					radius: fc.integer({ min: 1500, max: 2600 })
				}),
				fc.constantFrom<PatternChoice>(
					{ kind: 'rectangles' },
					{ kind: 'diamonds' },
					{ kind: 'triangles', diagonal: 'alternating' }
				),
				fc.constantFrom('inside' as const, 'outside' as const),
				async ({ x, y, turn, sides, radius }, pattern, keep) => {
					const outline = { shape: 'polygon' as const, sides, radius, rounding: 0 };
					const { face, problem } = await trimmed(
						deck,
						[trim({ outline, turn, keep, at: [x, y, 100] })],
						pattern,
						count(12, 10)
					);
					expect(problem).to.equal(undefined);
					const hole = (sides / 2) * radius ** 2 * Math.sin((2 * Math.PI) / sides);
					const wanted = keep === 'inside' ? hole : 12000 * 9000 - hole;
					expect(areaOf(face) / wanted, 'cells').to.be.closeTo(1, 1e-9);
					expect(face.area() / wanted, 'face').to.be.closeTo(1, 1e-9);
					expectWhole(face);
				}
			),
			{ numRuns: 40 }
		);
	});

	it('that run exactly along grid lines cut no cell and leave no sliver', async () => {
		// Steps of 1000 mm: from 4000 to 7000 across and 3000 to 5000 up.
		const outline = { shape: 'rectangle' as const, width: 3000, depth: 2000, rounding: 0 };
		for (const keep of ['outside', 'inside'] as const) {
			const { face, problem } = await trimmed(deck, [trim({ outline, keep, at: [5500, 4000, 0] })]);
			expect(problem).to.equal(undefined);
			expect(face.cells.count).to.equal(keep === 'inside' ? 6 : 12 * 9 - 6);
			expect(areaOf(face) / (keep === 'inside' ? 6e6 : 102e6)).to.be.closeTo(1, 1e-9);
			expectWhole(face);
		}
	});

	it('cut cells are known as such and keep their address; the others stay as they were', async () => {
		const before = (await trimmed(deck, [])).face;
		const { face } = await trimmed(deck, [trim({})]);
		const names = (one: FaceModel) =>
			new Set(Array.from({ length: one.cells.count }, (_, c) => cellAddress('f', one.cells, c)));
		const known = names(before);
		for (const name of names(face)) expect(known.has(name)).to.equal(true);
		const cut = face.cells.kind.filter((kind) => kind === 2).length;
		// 3100 by 2300 about (6000, 4500): over steps 4..7 across and 3..5 up, the middle ones gone.
		expect(cut).to.equal(4 * 3 - 2 * 1);
		expect(face.cells.count).to.equal(12 * 9 - 2);
	});

	it('an oculus on a curved face, against Monte Carlo on the surface', async () => {
		// A drum of radius 4 m, a round opening of radius 900 mm seen from −y.
		const drum = revolved(
			[
				[4000, 0],
				[4000, 9000]
			],
			'line'
		);
		const oculus = trim({
			face: 'shell',
			outline: { shape: 'circle', radius: 900 },
			at: [0, -9000, 4500],
			direction: [0, 1, 0]
		});
		const whole = areaOf((await trimmed(drum, [], { kind: 'rectangles' }, count(96, 60))).face);
		const { face, problem } = await trimmed(drum, [oculus], { kind: 'rectangles' }, count(96, 60));
		expect(problem).to.equal(undefined);
		expectWhole(face);
		// Points spread evenly over the cylinder, those whose x and z fall within the circle, on the near side.
		let state = 12345;
		const random = () => {
			// Mulberry32.
			state = (state + 0x6d2b79f5) | 0;
			let t = Math.imul(state ^ (state >>> 15), 1 | state);
			t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
			return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
		};
		let hits = 0;
		const throws = 4_000_000;
		for (let k = 0; k < throws; k++) {
			const angle = 2 * Math.PI * random();
			const z = 9000 * random();
			if (Math.sin(angle) < 0 && Math.hypot(4000 * Math.cos(angle), z - 4500) < 900) hits++;
		}
		const expected = (hits / throws) * 2 * Math.PI * 4000 * 9000;
		// The circle has 24 corners: 1.1 % less than round. Half a percent is left to chance.
		const cornered = (24 / 2 / Math.PI) * Math.sin((2 * Math.PI) / 24);
		expect((whole - areaOf(face)) / (expected * cornered)).to.be.closeTo(1, 0.01);
	});

	it('over the seam of a ring the cells on both sides are cut', async () => {
		const drum = revolved(
			[
				[4000, 0],
				[3500, 9000]
			],
			'line'
		);
		const opening = trim({
			face: 'shell',
			outline: { shape: 'rectangle', width: 2600, depth: 2600, rounding: 300 },
			at: [9000, 0, 4000],
			direction: [-1, 0, 0]
		});
		const { face, problem } = await trimmed(drum, [opening], { kind: 'rectangles' }, count(24, 9));
		expect(problem).to.equal(undefined);
		expectWhole(face);
		const bays = new Set(Array.from(face.cells.bay).filter((_, c) => face.cells.kind[c] === 2));
		expect(bays.has(1) && bays.has(24)).to.equal(true);
	});

	it('a cell cut by a curve of very many corners is measured like any other', async () => {
		const points = Array.from({ length: 40 }, (_, k): [number, number] => {
			const angle = (2 * Math.PI * k) / 40;
			return [3000 * Math.cos(angle), 3000 * Math.sin(angle)];
		});
		const outline = {
			shape: 'drawn' as const,
			points,
			joins: 'smooth' as const,
			mirrored: false,
			rounding: 0
		};
		const { face, problem } = await trimmed(deck, [trim({ outline })], { kind: 'rectangles' }, count(1, 2));
		expect(problem).to.equal(undefined);
		expect(
			Math.max(
				...Array.from({ length: face.cells.count }, (_, c) => face.cells.start[c + 1]! - face.cells.start[c]!)
			)
		).to.be.above(64);
		for (const column of Object.values(face.measures)) expect(column.every(Number.isFinite)).to.equal(true);
		expect(areaOf(face) / (12000 * 9000 - Math.PI * 3000 ** 2)).to.be.closeTo(1, 1e-3);
	});

	it('impossible ones are refused at their clause, in words', async () => {
		const cases: [TrimDefinition[], RegExp][] = [
			[[trim({ at: [11500, 4500, 0] })], /the outline leaves skin near x 1[23].\d{3}/],
			[
				[trim({ outline: { shape: 'circle', radius: 200 }, at: [5500, 4500, 0] })],
				/within the single cell of course 5, bay 6/
			],
			[[trim({}), trim({ id: 'u', at: [7000, 5200, 0] })], /crosses another trim/],
			[
				[trim({}), trim({ id: 'u', outline: { shape: 'circle', radius: 700 } })],
				/holes in holes cannot be made/
			],
			[[trim({ face: 'roof' })], /there is no face "roof"; the faces are skin/]
		];
		for (const [trims, says] of cases) expect((await trimmed(deck, trims)).problem).to.match(says);
	});
});
