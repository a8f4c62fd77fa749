import { expect } from 'chai';
import fc from '../property';
import type { Vector } from '../../src/core/geometry/vector';
import { loadSolids } from '../../src/core/geometry/solid/library';
import { checkPart, compilePart } from '../../src/core/part/compile/compile';
import { shippedParts } from '../../src/core/part/kit';
import { trianglesOf } from '../../src/core/part/places';
import { runProgram } from '../../src/core/part/run';
import type { PartDefinition, PartInputForm } from '../../src/core/project/part-definition';
import { cornersOf, facesOf, runOnce, triedPart, volumeWithin } from '../trial-run';

const hollow = shippedParts.find(({ id }) => id === 'hollow-block')!;

/** A part that fits one block; the last step makes it. */
function blockPart(
	steps: PartInputForm['steps'],
	fit: Record<string, string> = {},
	inputs: PartInputForm['inputs'] = []
): PartDefinition {
	const block = steps.at(-1)!.name;
	return triedPart(
		[...steps, { name: 'body', do: 'fit block', block, first: 'cell', second: 'far', ...fit }],
		{
			anchor: { kind: 'double ring', corners: 4 },
			inputs,
			elements: [{ name: 'element', label: 'Block', category: 'other', of: ['body'], material: 'concrete' }]
		}
	);
}
const box = (name: string, from: string[], to: string[]) =>
	({
		name,
		do: 'block box',
		from: from as [string, string, string],
		to: to as [string, string, string]
	}) as const;
const whole = box('whole', ['0', '0', '0'], ['1', '1', '1']);
const ball = (name: string, centre: [string, string, string], radius: string) =>
	({ name, do: 'block sphere', centre, radius }) as const;
const less = (...names: string[]) =>
	({ name: 'shaped', do: 'block difference', whole: 'whole', less: names }) as const;

/** A space of a unit of 1 m: outside before the wall, in the south. */
const cube: Vector[] = [
	[0, 0, 0],
	[1000, 0, 0],
	[1000, 0, 1000],
	[0, 0, 1000],
	[0, 1000, 0],
	[1000, 1000, 0],
	[1000, 1000, 1000],
	[0, 1000, 1000]
];
const volumeOf = (part: PartDefinition, points = cube, inputs = {}) => {
	const run = runOnce(part, points, inputs);
	return run.elements[0]!.volume[0]! / 1e9;
};
const sphere = (r: number) => (4 / 3) * Math.PI * r ** 3;

