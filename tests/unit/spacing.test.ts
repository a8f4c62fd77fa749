import { expect } from 'chai';
import fc from '../property';
import { balanced, divide, makeUpFor } from '../../src/core/grid/spacing';
import { setOut } from '../../src/core/grid/set-out';
import { ProblemError } from '../../src/core/units/problem';
import { count, onlyFace, revolved, settingOutOf, sheet } from '../faces';

const lengths = (mm: number) => ({ belt: mm, longest: mm });

describe('spacing', () => {
	it('an exact size leaves the make-up that was shown for its start line', () => {
		expect(makeUpFor(1500, 32000, 0)).to.deep.equal({ first: 0, last: 500 });
		expect(makeUpFor(1500, 32000, 32000)).to.deep.equal({ first: 500, last: 0 });
		expect(makeUpFor(1500, 32000, 16000)).to.deep.equal({ first: 1000, last: 1000 });
		expect(makeUpFor(1500, 30000, 0)).to.deep.equal({ first: 0, last: 0 });
		const { fractions } = divide(
			{ by: 'exact size', size: 1500, start: 'right' },
			lengths(32000),
			'x',
			'bays'
		);
		expect(fractions.length - 1).to.equal(22);
		expect(fractions[1]! * 32000).to.be.closeTo(500, 1e-9);
	});

	it('steps rise from 0 to 1; at most is never exceeded; an exact size is exact but for its make-up', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 900, max: 60000, noNaN: true }),
				fc.double({ min: 100, max: 400, noNaN: true }),
				fc.constantFrom('left' as const, 'middle' as const, 'right' as const),
				(length, size, start) => {
					const most = divide({ by: 'at most', size }, lengths(length), 'x', 'bays').fractions;
					const exact = divide({ by: 'exact size', size, start }, lengths(length), 'x', 'bays');
					for (const list of [most, exact.fractions]) {
						expect(list[0]).to.equal(0);
						expect(list.at(-1)).to.equal(1);
						for (let k = 1; k < list.length; k++) expect(list[k]!).to.be.above(list[k - 1]!);
					}
					for (let k = 1; k < most.length; k++)
						expect((most[k]! - most[k - 1]!) * length).to.be.at.most(size + 1e-6);
					const { first, last } = exact.makeUp;
					const inner = [...exact.fractions].slice(first > 0 ? 1 : 0, last > 0 ? -1 : undefined);
					for (let k = 1; k < inner.length; k++)
						expect((inner[k]! - inner[k - 1]!) * length).to.be.closeTo(size, 0.21);
				}
			)
		);
	});

	it('the balanced size leaves no make-up from its start line, and is the nearest that does', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 3000, max: 60000, noNaN: true }),
				fc.double({ min: 300, max: 1400, noNaN: true }),
				fc.constantFrom('left' as const, 'middle' as const, 'right' as const),
				(length, size, start) => {
					const found = balanced(size, length, start);
					const { makeUp, fractions } = divide(
						{ by: 'exact size', size: found.size, start },
						lengths(length),
						'x',
						'bays'
					);
					expect(makeUp).to.deep.equal({ first: 0, last: 0 });
					expect(fractions.length - 1).to.equal(found.steps);
					// One step (or one in each half) more or fewer is further from what was asked for, counted in steps.
					const parts = start === 'middle' ? 2 : 1;
					const off = (steps: number) => Math.abs(length / size - steps);
					expect(off(found.steps)).to.be.at.most(Math.max(off(parts), parts / 2 + 1e-9));
				}
			)
		);
	});

	it('impossible values are refused with what would be accepted', () => {
		const refused = (spacing: Parameters<typeof divide>[0], sentence: RegExp) =>
			expect(() => divide(spacing, lengths(5000), 'zones/z/settingOut/across', 'bays')).to.throw(
				ProblemError,
				sentence
			);
		refused({ by: 'count', count: 0 }, /0 bays cannot be made; a whole number from 1/);
		refused({ by: 'count', count: 2.5 }, /whole number/);
		refused({ by: 'at most', size: -3 }, /more than 0 mm/);
		refused({ by: 'exact size', size: 6000, start: 'left' }, /5.000 mm/);
	});

	it('true length: equal arcs on a circle (closed form) and equal chords on a straight line, to 0.1 mm', () => {
		const circle = setOut(
			onlyFace(
				revolved([
					[4000, 0],
					[4000, 9000]
				])
			),
			settingOutOf(count(17, 3)),
			'x'
		);
		for (let i = 0; i < 17; i++) {
			const angle = Math.atan2(circle.positions[3 * i + 1]!, circle.positions[3 * i]!);
			const wanted = (2 * Math.PI * i) / 17;
			expect(Math.abs(Math.atan2(Math.sin(angle - wanted), Math.cos(angle - wanted))) * 4000).to.be.below(
				0.1
			);
		}
		expect(circle.across.closed).to.equal(true);
		expect(circle.columns).to.equal(17);
		const flat = setOut(onlyFace(sheet(7000, 3000)), settingOutOf(count(7, 3)), 'x');
		for (let i = 0; i <= 7; i++) expect(flat.positions[3 * i]!).to.be.closeTo(1000 * i, 1e-3);
	});

	it('true length: equal arcs on a parabola, against the closed form of its length', () => {
		// z = x²/a over −a..a: with t = x/a, s = a/4 · (2t √(1+4t²) + asinh 2t), from t = 0.
		const a = 5000;
		const points = Array.from({ length: 81 }, (_, k): [number, number, number] => {
			const x = a * (k / 40 - 1);
			return [x, 0, (x * x) / a];
		});
		const face = onlyFace({
			kind: 'ruled',
			foot: { points, joins: 'smooth', closed: false },
			head: { points: points.map(([x, , z]) => [x, 4000, z]), joins: 'smooth', closed: false }
		});
		const grid = setOut(face, settingOutOf(count(12, 2)), 'x');
		const s = (x: number) =>
			(a / 4) * (2 * (x / a) * Math.sqrt(1 + 4 * (x / a) ** 2) + Math.asinh((2 * x) / a));
		const step = (2 * s(a)) / 12;
		for (let i = 0; i <= 12; i++) expect(s(grid.positions[3 * i]!)).to.be.closeTo(-s(a) + i * step, 0.1);
	});
});
