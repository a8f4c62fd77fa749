import { expect } from 'chai';
import { flatLayout } from '../../src/core/measure/flat-layout';

/** A cell over the seam of a ring of four bays, whose lines are 4 m and 2 m long; its last corner was made by a trim. */
const overSeam = (course: number) => ({
	cells: {
		count: 1,
		start: Uint32Array.of(0, 4),
		corners: Uint32Array.of(3, 4, 7, 8),
		bay: Uint32Array.of(4),
		course: Uint32Array.of(1)
	},
	grid: {
		columns: 4,
		rows: 2,
		extraI: Float64Array.of(0.25),
		extraJ: Float64Array.of(course),
		courseLengths: Float64Array.of(4000, 2000),
		flat: Float64Array.of(
			...[-2000, 0, -1000, 0, 0, 0, 1000, 0],
			...[-1000, 3000, -500, 3000, 0, 3000, 500, 3000],
			...[-1750, 0]
		),
		across: { closed: true },
		up: { closed: false, lengths: { belt: 3000, longest: 3000 } }
	}
});

describe('a face laid flat', () => {
	it('keeps a cell over the seam whole, by the length of the line that each corner lies on', () => {
		const { points, left, right } = flatLayout(overSeam(0));
		expect([...points]).to.deep.equal([1000, 0, -1000 + 2000, 3000, 500, 3000, -1750 + 4000, 0]);
		expect([left, right]).to.deep.equal([0, 2250]);
	});

	it('takes a node that a trim made a rounding beyond a line as on it', () => {
		for (const [course, length] of [
			[-3e-17, 4000],
			[0, 4000],
			[0.5, 3000],
			[1, 2000],
			[1 + 3e-16, 2000]
		] as const)
			expect(flatLayout(overSeam(course)).points[6]).to.be.closeTo(-1750 + length, 1e-6);
	});
});
