import { expect } from 'chai';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import type { Vector } from '../../src/core/geometry/vector';
import type { PartInputForm } from '../../src/core/project/part-definition';
import { count, projectOf, revolved } from '../faces';
import { cornersOf, facesOf, runOnce, triedPart, volumeWithin, type TrialRun } from '../trial-run';

type Steps = PartInputForm['steps'];
const THICK = 10;
const plateOn = (corners: number, steps: Steps, opening?: string | string[]) =>
	triedPart(
		[
			...steps,
			{
				name: 'sheet',
				do: 'plate',
				ring: 'cell',
				...(opening && { opening }),
				thickness: `${THICK} mm`,
				side: 'in'
			}
		],
		{
			anchor: { kind: 'ring', corners },
			elements: [{ name: 'thing', label: 'Thing', category: 'plate', of: ['sheet'], material: 'steel' }]
		}
	);

/** Places on a plane that leans, counter-clockwise seen from outside. */
const leaning = ([x, y]: readonly [number, number]): Vector => [x + 700, 0.6 * y, 0.8 * y - 300];

/** Every directed edge once and its opposite there; @returns the areas of triangles along the face and against it */
function looked(run: TrialRun): { along: number; against: number; volume: number } {
	const table = run.elements.find(({ count }) => count === 1)!;
	const triangles = facesOf(table, 0);
	const corners = cornersOf(table, 0);
	const edges = new Set<string>();
	for (let t = 0; t < triangles.length; t += 3)
		for (let k = 0; k < 3; k++) edges.add(`${triangles[t + k]} ${triangles[t + ((k + 1) % 3)]}`);
	expect(edges.size, 'no directed edge twice').to.equal(triangles.length);
	for (const edge of edges) expect(edges.has(edge.split(' ').reverse().join(' ')), edge).to.equal(true);
	// Head triangles lie in the plane through the cell, whose normal is known.
	const normal = [0, -0.8, 0.6];
	let [along, against] = [0, 0];
	for (let t = 0; t < triangles.length; t += 3) {
		const [p, q, r] = [0, 1, 2].map((k) => [0, 1, 2].map((a) => corners[3 * triangles[t + k]! + a]!)) as [
			number[],
			number[],
			number[]
		];
		const out = (one: number[]) => one[1]! * normal[1]! + (one[2]! + 300) * normal[2]!;
		if ([p, q, r].some((one) => Math.abs(out(one)) > 0.5 * THICK)) continue;
		const u = q.map((value, a) => value - p[a]!);
		const v = r.map((value, a) => value - p[a]!);
		const twice = normal[1]! * (u[2]! * v[0]! - u[0]! * v[2]!) + normal[2]! * (u[0]! * v[1]! - u[1]! * v[0]!);
		if (twice > 0) along += twice / 2;
		else against -= twice / 2;
	}
	expect(volumeWithin(corners, triangles) / table.volume[0]!).to.be.closeTo(1, 1e-3);
	return { along, against, volume: table.volume[0]! };
}
const areaOf = (places: readonly (readonly [number, number])[]) =>
	places.reduce((sum, [x, y], k) => {
		const [u, v] = places[(k + 1) % places.length]!;
		return sum + (x * v - u * y) / 2;
	}, 0);

