import { expect } from 'chai';
import fc from '../property';
import { Chain } from '../../src/core/chain/chain';
import { measuresFor } from '../../src/core/limit/measures';
import { shippedParts } from '../../src/core/part/kit';
import { allowedDeflection, beamDeflection, neededInertia } from '../../src/core/strength/beam';
import { bentStress, twistRadius } from '../../src/core/strength/cold-bent';
import { panesUnderLoad, plateFactors } from '../../src/core/strength/plate';
import { secondMoment } from '../../src/core/strength/sections';
import { count, projectOf, sheet } from '../faces';

describe('Bars against wind', () => {
	it('may bend as EN 13830 has it, from memory: both joints of the three rules are smooth', () => {
		const wanted = { 3000: 15, 3600: 17, 6000: 25, 7500: 30, 9000: 36 };
		for (const [span, most] of Object.entries(wanted))
			expect(allowedDeflection(Number(span))).to.be.closeTo(most, 1e-9);
		for (const joint of [3000, 7500])
			expect(allowedDeflection(joint + 1e-6)).to.be.closeTo(allowedDeflection(joint), 1e-6);
	});

	it('the beam formula: a mullion of 3.6 m under 1.8 N/mm needs 3 308 067 mm⁴ for 17 mm', () => {
		expect(neededInertia(1.8, 3600, 70_000, 17)).to.be.closeTo(3_308_067, 1);
		expect(beamDeflection(1.8, 3600, 70_000, 3_308_067)).to.be.closeTo(17, 1e-5);
	});

	it('second moments of sections: closed forms, and the same added up strip by strip', () => {
		expect(secondMoment('tube', [60, 140, 4])).to.be.closeTo(3_753_472, 1);
		expect(secondMoment('box', [50, 100])).to.be.closeTo((50 * 100 ** 3) / 12, 1e-6);
		expect(secondMoment('round', [100, 0])).to.be.closeTo((Math.PI * 100 ** 4) / 64, 1e-6);
		expect(secondMoment('round', [100, 5])).to.be.closeTo((Math.PI * (100 ** 4 - 90 ** 4)) / 64, 1e-6);
		expect(secondMoment('plate', [6])).to.equal(null);
		// Strips of a tee and an angle: their widths by height, about the height of their middle.
		const size = fc.integer({ min: 20, max: 300 });
		fc.assert(
			fc.property(size, size, fc.integer({ min: 2, max: 9 }), (width, depth, wall) => {
				const strips = 20 * depth;
				const high = depth / strips;
				let [area, moment, second] = [0, 0, 0];
				for (let k = 0; k < strips; k++) {
					const y = (k + 0.5) * high;
					const wide = y < wall ? width : wall;
					area += wide * high;
					moment += wide * high * y;
					second += wide * high * (y * y + high ** 2 / 12);
				}
				const about = second - moment ** 2 / area;
				for (const shape of ['tee', 'angle'] as const)
					expect(secondMoment(shape, [width, depth, wall])! / about).to.be.closeTo(1, 1e-6);
			})
		);
	});
});

describe('Panes', () => {
	it('a square and a long plate on four sides: Timoshenko and Woinowsky-Krieger, table 8, from memory', () => {
		// Deflections hang on no ratio of Poisson's: 0.00406 for a square, 0.01013 for 2 by 1, 5/384 for a strip.
		expect(plateFactors(1).deflection).to.be.closeTo(0.00406, 5e-6);
		expect(plateFactors(2).deflection).to.be.closeTo(0.01013, 5e-6);
		expect(plateFactors(20).deflection).to.be.closeTo(5 / 384, 1e-5);
		// Moments there are for 0.3: 0.0479 for a square; M = (1 + ν) times a sum, so 0.0479 × 1.23 / 1.3 for glass.
		expect(plateFactors(1).moment).to.be.closeTo((0.0479 * 1.23) / 1.3, 1e-4);
		expect(plateFactors(20).moment).to.be.closeTo(1 / 8, 1e-3);
	});

	it('the strip is a beam: the same deflection and stress', () => {
		const { stress, deflection } = panesUnderLoad(20_000, 1000, Float64Array.of(10), 0.001, 70_000, 18);
		const inertia = 10 ** 3 / 12;
		// A plate is stiffer than its strips by 1 - ν².
		expect(deflection / beamDeflection(0.001, 1000, 70_000, inertia)).to.be.closeTo(1 - 0.23 ** 2, 2e-3);
		expect(stress).to.be.closeTo((0.001 * 1000 ** 2) / 8 / (10 ** 2 / 6), 0.02);
	});

	it('two equal panes take half each; the thickness needed alone has just the allowed stress', () => {
		const of = (panes: number[]) => panesUnderLoad(2000, 1300, Float64Array.from(panes), 0.0012, 70_000, 18);
		expect(of([6, 6]).stress).to.be.closeTo(of([6]).stress / 2, 1e-9);
		expect(of([6, 6]).deflection).to.be.closeTo(of([6]).deflection / 2, 1e-9);
		expect(of([of([6]).needed]).stress).to.be.closeTo(18, 1e-9);
	});

	it('bent cold: 8 mm to 12 m has 23.33 N/mm²; a pane twisted to its corners has the radius of z = c xy', () => {
		expect(bentStress(70_000, 8, 12_000)).to.be.closeTo(23.333, 1e-3);
		// One corner of 2 m by 1 m lifted by 40 mm: c = 40 / 2e6, along the diagonals the curvature is c; the gap of the
		// diagonals is half of 40.
		expect(twistRadius(2e6, 20)).to.be.closeTo(2e6 / 40, 1e-9);
	});
});

