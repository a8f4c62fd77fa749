import { expect } from 'chai';
import { Chain } from '../../src/core/chain/chain';
import type { FaceModel } from '../../src/core/cladding/model';
import type { Form } from '../../src/core/project/form-schema';
import type { PatternChoice } from '../../src/core/project/schema';
import { summarise } from '../../src/core/schedule/summary';
import { count, projectOf, revolved, sheet } from '../faces';

async function layOut(form: Form, across: number, up: number, pattern: PatternChoice): Promise<FaceModel> {
	const model = await new Chain().run(projectOf(form, count(across, up), { pattern }));
	expect(model.problems).to.deep.equal([]);
	return model.zones[0]!.model!.faces[0]!;
}

const patterns: PatternChoice[] = [
	{ kind: 'rectangles' },
	{ kind: 'triangles', diagonal: 'rising' },
	{ kind: 'triangles', diagonal: 'falling' },
	{ kind: 'triangles', diagonal: 'alternating' },
	{ kind: 'triangles', diagonal: 'shorter' },
	{ kind: 'diamonds' }
];
const tube = revolved([
	[4000, 0],
	[4000, 9000]
]);
const cone = revolved([
	[4000, 0],
	[0, 3000]
]);
const ring = revolved(
	Array.from({ length: 13 }, (_, k): [number, number] => [
		5000 + 1500 * Math.cos((k * Math.PI) / 6),
		k % 12 === 0 ? 0 : 1500 * Math.sin((k * Math.PI) / 6)
	]),
	'smooth'
);

describe("Euler's relation V − E + F (theorem)", () => {
	const euler = (face: FaceModel) => face.usedNodes - face.edges.count + face.cells.count;
	for (const pattern of patterns) {
		const name = pattern.kind === 'triangles' ? `${pattern.kind} ${pattern.diagonal}` : pattern.kind;
		it(`${name}: sheet 1, tube 0, torus 0, capped cone 1`, async () => {
			expect(euler(await layOut(sheet(12000, 6000), 8, 6, pattern))).to.equal(1);
			expect(euler(await layOut(sheet(12000, 6000), 7, 5, pattern))).to.equal(1);
			expect(euler(await layOut(tube, 12, 6, pattern))).to.equal(0);
			expect(euler(await layOut(ring, 12, 8, pattern))).to.equal(0);
			if (pattern.kind === 'rectangles') expect(euler(await layOut(cone, 12, 4, pattern))).to.equal(1);
		});
	}
});

describe('diamonds on a closed ring: whole and edge cells by counting', () => {
	for (const [n, m] of [
		[4, 3],
		[8, 5],
		[12, 8],
		[24, 7],
		[30, 15]
	] as const)
		it(`${n} bays, ${m} rows of nodes: ${(n / 2) * (m - 2)} whole and ${n} edge`, async () => {
			const { cells } = await layOut(tube, n, m - 1, { kind: 'diamonds' });
			expect(cells.kind.filter((kind) => kind === 0).length).to.equal((n / 2) * (m - 2));
			expect(cells.kind.filter((kind) => kind === 1).length).to.equal(n);
		});
});

describe('a box of panes, checked by hand', () => {
	it('3 by 2 bays of 1 by 1.5 m: lengths, glass and mass', async () => {
		const project = projectOf(
			sheet(3000, 3000),
			count(3, 2),
			{
				rules: [
					{
						id: 'r',
						muted: false,
						cells: 'all',
						corners: 'any',
						courses: null,
						put: { variant: 'f', values: {} }
					}
				],
				runs: [{ id: 'l', muted: false, lines: ['bay', 'course', 'rim'], variant: 'b' }]
			},
			{
				variants: [
					{
						id: 'f',
						name: 'f',
						part: 'framed-glass',
						values: { joint: 10, frame_width: 40, frame_depth: 60, pane: 20, recess: 10 }
					},
					{ id: 'b', name: 'b', part: 'box-mullion', values: { width: 50, depth: 100, wall: 5 } }
				]
			}
		);
		const model = await new Chain().run(project);
		const summary = summarise(model);
		// 4 upright lines of 3 m, 3 level lines of 3 m; each shared edge once.
		expect(summary.bars).to.deep.equal({ count: 4 * 2 + 3 * 3, length_m: 21 });
		expect(summary.panels).to.equal(6);
		expect(summary.glass_m2).to.be.closeTo(6 * 0.9 * 1.4, 1e-9);
		const frame = 6 * (0.98 * 1.48 - 0.9 * 1.4) * 0.06 * 2700;
		const glass = 6 * 0.9 * 1.4 * 0.02 * 2500;
		const mullions = 21 * (0.05 * 0.1 - 0.04 * 0.09) * 2700;
		expect(summary.mass_kg).to.be.closeTo(frame + glass + mullions, 1e-6);
	});
});