describe('plates', () => {
	it('over rings with re-entrant corners are filled right, not as a fan', () => {
		const radius = fc.integer({ min: 200, max: 1500 });
		fc.assert(
			fc.property(
				fc.array(radius, { minLength: 5, maxLength: 14 }),
				fc.integer({ min: 0, max: 13 }),
				(radii, turn) => {
					// A star about the origin: any radii make a simple ring. Its first corner may be the re-entrant one.
					const places = radii.map((_, k): [number, number] => {
						const r = radii[(k + turn) % radii.length]!;
						const angle = (2 * Math.PI * k) / radii.length;
						return [r * Math.cos(angle), r * Math.sin(angle)];
					});
					const run = runOnce(plateOn(places.length, []), places.map(leaning));
					const { along, against, volume } = looked(run);
					const area = areaOf(places);
					expect(volume / (area * THICK)).to.be.closeTo(1, 1e-6);
					expect(along / area).to.be.closeTo(1, 1e-4);
					expect(against / area).to.be.below(1e-4);
				}
			),
			{ numRuns: 150 }
		);
	});

	it('keep corners that lie in a line, so that they stay closed', () => {
		// An L with a corner in the middle of every side.
		const ell: [number, number][] = [
			[0, 0],
			[1000, 0],
			[2000, 0],
			[2000, 500],
			[2000, 1000],
			[1500, 1000],
			[1000, 1000],
			[1000, 1500],
			[1000, 2000],
			[500, 2000],
			[0, 2000],
			[0, 1000]
		];
		for (let turn = 0; turn < ell.length; turn++) {
			const places = ell.map((_, k) => ell[(k + turn) % ell.length]!);
			const run = runOnce(plateOn(12, []), places.map(leaning));
			expect(run.flagTexts).to.deep.equal(['cell has a re-entrant corner']);
			const { along, against } = looked(run);
			expect(along).to.be.closeTo(3e6, 300);
			expect(against).to.be.below(300);
		}
	});

	const square = (
		[
			[0, 0],
			[2000, 0],
			[2000, 1000],
			[0, 1000]
		] as const
	).map(leaning);
	const hole = (name: string, ratio: string, diameter: string, normal = 'normal'): Steps => [
		{ name: `${name}_line`, do: 'line', from: 'corner1', to: 'corner2' },
		{ name: `${name}_at`, do: 'point on path', path: `${name}_line`, ratio },
		{ name: `${name}_way`, do: 'direction', from: 'corner1', to: 'corner2' },
		{ name: `${name}_rise`, do: 'direction', from: 'corner1', to: 'corner4' },
		{ name: `${name}_mid`, do: 'lift', of: `${name}_at`, by: '500 mm', along: `${name}_rise` },
		{ name: `${name}_plane`, do: 'plane', origin: `${name}_mid`, right: `${name}_way`, normal },
		{ name, do: 'circle', plane: `${name}_plane`, diameter, pieces: 24 }
	];
	const circle = (diameter: number) => (24 / 2) * (diameter / 2) ** 2 * Math.sin((2 * Math.PI) / 24);

	it('with several round openings: area less those of the openings (closed form), nothing turned over', () => {
		const steps = [...hole('one', '0.25', '600 mm'), ...hole('two', '0.75', '300 mm')];
		const { along, against, volume } = looked(runOnce(plateOn(4, steps, ['one', 'two']), square));
		const area = 2e6 - circle(600) - circle(300);
		expect(volume).to.be.closeTo(area * THICK, 1);
		expect(along / area).to.be.closeTo(1, 1e-4);
		expect(against).to.be.below(100);
	});

	it('an opening that runs the other way round is turned', () => {
		const steps: Steps = [
			{ name: 'back', do: 'direction', from: 'inside', to: 'centre' },
			...hole('one', '0.25', '600 mm', 'back')
		];
		const inside: Steps = [{ name: 'inside', do: 'lift', of: 'centre', by: '100 mm', along: 'normal' }];
		const { volume, against } = looked(runOnce(plateOn(4, [...inside, ...steps], 'one'), square));
		expect(volume).to.be.closeTo((2e6 - circle(600)) * THICK, 1);
		expect(against).to.be.below(100);
	});

	it('an opening that reaches out, or meets another, makes no piece, and it is told', () => {
		for (const [steps, openings] of [
			[hole('one', '0.25', '1100 mm'), ['one']],
			[
				[...hole('one', '0.4', '500 mm'), ...hole('two', '0.6', '500 mm')],
				['one', 'two']
			]
		] as const) {
			const run = runOnce(plateOn(4, [...steps], [...openings]), square);
			expect(run.flagTexts).to.deep.equal(['sheet: an opening reaches out of it, or meets another']);
			expect(run.elements.every(({ count }) => count === 0)).to.equal(true);
		}
	});

	it('along corner normals meet at folds without a gap: a ring of thick panels with openings is one (closed forms)', async () => {
		const [radius, height, bays, thick] = [4000, 3000, 24, 250];
		const panel = triedPart(
			[
				{ name: 'hole', do: 'inset', ring: 'cell', by: '300 mm' },
				{
					name: 'sheet',
					do: 'plate',
					ring: 'cell',
					opening: 'hole',
					thickness: `${thick} mm`,
					side: 'in',
					along: 'corner_normals'
				}
			],
			{
				elements: [{ name: 'thing', label: 'Thing', category: 'plate', of: ['sheet'], material: 'concrete' }]
			}
		);
		const wall = revolved([
			[radius, 0],
			[radius, height]
		]);
		const rules = [{ id: 'all', put: { variant: 'v', values: {} } }];
		const variants = [{ id: 'v', name: 'One', part: 'tried', values: {} }];
		const model = await new Chain().run(
			projectOf(wall, count(bays, 1), { rules }, { parts: [panel], variants })
		);
		expect(model.problems).to.deep.equal([]);
		const table = model.zones[0]!.model!.groups[0]!.group.run.elements[0]!;
		expect(table.count).to.equal(bays);
		const half = Math.PI / bays;
		const widths = [0, thick].map((behind) => 2 * (radius - behind) * Math.sin(half));
		const deep = thick * Math.cos(half);
		const whole = (height * deep * (widths[0]! + widths[1]!)) / 2;
		const clear = { front: widths[0]! - 600, up: height - 600 };
		const places = Array.from({ length: bays }, (_, k) => cornersOf(table, k));
		const key = (list: ArrayLike<number>, vertex: number) =>
			[0, 1, 2].map((a) => Math.round(list[3 * vertex + a]!)).join(' ');
		places.forEach((corners, k) => {
			expect(volumeWithin(corners, facesOf(table, k)) / table.volume[k]!).to.be.closeTo(1, 1e-5);
			const taken = whole - table.volume[k]!;
			// The opening narrows inward as the panel does, by less than the panel itself.
			expect(taken).to.be.below(clear.front * clear.up * deep);
			expect(taken).to.be.above(clear.front * clear.up * deep * (widths[1]! / widths[0]!));
			expect(table.area[k]! / (widths[0]! * height - clear.front * clear.up)).to.be.closeTo(1, 1e-6);
		});
		// Eight corners of the ring in front and behind, each shared with the neighbour.
		const times = new Map<string, number>();
		for (const corners of places)
			for (const vertex of [0, 1, 2, 3, 8, 9, 10, 11]) {
				const name = key(corners, vertex);
				times.set(name, (times.get(name) ?? 0) + 1);
			}
		expect(times.size).to.equal(4 * bays);
		expect([...times.values()].every((n) => n === 2)).to.equal(true);
	});
});