describe('Measures of bars, panes and brackets of a model', () => {
	it('are what the formulas say of its sizes; without a wind they are not there', async () => {
		const variants = [
			{ id: 'pane', name: 'pane', part: 'flat-panel', values: { sheet: 'glass', thickness: 10 } },
			{ id: 'bar', name: 'bar', part: 'box-mullion', values: {} }
		];
		const project = projectOf(
			sheet(6000, 7200),
			count(4, 2),
			{
				rules: [{ id: 'r', put: { variant: 'pane', values: {} } }],
				runs: [{ id: 'l', lines: ['bay'], variant: 'bar' }]
			} as Parameters<typeof projectOf>[2],
			{ variants }
		);
		const { zones, problems } = await new Chain().run(project);
		expect(problems).to.deep.equal([]);
		const { faces, groups } = zones[0]!.model!;
		const [face] = faces;
		const read = (id: string, over: 'cell' | 'line', wind: number | null) => {
			const { group } = groups.find(({ group }) => group.over === over)!;
			const measure = measuresFor(shippedParts, { loads: { wind, glass: 18 }, heat: project.heat }).find(
				(one) => one.id === id
			)!;
			return measure.read(face!, group, { than: 'most', bound: 0 }, () => true);
		};
		const bars = groups.find(({ group }) => group.over === 'line')!.group;
		const { sizes, shape } = bars.run.elements[0]!.stock!;
		const inertia = secondMoment(
			shape,
			sizes.map((column) => column[0]!)
		)!;
		const span = bars.run.elements[0]!.length[0]!;
		expect(span).to.be.closeTo(3600, 1e-6);
		// Bay lines within the sheet have 1.5 m of wind: 0.75 m on each side.
		const stiffness = bars.ready.materials[0]!.stiffness!;
		const bends = beamDeflection(1.2e-3 * 1500, 3600, stiffness, inertia);
		for (const value of read('bar.deflection', 'line', 1.2)) expect(value).to.be.closeTo(bends, 1e-6 * bends);
		for (const value of read('bar.deflection_share', 'line', 1.2))
			expect(value).to.be.closeTo(bends / 17, 1e-6 * bends);
		for (const value of read('bar.inertia', 'line', 1.2)) expect(value).to.be.closeTo(inertia / 1e4, 1e-6);
		for (const value of read('bar.inertia_needed', 'line', 1.2))
			expect(value).to.be.closeTo(((inertia / 1e4) * bends) / 17, 1e-3);
		const pane = panesUnderLoad(3600, 1500, Float64Array.of(10), 1.2e-3, 70_000, 18);
		for (const value of read('glass.stress', 'cell', 1.2)) expect(value / pane.stress).to.be.closeTo(1, 0.05);
		const { mass } = { mass: 1.5 * 3.6 * 25 };
		for (const value of read('piece.bracket', 'cell', 1.2))
			expect(value / ((mass * 9.80665) / 2000)).to.be.closeTo(1, 0.05);
		for (const value of read('glass.bent', 'cell', null)) expect(value).to.be.closeTo(0, 1e-3);
		for (const id of ['glass.stress', 'glass.deflection', 'glass.needed'])
			expect([...read(id, 'cell', null)].every(Number.isNaN)).to.equal(true);
		for (const id of ['bar.deflection', 'bar.inertia_needed'])
			expect([...read(id, 'line', null)].every(Number.isNaN)).to.equal(true);
	});
});
