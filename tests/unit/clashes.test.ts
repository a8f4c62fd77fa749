import { expect } from 'chai';
import Module, { type ManifoldToplevel } from 'manifold-3d';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import { bodyOf, type Body } from '../../src/core/clash/body';
import { commonBody } from '../../src/core/clash/common-body';
import { findClashes } from '../../src/core/clash/find';
import { nearPairs } from '../../src/core/clash/near-pairs';
import { sweptRing } from '../../src/core/geometry/solid/swept';
import type { Vector } from '../../src/core/geometry/vector';
import type { Model } from '../../src/core/cladding/model';
import type { Form } from '../../src/core/project/form-schema';
import { count, projectOf, sheet } from '../faces';

const DEEPER = 2;

interface Box {
	readonly at: Vector;
	readonly size: Vector;
	/** About z, x and z again (rad). */
	readonly turned: Vector;
}
const CUBE = sweptRing(
	[
		[-0.5, -0.5, 0],
		[0.5, -0.5, 0],
		[0.5, 0.5, 0],
		[-0.5, 0.5, 0]
	],
	Array.from({ length: 4 }, (): Vector => [0, 0, 1]),
	[0, 1, 2, 0, 2, 3],
	0.5,
	0.5
);
function placesOf({ at, size, turned: [a, b, c] }: Box): Float64Array {
	const spin = ([x, y, z]: Vector, angle: number): Vector => [
		x * Math.cos(angle) - y * Math.sin(angle),
		x * Math.sin(angle) + y * Math.cos(angle),
		z
	];
	const tip = ([x, y, z]: Vector): Vector => {
		const [p, q] = spin([y, z, 0], b);
		return [x, p, q];
	};
	const places = new Float64Array(24);
	for (let k = 0; k < 8; k++) {
		const corner = size.map((one, n) => one * CUBE.vertices[3 * k + n]!) as unknown as Vector;
		places.set(
			spin(tip(spin(corner, a)), c).map((value, n) => value + at[n]!),
			3 * k
		);
	}
	return places;
}
const boxBody = (box: Box) => bodyOf(placesOf(box), CUBE.triangles, DEEPER / 2);
const upright = (at: Vector, size: Vector): Box => ({ at, size, turned: [0, 0, 0] });

describe('clashes of made pairs', () => {
	it('boxes that reach into each other by so much say so; those that touch or are near do not', () => {
		const plate = boxBody(upright([0, 0, 0], [1500, 1200, 20]));
		for (const depth of [2.5, 7, 19]) {
			const found = commonBody(plate, boxBody(upright([100, 50, 20 - depth], [1400, 1100, 20])))!;
			expect(found.depth).to.be.closeTo(depth, 1e-9);
			expect(found.at[2]).to.be.closeTo(10 - depth / 2, 1e-9);
		}
		for (const depth of [1.9, 0, -3])
			expect(commonBody(plate, boxBody(upright([100, 50, 20 - depth], [1400, 1100, 20])))).to.equal(null);
		// Side by side in one plane, edge to edge, and corner to corner.
		expect(commonBody(plate, boxBody(upright([1500, 0, 0], [1500, 1200, 20])))).to.equal(null);
		expect(commonBody(plate, boxBody(upright([1500, 1200, 0], [1500, 1200, 20])))).to.equal(null);
	});

	it('bars that cross without a corner in one another, and one thing within another', () => {
		const bar = boxBody(upright([0, 0, 0], [3000, 60, 90]));
		const other = boxBody({ at: [200, 0, 15], size: [50, 2000, 80], turned: [0, 0, Math.PI / 7] });
		// 80 high about 15 against 90 high about 0: from −25 to 45. In plan 50 by 60, turned by 180°/7.
		expect(commonBody(bar, other)!.depth).to.be.within(50, 70);
		const nut = boxBody(upright([900, 5, -10], [20, 20, 30]));
		expect(commonBody(bar, nut)!.depth).to.be.closeTo(20, 1e-9);
		expect(commonBody(nut, bar)!.depth).to.be.closeTo(20, 1e-9);
	});

	describe('against a library of solids', () => {
		let solids: ManifoldToplevel;
		before(async () => {
			solids = await Module();
			solids.setup();
		});
		const volumeOfBoth = (one: Body, other: Body) => {
			const solid = ({ inner }: Body) =>
				solids.Manifold.ofMesh(
					new solids.Mesh({
						numProp: 3,
						vertProperties: Float32Array.from(inner),
						triVerts: Uint32Array.from(CUBE.triangles)
					})
				);
			return solid(one).intersect(solid(other)).volume();
		};
		const box = fc.record({
			at: fc.tuple(...[0, 1, 2].map(() => fc.integer({ min: -600, max: 600 }))),
			size: fc.tuple(...[0, 1, 2].map(() => fc.integer({ min: 8, max: 1200 }))),
			turned: fc.tuple(...[0, 1, 2].map(() => fc.double({ min: 0, max: 6.3, noNaN: true })))
		}) as unknown as fc.Arbitrary<Box>;

		it('of turned boxes those clash that have something in common when both are drawn in', () => {
			let [clashing, apart] = [0, 0];
			fc.assert(
				fc.property(box, box, (a, b) => {
					const [one, other] = [boxBody(a), boxBody(b)];
					const volume = volumeOfBoth(one, other);
					const found = commonBody(one, other);
					// Where a corner only just reaches in, the library works with single numbers.
					if (volume > 1) expect(found, 'clashes').not.to.equal(null);
					else if (volume === 0 && found) expect(found.depth).to.be.lessThan(DEEPER + 0.01);
					if (found) clashing++;
					else apart++;
					expect(commonBody(other, one)?.depth ?? 0).to.be.closeTo(found?.depth ?? 0, 1e-6);
				}),
				{ numRuns: 300 }
			);
			expect(Math.min(clashing, apart)).to.be.greaterThan(30);
		});
	});

	it('boxes that meet by more than a bound are paired, each pair once (against all pairs)', () => {
		fc.assert(
			fc.property(
				fc.array(fc.array(fc.integer({ min: 0, max: 40 }), { minLength: 6, maxLength: 6 }), {
					maxLength: 40
				}),
				(boxes) => {
					const bounds = Float64Array.from(
						boxes.flatMap(([x, y, z, a, b, c]) => [x!, y!, z!, x! + a! / 4, y! + b! / 4, z! + c! / 4])
					);
					const wanted: string[] = [];
					for (let i = 0; i < boxes.length; i++)
						for (let j = i + 1; j < boxes.length; j++) {
							const over = [0, 1, 2].map(
								(k) =>
									Math.min(bounds[6 * i + 3 + k]!, bounds[6 * j + 3 + k]!) -
									Math.max(bounds[6 * i + k]!, bounds[6 * j + k]!)
							);
							if (Math.min(...over) > 1) wanted.push(`${i} ${j}`);
						}
					const found = [...nearPairs(bounds, 1)].map((pair) => [...pair].sort((a, b) => a - b).join(' '));
					expect(found.sort()).to.deep.equal(wanted.sort());
				}
			)
		);
	});
});

