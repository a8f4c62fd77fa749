import { expect } from 'chai';
import { areaPathsD as areaD, differenceD, FillRule } from 'clipper2-ts';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import { cellAddress, edgeAddress } from '../../src/core/cladding/address';
import type { FaceModel } from '../../src/core/cladding/model';
import { NO_CELL } from '../../src/core/pattern/edges';
import type { Form, TrimDefinition, TrimOf } from '../../src/core/project/form-schema';
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
const trim = (part: Partial<TrimOf<'outline'>>): TrimDefinition => ({
	by: 'outline',
	id: 't',
	within: 5,
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

	it('openings within single cells cut them in two through the opening, with shared corners', async () => {
		const square = { shape: 'rectangle' as const, width: 400, depth: 300, rounding: 0 };
		const openings = [
			trim({ outline: square, at: [4500, 4500, 0], turn: 20 }),
			trim({
				id: 'u',
				outline: { shape: 'polygon', sides: 5, radius: 150, rounding: 0 },
				at: [4180, 4180, 0]
			}),
			trim({
				id: 'v',
				outline: { shape: 'polygon', sides: 3, radius: 150, rounding: 0 },
				at: [9500, 3500, 0]
			})
		];
		const { face, problem } = await trimmed(deck, openings);
		expect(problem).to.equal(undefined);
		expectWhole(face);
		const holes =
			400 * 300 + (5 / 2) * 150 ** 2 * Math.sin((2 * Math.PI) / 5) + ((3 * Math.sqrt(3)) / 4) * 150 ** 2;
		expect(areaOf(face) / (12000 * 9000 - holes)).to.be.closeTo(1, 1e-9);
		// One opening makes two pieces of its cell, two make three.
		expect(face.cells.count).to.equal(12 * 9 + 2 + 1);
		const { face: only } = await trimmed(deck, [
			trim({ outline: square, keep: 'inside', at: [4500, 4500, 0] })
		]);
		expect(only.cells.count).to.equal(1);
		expect(areaOf(only)).to.be.closeTo(400 * 300, 1e-3);
	});

	it('a plane cuts a cylinder at a slant: the part below has the height of the axis (closed form)', async () => {
		const drum = revolved(
			[
				[4000, 0],
				[4000, 9000]
			],
			'line'
		);
		const slant: TrimDefinition = {
			by: 'plane',
			id: 't',
			face: 'shell',
			within: 1,
			keep: 'ahead',
			at: [0, 0, 5000],
			normal: [0.4, 0.1, -1]
		};
		const { face, problem } = await trimmed(drum, [slant], { kind: 'rectangles' }, count(48, 18));
		expect(problem).to.equal(undefined);
		expectWhole(face);
		// 2πr h for the height at the axis; cells are chords of 48 bays.
		const chords = (48 / Math.PI) * Math.sin(Math.PI / 48);
		expect(areaOf(face) / (2 * Math.PI * 4000 * 5000 * chords)).to.be.closeTo(1, 5e-4);
		expect(face.area() / (2 * Math.PI * 4000 * 5000)).to.be.closeTo(1, 2e-4);
		for (const [k, z] of face.grid.positions.entries()) if (k % 3 === 2) expect(z).to.be.below(9001);
	});

	it('a level that moves moves the cut, and a dome cut off at it keeps its zone (closed form 2πRh)', async () => {
		const dome: Form = { kind: 'dome', at: [0, 0], foot: 0, radii: [8000, 8000, 8000], cut: 0 };
		const cut: TrimDefinition = {
			by: 'level',
			id: 't',
			face: 'shell',
			within: 1,
			keep: 'above',
			height: { level: 'rim', plus: 500 }
		};
		const project = projectOf(dome, count(36, 12));
		const at = (height: number) =>
			new Chain().run({
				...project,
				levels: [{ id: 'rim', name: 'Rim', height }],
				masses: [{ ...project.masses[0]!, trims: [cut] }]
			});
		for (const height of [1500, 4200]) {
			const model = await at(height);
			expect(model.problems).to.deep.equal([]);
			const face = model.zones[0]!.model!.faces[0]!;
			expectWhole(face);
			expect(face.area() / (2 * Math.PI * 8000 * (8000 - height - 500))).to.be.closeTo(1, 1e-3);
			for (let k = 2; k < face.measures.centre.length; k += 3)
				expect(face.measures.centre[k]).to.be.above(height + 400);
		}
	});

	it('an outline on the flat map has its own true lengths there: exact on a cylinder, over the seam too', async () => {
		const drum = revolved(
			[
				[4000, 0],
				[4000, 9000]
			],
			'line'
		);
		const outline = { shape: 'rectangle' as const, width: 2600, depth: 1700, rounding: 0 };
		const seam = Math.PI * 4000;
		for (const at of [
			[300, 4000],
			[seam - 200, 5000]
		] as [number, number][]) {
			const flat: TrimDefinition = {
				by: 'map',
				id: 't',
				face: 'shell',
				within: 1,
				keep: 'outside',
				outline,
				at,
				turn: 30
			};
			const { face, problem } = await trimmed(drum, [flat], { kind: 'rectangles' }, count(40, 15));
			expect(problem).to.equal(undefined);
			expectWhole(face);
			expect(2 * Math.PI * 4000 * 9000 - face.area()).to.be.closeTo(2600 * 1700, 2600 * 1700 * 1e-3);
		}
	});

	it('a closed curve in space, taken where it is nearest, makes an opening or goes round a ring', async () => {
		const drum = revolved(
			[
				[4000, 0],
				[4000, 9000]
			],
			'line'
		);
		const ring = Array.from({ length: 12 }, (_, k): [number, number, number] => {
			const t = (2 * Math.PI * k) / 12;
			return [4500 * Math.cos(t), 4500 * Math.sin(t), 3000];
		});
		const round: TrimDefinition = {
			by: 'curve',
			id: 't',
			face: 'shell',
			within: 1,
			keep: 'inside',
			curve: { points: ring, joins: 'smooth', closed: true },
			direction: null
		};
		const { face, problem } = await trimmed(drum, [round], { kind: 'rectangles' }, count(24, 9));
		expect(problem).to.equal(undefined);
		expectWhole(face);
		// Within, of one that goes round, is what lies towards the foot: here the first three courses.
		expect(face.area() / (2 * Math.PI * 4000 * 3000)).to.be.closeTo(1, 1e-6);
		expect(face.cells.count).to.equal(24 * 3);
		const disc = ring.map(([x, y]): [number, number, number] => [x / 4.5, 4200, 4000 + y / 4.5]);
		const hole: TrimDefinition = {
			...round,
			keep: 'outside',
			curve: { points: disc, joins: 'line', closed: true },
			direction: [0, -1, 0]
		};
		const opened = await trimmed(drum, [hole], { kind: 'rectangles' }, count(24, 9));
		expect(opened.problem).to.equal(undefined);
		expectWhole(opened.face);
		// A twelve-sided disc of radius 1000 seen along y falls on the cylinder: ∫ dx dz / cos.
		const flat = 3 * 1000 ** 2;
		const taken = 2 * Math.PI * 4000 * 9000 - opened.face.area();
		expect(taken / flat).to.be.within(1.001, 1.02);
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
		const fine = [trim({ outline, within: 0.5 })];
		const { face, problem } = await trimmed(deck, fine, { kind: 'rectangles' }, count(1, 2));
		expect(problem).to.equal(undefined);
		expect(
			Math.max(
				...Array.from({ length: face.cells.count }, (_, c) => face.cells.start[c + 1]! - face.cells.start[c]!)
			)
		).to.be.above(64);
		for (const column of Object.values(face.measures)) expect(column.every(Number.isFinite)).to.equal(true);
		expect(areaOf(face) / (12000 * 9000 - Math.PI * 3000 ** 2)).to.be.closeTo(1, 1e-3);
	});

	describe('over the rims of a face', () => {
		/** The deck in plan, with what outlines leave of it, reckoned by a general polygon library. */
		const whole: [number, number][] = [
			[0, 0],
			[12000, 0],
			[12000, 9000],
			[0, 9000]
		];
		const box = (x: number, y: number, width: number, depth: number): [number, number][] => [
			[x - width / 2, y - depth / 2],
			[x + width / 2, y - depth / 2],
			[x + width / 2, y + depth / 2],
			[x - width / 2, y + depth / 2]
		];
		const rectangle = (x: number, y: number, width: number, depth: number, part = {}) =>
			trim({
				id: `t${x} ${y}`,
				at: [x, y, 0],
				outline: { shape: 'rectangle', width, depth, rounding: 0 },
				...part
			});

		it('a doorway at the foot takes out what of it lies on the face, by any way of drawing it', async () => {
			const ways: TrimDefinition[] = [
				rectangle(5300, 700, 1700, 2600),
				{
					by: 'map',
					id: 'm',
					face: 'skin',
					within: 5,
					keep: 'outside',
					outline: { shape: 'rectangle', width: 1700, depth: 2600, rounding: 0 },
					at: [5300 - 6000, 700],
					turn: 0
				},
				{
					by: 'curve',
					id: 'c',
					face: 'skin',
					within: 5,
					keep: 'outside',
					curve: {
						points: box(5300, 700, 1700, 2600).map(([x, y]): [number, number, number] => [x, y, 4000]),
						joins: 'line',
						closed: true
					},
					direction: null
				}
			];
			for (const way of ways) {
				const { face, problem } = await trimmed(deck, [way]);
				expect(problem, way.by).to.equal(undefined);
				expectWhole(face);
				const wanted = 12000 * 9000 - 1700 * 2000;
				expect(areaOf(face) / wanted, `${way.by}: cells`).to.be.closeTo(1, 1e-9);
				expect(face.area() / wanted, `${way.by}: face`).to.be.closeTo(1, 1e-9);
			}
		});

		it('a corner cut off, the wrong side kept, and a face wider than its outline is high', async () => {
			const { face, problem } = await trimmed(deck, [rectangle(12000, 9000, 3000, 2000)]);
			expect(problem).to.equal(undefined);
			expect(areaOf(face) / (108e6 - 1500 * 1000)).to.be.closeTo(1, 1e-9);
			const inner = await trimmed(deck, [rectangle(6000, 4500, 90_000, 2300, { keep: 'inside' })]);
			expect(inner.problem).to.equal(undefined);
			expectWhole(inner.face);
			expect(areaOf(inner.face) / (12000 * 2300)).to.be.closeTo(1, 1e-9);
		});

		it('outlines that cross each other or the rims leave what Clipper finds, whatever the pattern', async () => {
			const size = fc.integer({ min: 700, max: 5200 });
			const rect = fc.record({
				x: fc.integer({ min: 0, max: 12000 }),
				y: fc.integer({ min: 0, max: 9000 }),
				width: size,
				depth: size
			});
			await fc.assert(
				fc.asyncProperty(
					fc.array(rect, { minLength: 2, maxLength: 4 }),
					fc.constantFrom<PatternChoice>({ kind: 'rectangles' }, { kind: 'diamonds' }),
					async (list, pattern) => {
						const { face, problem } = await trimmed(
							deck,
							list.map(({ x, y, width, depth }, k) => rectangle(x, y, width, depth, { id: `t${k}` })),
							pattern,
							count(11, 8)
						);
						if (problem !== undefined) {
							expect(problem).to.match(/holes in holes|ended already|leaves nothing/);
							return;
						}
						const left = differenceD(
							[whole.map(([x, y]) => ({ x, y }))],
							list.map(({ x, y, width, depth }) => box(x, y, width, depth).map(([p, q]) => ({ x: p, y: q }))),
							FillRule.NonZero,
							6
						);
						const wanted = areaD(left);
						expect(face.area() / wanted, 'face').to.be.closeTo(1, 1e-7);
						expect(areaOf(face) / wanted, 'cells').to.be.closeTo(1, 1e-7);
						expectWhole(face);
					}
				),
				{ numRuns: 60 }
			);
		});

		it('an open curve from side to side keeps the side of the first corner, or the other one', async () => {
			const cut = (keep: 'inside' | 'outside', points: [number, number, number][]): TrimDefinition => ({
				by: 'curve',
				id: 't',
				face: 'skin',
				within: 1,
				keep,
				curve: { points, joins: 'line', closed: false },
				direction: null
			});
			// From short of the left rim to beyond the right one, rising from 3000 to 7000: a trapezium below.
			const rising: [number, number, number][] = [
				[600, 3200, 4000],
				[13500, 7500, 4000]
			];
			for (const [points, below] of [
				[rising, 12000 * 5000],
				[[...rising].reverse(), 12000 * 5000],
				[
					[
						[9000, -500, 4000],
						[9000, 4000, 4000],
						[12500, 4000, 4000]
					],
					12000 * 9000 - 3000 * 4000
				]
			] as [[number, number, number][], number][])
				for (const keep of ['inside', 'outside'] as const) {
					const { face, problem } = await trimmed(deck, [cut(keep, points)]);
					expect(problem).to.equal(undefined);
					expectWhole(face);
					const wanted = keep === 'inside' ? below : 108e6 - below;
					expect(areaOf(face) / wanted).to.be.closeTo(1, 1e-9);
					expect(face.area() / wanted).to.be.closeTo(1, 1e-9);
				}
			const drum = revolved(
				[
					[4000, 0],
					[4000, 9000]
				],
				'line'
			);
			const ring = await trimmed(
				drum,
				[{ ...cut('inside', rising), face: 'shell' }],
				{ kind: 'rectangles' },
				count(24, 9)
			);
			expect(ring.problem).to.match(/shell is a ring, which an open curve does not part/);
		});

		it('openings of a ring that cross each other over its seam, or a level, are united', async () => {
			const drum = revolved(
				[
					[4000, 0],
					[4000, 9000]
				],
				'line'
			);
			const door = (turn: number, height: number, width: number, depth: number): TrimDefinition => ({
				by: 'map',
				id: `m${turn} ${height}`,
				face: 'shell',
				within: 1,
				keep: 'outside',
				outline: { shape: 'rectangle', width, depth, rounding: 0 },
				at: [(turn - 0.5) * 2 * Math.PI * 4000, height],
				turn: 0
			});
			const whole = 2 * Math.PI * 4000;
			const cases: [TrimDefinition[], number][] = [
				// Two that cross at the seam.
				[[door(0, 4000, 2000, 1000), door(0, 4000, 1000, 3000)], whole * 9000 - 2000 * 1000 - 1000 * 2000],
				// A doorway at the foot, and one above that reaches into it.
				[[door(0.5, 500, 2000, 3000), door(0.5, 2500, 800, 2000)], whole * 9000 - 2000 * 2000 - 800 * 1500],
				// A window that runs over the level the drum is cut off at.
				[
					[
						door(0.25, 6000, 1500, 2000),
						{ by: 'level', id: 'top', face: 'shell', within: 1, keep: 'below', height: 6400 }
					],
					whole * 6400 - 1500 * 1400
				]
			];
			for (const [trims, wanted] of cases) {
				const { face, problem } = await trimmed(drum, trims, { kind: 'rectangles' }, count(24, 9));
				expect(problem).to.equal(undefined);
				expectWhole(face);
				expect(face.area() / wanted).to.be.closeTo(1, 1e-4);
			}
		});
	});

	it('impossible ones are refused at their clause, in words', async () => {
		const cases: [TrimDefinition[], RegExp][] = [
			[[trim({ at: [15500, 4500, 0] })], /the outline lies beside skin or all round it/],
			[
				[trim({ outline: { shape: 'rectangle', width: 15000, depth: 12000, rounding: 0 } })],
				/the outline lies beside skin or all round it/
			],
			[[trim({ direction: [1, 0, 0] })], /the outline does not come to lie on skin near x [\d\s]+, y/],
			[[trim({ within: 0 })], /followed to within 0 mm; 0.1 mm or more is accepted/],
			[
				[{ by: 'level', id: 't', face: 'skin', within: 5, keep: 'above', height: 7000 }],
				/the level does not meet skin, which lies between 4.000 and 4.000 mm/
			],
			[
				[
					{
						by: 'plane',
						id: 't',
						face: 'skin',
						within: 5,
						keep: 'ahead',
						at: [-500, 0, 0],
						normal: [1, 0, 0]
					}
				],
				/the plane does not meet skin, which lies 500 to 12.500 mm ahead of it/
			],
			[
				[{ by: 'plane', id: 't', face: 'skin', within: 5, keep: 'ahead', at: [0, 0, 0], normal: [0, 0, 0] }],
				/the direction is nothing/
			],
			[
				[
					{
						by: 'map',
						id: 't',
						face: 'skin',
						within: 5,
						keep: 'outside',
						outline: { shape: 'circle', radius: 800 },
						at: [6900, 4500],
						turn: 0
					}
				],
				/the outline lies beside skin/
			],
			[
				[trim({ keep: 'inside' }), trim({ id: 'u', at: [10_000, 4500, 0], keep: 'inside' })],
				/it lies where the face has ended already/
			],
			[
				[
					trim({ keep: 'inside' }),
					trim({ id: 'u', outline: { shape: 'rectangle', width: 9000, depth: 1000, rounding: 0 } }),
					trim({ id: 'w', outline: { shape: 'rectangle', width: 1000, depth: 9000, rounding: 0 } }),
					trim({
						id: 'x',
						at: [6000, 4500, 0],
						outline: { shape: 'rectangle', width: 4000, depth: 3000, rounding: 0 }
					})
				],
				/together with the others it leaves nothing of skin/
			],
			[
				[trim({}), trim({ id: 'u', outline: { shape: 'circle', radius: 700 } })],
				/holes in holes cannot be made/
			],
			[[trim({ face: 'roof' })], /there is no face "roof"; the faces are skin/]
		];
		for (const [trims, says] of cases) expect((await trimmed(deck, trims)).problem).to.match(says);
	});
});
