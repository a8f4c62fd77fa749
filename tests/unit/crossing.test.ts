import { expect } from 'chai';
import fc from '../property';
import { linesMeet, selfCrossing } from '../../src/core/geometry/crossing';
import { side, type Place } from '../../src/core/geometry/polygon';
import { checkSound } from '../../src/core/mass/sound';
import { ProblemError } from '../../src/core/units/problem';

const place = fc.tuple(
	fc.integer({ min: 0, max: 40 }),
	fc.integer({ min: 0, max: 40 })
) as fc.Arbitrary<Place>;
const line = fc.array(place, { minLength: 2, maxLength: 14 });

/** Whether a corner of whole numbers lies on a segment. */
const isOn = (a: Place, b: Place, p: Place) =>
	side(a, b, p) === 0 &&
	[0, 1].every((k) => Math.min(a[k]!, b[k]!) <= p[k]! && p[k]! <= Math.max(a[k]!, b[k]!));

/** Whether two segments have a place in common. */
const meet = (a: Place, b: Place, c: Place, d: Place) =>
	isOn(a, b, c) ||
	isOn(a, b, d) ||
	isOn(c, d, a) ||
	isOn(c, d, b) ||
	(Math.sign(side(a, b, c)) !== Math.sign(side(a, b, d)) &&
		Math.sign(side(c, d, a)) !== Math.sign(side(c, d, b)));

/** All pairs, one after another. */
function meetSlowly(
	one: readonly Place[],
	oneClosed: boolean,
	other: readonly Place[],
	otherClosed: boolean
): boolean {
	const pieces = (places: readonly Place[], closed: boolean) =>
		places.slice(0, closed ? undefined : -1).map((p, k) => [p, places[(k + 1) % places.length]!] as const);
	return pieces(one, oneClosed).some(([a, b]) =>
		pieces(other, otherClosed).some(([c, d]) => meet(a, b, c, d))
	);
}

describe('crossings', () => {
	it('of two lines, and where they touch, are those that every pair looked at would find', () => {
		fc.assert(
			fc.property(line, fc.boolean(), line, fc.boolean(), (one, oneClosed, other, otherClosed) => {
				expect(linesMeet(one, oneClosed, other, otherClosed, 1e-9)).to.equal(
					meetSlowly(one, oneClosed, other, otherClosed)
				);
			}),
			{ numRuns: 500 }
		);
	});

	it('of a closed line with itself are found wherever they are, and a line that goes round once has none', () => {
		fc.assert(
			fc.property(fc.integer({ min: 3, max: 60 }), fc.double({ min: 0, max: 6, noNaN: true }), (n, turn) => {
				const star = (step: number): Place[] =>
					Array.from({ length: n }, (_, k) => {
						const angle = turn + (step * k * 2 * Math.PI) / n;
						return [Math.cos(angle), Math.sin(angle)];
					});
				expect(selfCrossing(star(1))).to.equal(null);
				// A star that goes round twice crosses itself, when its corners are all different.
				if (n % 2 === 1 && n > 4) expect(selfCrossing(star(2))).not.to.equal(null);
			})
		);
		expect(
			selfCrossing([
				[0, 0],
				[2, 2],
				[2, 0],
				[0, 2]
			])
		).to.deep.equal([0, 0]);
	});
});

describe('a sound surface', () => {
	const flat = {
		degreeU: 1,
		degreeV: 1,
		knotsU: Float64Array.of(0, 0, 1, 1),
		knotsV: Float64Array.of(0, 0, 1, 1),
		countU: 2,
		countV: 2,
		net: Float64Array.of(0, 0, 0, 1, 1000, 0, 0, 1, 0, 0, 1000, 1, 1000, 0, 1000, 1)
	};
	const refused = (change: object) => {
		try {
			checkSound('wall', { ...flat, ...change }, 'masses/m/form');
			return '';
		} catch (error) {
			expect(error).to.be.instanceOf(ProblemError);
			return (error as ProblemError).problem.text;
		}
	};
	const with_ = (index: number, value: number) => {
		const net = Float64Array.from(flat.net);
		net[index] = value;
		return { net };
	};

	it('has finite points within reach, weights, and knots that rise; what has not is told', () => {
		expect(refused({})).to.equal('');
		expect(refused(with_(5, NaN))).to.match(/reaches farther than/);
		expect(refused(with_(5, Infinity))).to.match(/reaches farther than/);
		expect(refused(with_(5, 1e10))).to.match(/reaches farther than 1\s000 km/);
		expect(refused(with_(7, 0))).to.match(/weight/);
		expect(refused(with_(7, -1))).to.match(/weight/);
		expect(refused({ knotsU: Float64Array.of(0, 0.5, 0.2, 1) })).to.match(/knots across of wall fall at 3/);
		expect(refused({ knotsV: Float64Array.of(0, 0, 0, 0) })).to.match(/have no length/);
		expect(refused({ knotsV: Float64Array.of(0, 0, 1) })).to.match(/has 3 knots up for 2 points/);
		expect(refused({ net: flat.net.slice(4) })).to.match(/has 3 points; 4 are needed/);
		expect(refused({ degreeU: 0 })).to.match(/degree 0/);
	});
});