describe('blocks', () => {
	before(loadSolids);

	it('Hollow block: a box less eight eighths of one ball and a whole one in its middle (closed form)', () => {
		for (const [corner, middle] of [
			[0.3, 0.35],
			[0.1, 0.45],
			[0.45, 0.2]
		] as const) {
			const inputs = { corner_radius: corner, hollow_radius: middle };
			expect(volumeOf(hollow, cube, inputs)).to.be.closeTo(1 - sphere(corner) - sphere(middle), 2e-6);
		}
		// What the box is stretched to does not change its share.
		const wide = cube.map(([x, y, z]): Vector => [2.5 * x, 0.4 * y, 3 * z]);
		expect(volumeOf(hollow, wide) / 3).to.be.closeTo(1 - sphere(0.3) - sphere(0.35), 2e-6);
	});

	it('where the middle one breaks through to the corners, two balls share a lens (closed form, within 1 %)', () => {
		const [r, s] = [0.48, 0.5];
		const d = Math.sqrt(0.75);
		const lens =
			(Math.PI * (r + s - d) ** 2 * (d * d + 2 * d * s - 3 * s * s + 2 * d * r + 6 * r * s - 3 * r * r)) /
			(12 * d);
		const run = runOnce(hollow, cube, { corner_radius: r, hollow_radius: s });
		const volume = run.elements.reduce((sum, table) => sum + table.volume[0]!, 0) / 1e9;
		// An eighth of each lens lies in the box for every corner: eight whole lenses.
		expect(volume).to.be.closeTo(1 - sphere(r) - sphere(s) + 8 * lens, 0.01);
		expect(run.flagTexts.join()).to.contain('breaks through');
	});

	it('cylinders and outlines swept along every axis, united and intersected (closed forms)', () => {
		const round = (name: string, axis: 'across' | 'up' | 'out', radius: string) =>
			({
				name,
				do: 'block cylinder',
				axis,
				middle: ['0.5', '0.5'] as [string, string],
				radius,
				low: '0',
				high: '1'
			}) as const;
		for (const axis of ['across', 'up', 'out'] as const) {
			expect(volumeOf(blockPart([round('shaped', axis, '0.4')]))).to.be.closeTo(Math.PI * 0.16, 1e-6);
			const outline: [number, number][] = [
				[0.1, 0.2],
				[0.9, 0.2],
				[0.1, 0.8]
			];
			const wedge = { name: 'shaped', do: 'block outline', axis, outline, low: '0.25', high: '1' } as const;
			const run = runOnce(blockPart([wedge]), cube);
			expect(run.elements[0]!.volume[0]! / 1e9).to.be.closeTo(0.24 * 0.75, 1e-6);
			// Its coordinates are the two other ones in their order: the right angle lies where it was drawn.
			const order = { across: [1, 2, 0], up: [0, 2, 1], out: [0, 1, 2] }[axis];
			const places = cornersOf(run.elements[0]!, 0);
			const inBox = (k: number) => [places[3 * k]!, places[3 * k + 2]!, 1000 - places[3 * k + 1]!];
			const found = Array.from({ length: places.length / 3 }, (_, k) => inBox(k).map((v) => v / 1000));
			for (const [a, b] of outline)
				expect(
					found.some((p) => Math.abs(p[order[0]!]! - a) < 1e-6 && Math.abs(p[order[1]!]! - b) < 1e-6),
					`${axis}: ${a} ${b}`
				).to.equal(true);
		}
		const bars = [
			box('first', ['0', '0.4', '0.4'], ['1', '0.6', '0.6']),
			box('second', ['0.3', '0', '0.4'], ['0.5', '1', '0.6'])
		];
		const of = ['first', 'second'];
		const both = 0.2 * 0.2 * 0.2;
		expect(volumeOf(blockPart([...bars, { name: 'shaped', do: 'block union', of }]))).to.be.closeTo(
			0.04 + 0.04 - both,
			1e-7
		);
		expect(volumeOf(blockPart([...bars, { name: 'shaped', do: 'block intersection', of }]))).to.be.closeTo(
			both,
			1e-7
		);
	});

	it('fits by the eight corners’ weights, into any space; the stated volume is the mesh’s', () => {
		const shift = fc.double({ min: -180, max: 180, noNaN: true });
		const unit = runOnce(hollow, cube).elements[0]!;
		const onCube = cornersOf(unit, 0);
		fc.assert(
			fc.property(
				fc.array(fc.tuple(shift, shift, shift), { minLength: 8, maxLength: 8 }),
				fc.integer({ min: -40_000, max: 40_000 }),
				(shifts, away) => {
					const points = cube.map((p, k): Vector => [
						p[0] + shifts[k]![0] + away,
						p[1] + shifts[k]![1],
						p[2] + shifts[k]![2]
					]);
					const table = runOnce(hollow, points).elements[0]!;
					const places = cornersOf(table, 0);
					expect(places.length).to.equal(onCube.length);
					for (let v = 0; v < onCube.length / 3; v += 7) {
						const [x, depth, y] = [0, 1, 2].map((a) => onCube[3 * v + a]! / 1000) as [number, number, number];
						const weights = [1 - depth, depth].flatMap((layer) => [
							(1 - x) * (1 - y) * layer,
							x * (1 - y) * layer,
							x * y * layer,
							(1 - x) * y * layer
						]);
						for (let a = 0; a < 3; a++) {
							const wanted = weights.reduce((sum, weight, k) => sum + weight * points[k]![a]!, 0);
							expect(places[3 * v + a]!).to.be.closeTo(wanted, 0.02);
						}
					}
					const within = volumeWithin(places, facesOf(table, 0));
					expect(table.volume[0]! / within).to.be.closeTo(1, 1e-3);
				}
			),
			{ numRuns: 60 }
		);
	});

	it('lies as it is told: quarter turns, turned over, mirrored; four turns are none', () => {
		// A small cube in the low left inside corner of the box, and where it comes to be.
		const mark = box('shaped', ['0', '0', '0'], ['0.2', '0.3', '0.1']);
		const middle = (fit: Record<string, string>) => {
			const { elements } = runOnce(blockPart([mark], fit), cube);
			const places = cornersOf(elements[0]!, 0);
			expect(volumeWithin(places, facesOf(elements[0]!, 0)) / 1e9).to.be.closeTo(0.006, 1e-8);
			const low = [Infinity, Infinity, Infinity];
			const high = [-Infinity, -Infinity, -Infinity];
			for (let k = 0; k < places.length; k++) {
				low[k % 3] = Math.min(low[k % 3]!, places[k]! / 1000);
				high[k % 3] = Math.max(high[k % 3]!, places[k]! / 1000);
			}
			// Across, up, out: the wall looks south.
			const [x, depth, y] = low.map((value, a) => Math.round(500 * (value + high[a]!)) / 1000);
			return [x, y, Math.round(1000 * (1 - depth!)) / 1000];
		};
		expect(middle({})).to.deep.equal([0.1, 0.15, 0.05]);
		expect(middle({ turns: '1' })).to.deep.equal([0.85, 0.1, 0.05]);
		expect(middle({ turns: '2' })).to.deep.equal([0.9, 0.85, 0.05]);
		expect(middle({ turns: '-1' })).to.deep.equal(middle({ turns: '3' }));
		expect(middle({ turns: '4' })).to.deep.equal(middle({}));
		expect(middle({ flip: 'true' })).to.deep.equal([0.1, 0.85, 0.95]);
		expect(middle({ mirror: 'true' })).to.deep.equal([0.9, 0.15, 0.05]);
		// A layer before the wall instead of behind it: the block keeps its outside outside.
		const before = [...cube.slice(4), ...cube.slice(0, 4)];
		const { elements } = runOnce(blockPart([mark]), before);
		const depths = Array.from(cornersOf(elements[0]!, 0)).filter((_, k) => k % 3 === 1);
		expect(Math.min(...depths)).to.be.closeTo(900, 1e-3);
	});

	it('a cutting solid that does not cut is told by name; nothing left, thin and reaching out too', () => {
		const beside = ball('beside', ['2', '2', '2'], '0.3');
		const here = ball('here', ['0.5', '0.5', '0.5'], '0.3');
		const told = (part: PartDefinition, inputs = {}) => {
			const run = runOnce(part, cube, inputs);
			return { texts: run.flagTexts, made: run.elements.reduce((sum, { count }) => sum + count, 0) };
		};
		const idle = told(blockPart([whole, beside, here, less('here', 'beside')]));
		expect(idle).to.deep.equal({ texts: ['body: beside cuts nothing away'], made: 1 });
		const none = told(blockPart([whole, ball('all', ['0.5', '0.5', '0.5'], '2'), less('all')]));
		expect(none).to.deep.equal({ texts: ['body: nothing is left of the block'], made: 0 });
		const out = told(blockPart([ball('shaped', ['0.5', '0.5', '0.5'], '0.6')]));
		expect(out).to.deep.equal({ texts: ['body: the block reaches out of its box'], made: 1 });
		const thin = told(blockPart([box('shaped', ['0', '0', '0.5'], ['1', '1', '0.5'])]));
		expect(thin.made).to.equal(0);
		expect(thin.texts.join()).to.contain('shaped is thinner than');
		// A companion that lies crosswise: the space folds over.
		const folded = runOnce(hollow, [...cube.slice(0, 4), ...cube.slice(4).reverse()]);
		expect(folded.flagTexts.join()).to.contain('the space it fills folds over');
	});

	it('a mesh with a hole, or a vertex that is not there, is refused at its step', () => {
		const vertices = [0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1];
		const closed = [0, 2, 1, 0, 1, 3, 1, 2, 3, 2, 0, 3];
		const faults = (triangles: number[]) =>
			checkPart(blockPart([{ name: 'shape', do: 'block mesh', vertices, triangles }]), 4, []).faults.map(
				({ step, text }) => `${step}: ${text}`
			);
		expect(faults(closed)).to.deep.equal([]);
		expect(faults(closed.slice(3))[0]).to.match(/^step shape: it has holes: 3 edges/);
		expect(faults([...closed, 0, 1, 9])[0]).to.match(/^step shape: a triangle has a vertex beyond the 4/);
		expect(
			volumeOf(blockPart([{ name: 'shape', do: 'block mesh', vertices, triangles: closed }]))
		).to.be.closeTo(1 / 6, 1e-7);
	});

	it('an open mesh is a sheet of even thickness in the box it was drawn in (closed forms); one that folds on itself is told', () => {
		const sheetPart = (
			vertices: number[],
			triangles: number[],
			sizes: [number, number, number],
			thickness: string
		) => blockPart([{ name: 'shape', do: 'block sheet', vertices, triangles, sizes, thickness }]);
		// A square that leans by 45°: it grows out of its box on both sides.
		const leaning = [0, 0, 0, 1, 0, 0, 1, 1, 1, 0, 1, 1];
		const two = [0, 1, 2, 0, 2, 3];
		const grown = 1 + 0.1 / Math.SQRT2;
		expect(volumeOf(sheetPart(leaning, two, [1, 1, 1], '0.1'))).to.be.closeTo(
			(Math.SQRT2 * 0.1) / grown ** 2,
			1e-6
		);
		// Half a drum of radius 1 and height 3, its axis up: π·r·t, in a box of 2 r + t by r + t / 2.
		const steps = 64;
		const vertices = Array.from({ length: 2 * (steps + 1) }, (_, k) => {
			const angle = Math.PI - (Math.PI * (k >> 1)) / steps;
			return [(1 + Math.cos(angle)) / 2, k % 2, Math.sin(angle)];
		}).flat();
		const triangles = Array.from({ length: steps }, (_, k) => {
			const [a, b, c, d] = [2 * k, 2 * k + 2, 2 * k + 3, 2 * k + 1];
			return [a, b, c, a, c, d];
		}).flat() as number[];
		const thick = 0.06 * 3;
		const wanted = (Math.PI * thick) / ((2 + thick) * (1 + thick / 2));
		expect(volumeOf(sheetPart(vertices, triangles, [2, 3, 1], '0.06')) / wanted).to.be.closeTo(1, 5e-3);
		const faults = (list: number[]) =>
			checkPart(sheetPart(leaning, list, [1, 1, 1], '0.1'), 4, []).faults.map(({ text }) => text);
		expect(faults(two)).to.deep.equal([]);
		expect(faults([...two, 0, 1, 3])[0]).to.match(/more than two of its faces meet at an edge/);
	});

	it('solids are made once for each set of values, however many pieces have it; too many sets are refused', () => {
		const radius = {
			name: 'radius',
			label: 'Radius',
			kind: 'ratio',
			default: 0.2,
			min: 0,
			max: 1,
			scope: 'per piece'
		} as const;
		const part = blockPart([whole, ball('here', ['0.5', '0.5', '0.5'], 'radius'), less('here')], {}, [
			radius
		]);
		const program = compilePart(part, 4, shippedParts);
		const count = 700;
		const run = (radiusOf: (row: number) => number) =>
			runProgram(
				program,
				(name) => (out, from, to) => {
					for (let r = from; r < to; r++) {
						const [, of, corner, axis] = /^(corner|far)(\d)\.(.)$/.exec(name) ?? [];
						const point = corner && cube[Number(corner) - 1 + (of === 'far' ? 4 : 0)];
						out[r - from] = point ? point['xyz'.indexOf(axis!)]! : name === 'input.radius' ? radiusOf(r) : 0;
					}
				},
				count,
				[0, 0, 0]
			);
		const three = run((row) => [0.1, 0.2, 0.3][row % 3]!);
		expect(three.elements.length).to.equal(3);
		expect(three.elements.reduce((sum, table) => sum + table.count, 0)).to.equal(count);
		for (const table of three.elements)
			for (let n = 0; n < table.count; n++) {
				const r = [0.1, 0.2, 0.3][table.row[n]! % 3]!;
				expect(table.volume[n]! / 1e9).to.be.closeTo(1 - sphere(r), 2e-6);
			}
		// The same values later give the very same mesh: no solid is made again.
		const again = run((row) => [0.1, 0.2, 0.3][row % 3]!);
		again.elements.forEach((table, k) =>
			expect(trianglesOf(table.shape, 0)).to.equal(trianglesOf(three.elements[k]!.shape, 0))
		);
		const many = run((row) => 0.1 + (0.3 * row) / count);
		const failed = program.flags.findIndex(({ code }) => code === 'block.too-many-shapes');
		const refused = [...many.flags].filter((bits) => bits & (1 << failed)).length;
		expect(refused).to.equal(count - 256);
		// What has been made once is not one more: of 300 values in turn the same 256 stand each time.
		const inTurn = run((row) => 0.1 + (0.3 * (row % 300)) / count);
		inTurn.flags.forEach((bits, row) =>
			expect(Boolean(bits & (1 << failed)), `row ${row}`).to.equal(row % 300 >= 256)
		);
	});

	it('blocks of neighbouring cells meet: what lies on the face between them is the same', () => {
		const east = cube.map(([x, y, z]): Vector => [x + 1000 + (x > 0 ? 150 : 0), y + (x > 0 ? 200 : 0), z]);
		const onFace = (points: Vector[], at: (p: number[]) => boolean) => {
			const table = runOnce(hollow, points).elements[0]!;
			const places = cornersOf(table, 0);
			return Array.from({ length: places.length / 3 }, (_, v) => [...places.slice(3 * v, 3 * v + 3)])
				.filter(at)
				.map(([, y, z]) => `${Math.round(10 * y!)} ${Math.round(10 * z!)}`)
				.sort();
		};
		const ours = onFace(cube, ([x]) => Math.abs(x! - 1000) < 0.01);
		expect(ours.length).to.be.above(20);
		expect(onFace(east, ([x]) => Math.abs(x! - 1000) < 0.01)).to.deep.equal(ours);
	});
});
