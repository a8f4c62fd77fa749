import { expect } from 'chai';
import fc from '../property';
import Module from 'manifold-3d';
import { loadSolids } from '../../src/core/geometry/solid/library';
import { shippedParts } from '../../src/core/part/kit';
import { trialsOf } from '../../src/core/part/trials';
import { partSchema, type PartDefinition } from '../../src/core/project/part-definition';
import type { Vector } from '../../src/core/geometry/vector';
import { trianglesOf } from '../../src/core/part/places';
import { cornersOf, facesOf, runOnce, volumeWithin, type TrialRun } from '../trial-run';

const partOf = (id: string) => shippedParts.find((part) => part.id === id)!;
const square = (side: number): Vector[] => [
	[0, 0, 0],
	[side, 0, 0],
	[side, 0, side],
	[0, 0, side]
];

/** Topologies that have been looked through: they are one for all pieces of a program. */
const closed = new WeakSet<ArrayLike<number>>();

/** Each directed edge once, its opposite there. */
function expectClosedMesh(part: PartDefinition, triangles: ArrayLike<number>): void {
	if (closed.has(triangles)) return;
	const seen = new Set<string>();
	for (let t = 0; t < triangles.length; t += 3)
		for (let k = 0; k < 3; k++) {
			const edge = `${triangles[t + k]} ${triangles[t + ((k + 1) % 3)]}`;
			expect(seen.has(edge), `${part.label}: the edge ${edge} twice`).to.equal(false);
			seen.add(edge);
		}
	for (const edge of seen) {
		const back = edge.split(' ').reverse().join(' ');
		expect(seen.has(back), `${part.label}: nothing on the other side of ${edge}`).to.equal(true);
	}
	closed.add(triangles);
}

/** Every element closed, its volume positive and as stated. */
function expectClosed(part: PartDefinition, run: TrialRun): void {
	for (const table of run.elements) {
		for (let n = 0; n < table.count; n++) {
			const triangles = trianglesOf(table.shape, n);
			expectClosedMesh(part, triangles);
			const corners = cornersOf(table, n);
			expect(corners.every(Number.isFinite)).to.equal(true);
			const volume = volumeWithin(corners, triangles);
			expect(volume, `${part.label}: volume`).to.be.above(0);
			expect(Math.abs(volume / table.volume[n]! - 1), `${part.label}: as stated`).to.be.below(2e-3);
		}
	}
}

describe('the kit', () => {
	before(loadSolids);

	it('keeps to the schema of the document', () => {
		for (const part of shippedParts) expect(partSchema.parse(part)).to.deep.equal(part);
		expect(new Set(shippedParts.map(({ id }) => id)).size).to.equal(shippedParts.length);
	});

	for (const part of shippedParts)
		it(`${part.label}: stands on every trial of full size, without a flag, with something to order`, () => {
			for (const { name, points } of trialsOf(part.anchor)) {
				const run = runOnce(part, points);
				expectClosed(part, run);
				if (name === 'tiny' || name === 'tight') continue;
				const failed = run.flagTexts.filter((text) => !/allowed|held|under/.test(text));
				expect(failed, name).to.deep.equal([]);
				expect(
					run.elements.some(({ count }) => count > 0),
					name
				).to.equal(true);
			}
		});

	for (const part of shippedParts)
		it(`${part.label}: closed with positive volume over hundreds of random anchors and inputs`, () => {
			const trials = trialsOf(part.anchor).filter(({ name }) => name !== 'tiny');
			const shift = fc.double({ min: -0.08, max: 0.08, noNaN: true });
			const numbers = part.inputs.filter(({ min, max }) => min !== undefined && max !== undefined);
			let made = 0;
			fc.assert(
				fc.property(
					fc.nat(trials.length - 1),
					fc.array(fc.tuple(shift, shift, shift), { minLength: 20, maxLength: 20 }),
					fc.array(fc.double({ min: -0.6, max: 0.6, noNaN: true }), { minLength: 12, maxLength: 12 }),
					(which, shifts, changes) => {
						const { points } = trials[which]!;
						const size = Math.max(...points.flatMap((p) => p.map(Math.abs)));
						const moved = points.map((p, k): Vector => {
							const [x, y, z] = shifts[k % shifts.length]!;
							return [p[0] + x * size, p[1] + y * size, p[2] + z * size];
						});
						const inputs = Object.fromEntries(
							numbers.map(({ name, default: given, min, max, kind }, k) => {
								const value = Number(given) * (1 + changes[k % changes.length]!);
								const held = Math.min(max!, Math.max(min!, value));
								return [name, kind === 'count' ? Math.round(held) : held];
							})
						);
						const run = runOnce(part, moved, inputs);
						expectClosed(part, run);
						for (const values of run.results.values())
							expect([...values].every(Number.isFinite)).to.equal(true);
						if (run.elements.some(({ count }) => count > 0)) made++;
					}
				),
				{ numRuns: 200 }
			);
			expect(made, 'most of them can be made').to.be.above(100);
		});

	it('coincident and collapsed anchors give a flag, never a NaN', () => {
		for (const part of shippedParts) {
			if (part.anchor.kind === 'node') continue;
			for (const { points } of trialsOf(part.anchor)) {
				const run = runOnce(
					part,
					points.map((): Vector => [5, 5, 5])
				);
				expect(run.flagTexts.length, part.label).to.be.above(0);
				for (const values of run.results.values()) expect([...values].every(Number.isFinite)).to.equal(true);
				for (const table of run.elements) expect(table.count).to.equal(0);
			}
		}
	});

	it('volumes are those that manifold-3d finds in the same meshes', async () => {
		const module = await Module();
		module.setup();
		const { Manifold, Mesh } = module;
		let compared = 0;
		for (const part of shippedParts) {
			const run = runOnce(part, trialsOf(part.anchor)[0]!.points);
			for (const table of run.elements)
				for (let n = 0; n < table.count; n++) {
					const vertProperties = Float32Array.from(cornersOf(table, n));
					const mesh = new Mesh({
						numProp: 3,
						vertProperties,
						triVerts: Uint32Array.from(facesOf(table, n))
					});
					const solid = new Manifold(mesh);
					expect(String(solid.status()), part.label).to.equal('NoError');
					expect(solid.volume() / table.volume[n]!, part.label).to.be.closeTo(1, 2e-3);
					compared++;
					solid.delete();
				}
		}
		expect(compared).to.be.above(50);
	});
});