describe('clashes in a model', () => {
	const panel = { id: 'panel', name: 'panel', part: 'flat-panel', values: { joint: 8, thickness: 20 } };
	const bar = { id: 'bar', name: 'bar', part: 'box-mullion', values: { width: 60, back: 0 } };
	const rules = [{ id: 'r', put: { variant: 'panel' } }];

	const wall = (y: number): Form => ({
		kind: 'ruled',
		foot: row(y, 0),
		head: row(y, 5200)
	});
	const row = (y: number, z: number) => ({
		points: [
			[0, y, z],
			[12000, y, z]
		] as [number, number, number][],
		joins: 'line' as const,
		closed: false
	});
	/** Two walls of ten by four panels, one behind the other by so much. */
	async function walls(apart: number): Promise<Model> {
		const project = projectOf(wall(0), count(10, 4), { rules } as never, { variants: [panel] });
		const [mass] = project.masses;
		const [zone] = project.zones;
		const behind = { ...mass!, id: 'n', form: wall(apart) };
		const second = {
			...zone!,
			id: 'y',
			code: 'Y',
			name: 'Behind',
			faces: [{ ...zone!.faces[0]!, mass: 'n' }]
		};
		return new Chain().run({ ...project, masses: [mass!, behind], zones: [zone!, second] });
	}

	it('plates of 20 mm stand in those 15 mm behind them by 5 mm, each in one; 20 mm behind they touch', async () => {
		const near = await walls(15);
		expect(near.problems).to.deep.equal([]);
		const found = await findClashes(near, DEEPER);
		expect(found.depth).to.have.length(40);
		for (const depth of found.depth) expect(depth).to.be.closeTo(5, 1e-3);
		// Each with the one behind it: of the same row in the other zone.
		found.one.forEach((one, k) => {
			const other = found.other[k]!;
			expect(found.row[one]).to.equal(found.row[other]);
			expect([found.zone[one], found.zone[other]]).to.deep.equal([0, 1]);
		});
		expect((await findClashes(await walls(20), DEEPER)).depth).to.have.length(0);
		expect((await findClashes(await walls(-20), DEEPER)).depth).to.have.length(0);
	});

	it('bars that meet at nodes are joined there; panels reach into them at every side to its hollow', async () => {
		const runs = [{ id: 'b', lines: ['bay', 'course', 'rim'], variant: 'bar' }];
		const project = projectOf(sheet(12000, 5200), count(10, 4), { rules, runs } as never, {
			variants: [{ ...panel, values: { joint: 8, thickness: 20 } }, bar]
		});
		const model = await new Chain().run(project);
		const found = await findClashes(model, DEEPER);
		expect(found.depth).to.have.length(4 * 40);
		// 30 − 8 mm over, and as deep as the panel is thick.
		for (const depth of found.depth) expect(depth).to.be.closeTo(20, 1e-3);
		const clear = await new Chain().run({
			...project,
			variants: [{ ...panel, values: { joint: 30, thickness: 20 } }, bar] as never
		});
		expect((await findClashes(clear, DEEPER)).depth).to.have.length(0);
	});

	it('is given up when the one who waits for it says so', async () => {
		const model = await walls(15);
		const stop = new Error('enough');
		let steps = 0;
		const search = findClashes(model, DEEPER, () => {
			if (++steps === 1) throw stop;
		});
		expect(await search.catch((error: unknown) => error)).to.equal(stop);
	});
});