describe('parts against closed forms', () => {
	it('Flat panel: area times thickness; mass follows', () => {
		const run = runOnce(partOf('flat-panel'), square(1000), { joint: 10, thickness: 5 });
		expect(run.elements[0]!.area[0]).to.be.closeTo(980 ** 2, 1e-6);
		expect(run.elements[0]!.volume[0]).to.be.closeTo(980 ** 2 * 5, 1e-3);
	});

	it('Framed glass: without a joint its bars are as long as the cell’s perimeter, whatever its corners', () => {
		const place = fc.tuple(fc.integer({ min: 700, max: 1300 }), fc.integer({ min: -60, max: 60 }));
		fc.assert(
			fc.property(fc.array(place, { minLength: 3, maxLength: 7 }), (places) => {
				const points = places.map(([r, lift], k): Vector => {
					const angle = (2 * Math.PI * k) / places.length;
					return [r * Math.cos(angle), r * Math.sin(angle), lift];
				});
				const perimeter = points.reduce((sum, p, k) => {
					const q = points[(k + 1) % points.length]!;
					return sum + Math.hypot(q[0] - p[0], q[1] - p[1], q[2] - p[2]);
				}, 0);
				const run = runOnce(partOf('framed-glass'), points, { joint: 0 });
				const bars = run.elements.filter(({ length }) => length[0]! > 0);
				expect(bars.length).to.equal(points.length);
				const total = bars.reduce((sum, { length }) => sum + length[0]!, 0);
				expect(total / perimeter).to.be.closeTo(1, 1e-9);
			}),
			{ numRuns: 60 }
		);
	});

	it('Ring opening: at ratio r the opening of a square is s²(r² + (1 − r)²)', () => {
		for (const r of [0.1, 0.25, 0.5, 0.8]) {
			const run = runOnce(partOf('ring-opening'), square(1000), { joint: 0, margin: 100, place: r });
			const open = 800 ** 2 * (r * r + (1 - r) ** 2);
			expect(run.results.get('open_area')![0]).to.be.closeTo(open, 1e-3);
			expect(run.elements[0]!.area[0]).to.be.closeTo(1e6 - open, 1e-3);
		}
		const held = runOnce(partOf('ring-opening'), square(1000), { place: 0 });
		expect(held.flagTexts.join()).to.match(/held between 0.05 and 0.95/);
	});

	it('Pinwheel: two states that cover the whole range, the second exactly from one half on', () => {
		const state = (ratio: number) => {
			const run = runOnce(partOf('pinwheel'), square(1000), { ratio, joint: 0 });
			return run.elements.filter(({ count }) => count > 0).length;
		};
		// Four wings; or the middle and four bars.
		for (const ratio of [0.1, 0.3, 0.4999999]) expect(state(ratio)).to.equal(4);
		for (const ratio of [0.5, 0.5000001, 0.9]) expect(state(ratio)).to.equal(5);
		const half = runOnce(partOf('pinwheel'), square(1000), { ratio: 0.5, joint: 0 });
		expect(half.results.get('closed_area')![0]).to.be.closeTo(5e5, 1e-3);
	});

	it('Pyramid: faces of a square cell are four triangles of slant height √(h² + (s/2)²)', () => {
		const run = runOnce(partOf('pyramid'), square(1200), { joint: 0, height: 500, thickness: 4 });
		const area = 4 * 0.5 * 1200 * Math.hypot(500, 600);
		expect(run.elements[0]!.area[0]).to.be.closeTo(area, 1e-6);
		expect(run.elements[0]!.volume[0]).to.be.closeTo(4 * area, 1e-3);
	});

	it('Box mullion: section times length; Tee and Tube by their sections', () => {
		const line: Vector[] = [
			[0, 0, 0],
			[0, 0, 3000]
		];
		const box = runOnce(partOf('box-mullion'), line, { width: 60, depth: 120, wall: 4, setback: 10 });
		expect(box.elements[0]!.volume[0]).to.be.closeTo((60 * 120 - 52 * 112) * 2980, 1e-2);
		expect(box.elements[0]!.length[0]).to.be.closeTo(2980, 1e-6);
		const tee = runOnce(partOf('tee-mullion'), line, { width: 60, depth: 100, wall: 8 });
		expect(tee.elements[0]!.volume[0]).to.be.closeTo((60 * 8 + 92 * 8) * 3000, 1e-2);
		const tube = runOnce(partOf('tube-edge'), line, { diameter: 80, wall: 5 });
		expect(tube.elements[0]!.volume[0]).to.be.closeTo((Math.PI / 4) * (80 ** 2 - 70 ** 2) * 3000, 1e-1);
	});

	it('Spaced sleeve: set back by (distance − length)/2, flagged when that is negative', () => {
		const line = (size: number): Vector[] => [
			[0, 0, 0],
			[size, 0, 0]
		];
		const run = runOnce(partOf('spaced-sleeve'), line(1000), { sleeve: 400 });
		expect(run.results.get('end_distance')![0]).to.be.closeTo(300, 1e-9);
		expect(run.elements[0]!.length[0]).to.be.closeTo(400, 1e-9);
		expect(run.flagTexts).to.deep.equal([]);
		const near = runOnce(partOf('spaced-sleeve'), line(300), { sleeve: 400 });
		expect(near.results.get('end_distance')![0]).to.be.closeTo(-50, 1e-9);
		expect(near.flagTexts.join()).to.match(/nearer than the sleeve is long/);
	});

	it('Split panel: the shorter diagonal, and the fold between its halves', () => {
		const corners: Vector[] = [
			[0, 0, 0],
			[1000, 0, 0],
			[1000, -500, 1000],
			[0, 0, 1000]
		];
		const run = runOnce(partOf('split-panel'), corners, { joint: 0 });
		expect(run.results.get('diagonal_length')![0]).to.be.closeTo(Math.SQRT2 * 1000, 1e-6);
		// The diagonal from corner 2 to 4; one half stands upright, the other's normal is by hand
		// (0, −500, 1000) × (−1000, 0, 1000) = (−5, −10, −5)·10⁵.
		expect(run.results.get('fold')![0]).to.be.closeTo(Math.acos(10 / Math.hypot(5, 10, 5)), 1e-9);
	});

	it('Node ball: a sphere', () => {
		const run = runOnce(partOf('node-ball'), trialsOf(partOf('node-ball').anchor)[0]!.points, {
			diameter: 140
		});
		expect(run.elements[0]!.volume[0]).to.be.closeTo((Math.PI / 6) * 140 ** 3, 1e-3);
	});

	it('Deep window: nothing to line at no depth, as much before the wall as behind it', () => {
		const reveals = (depth: number) =>
			runOnce(partOf('deep-window'), square(1500), { depth }).elements[0]!.volume[0] ?? 0;
		expect(reveals(0)).to.equal(0);
		expect(reveals(200)).to.be.above(0);
		expect(reveals(-200)).to.be.closeTo(reveals(200), 1e-6);
	});
});
