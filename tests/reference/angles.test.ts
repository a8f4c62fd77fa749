import { expect } from 'chai';
import type { Vector } from '../../src/core/geometry/vector';
import { measureCells } from '../../src/core/measure/cell-measures';
import { trialColumns } from '../../src/core/part/trials';

/** One cell with these corners in its own plane, turned in space by two angles. */
function cellOf(points: readonly (readonly [number, number])[], turn = 0, tilt = 0) {
	const positions = new Float64Array(
		points.flatMap(([x, y]) => {
			const [a, b] = [x * Math.cos(turn) - y * Math.sin(turn), x * Math.sin(turn) + y * Math.cos(turn)];
			return [a, b * Math.cos(tilt), b * Math.sin(tilt)];
		})
	);
	const corners = Uint32Array.from(points, (_, k) => k);
	return { count: 1, start: Uint32Array.of(0, points.length), corners, positions };
}
const anglesOf = (cell: ReturnType<typeof cellOf>) => {
	const { smallestAngle, largestAngle } = measureCells(cell as never, cell.positions);
	return [smallestAngle[0]! * (180 / Math.PI), largestAngle[0]! * (180 / Math.PI)];
};

describe('angles of cells (closed forms)', () => {
	const L = [
		[0, 0],
		[4, 0],
		[4, 2],
		[2, 2],
		[2, 4],
		[0, 4]
	] as const;

	it('an L has three quarters of a turn at its inner corner', () => {
		const [smallest, largest] = anglesOf(
			cellOf(
				L.map(([x, y]) => [x * 1000, y * 1000] as const),
				0.7,
				1.1
			)
		);
		expect(smallest).to.be.closeTo(90, 1e-9);
		expect(largest).to.be.closeTo(270, 1e-9);
	});

	it('a dart of four corners, and stars of five to nine points', () => {
		const dart = cellOf(
			[
				[0, -1000],
				[3000, 0],
				[0, 1000],
				[1000, 0]
			],
			1,
			2
		);
		const [smallest, largest] = anglesOf(dart);
		expect(smallest).to.be.closeTo(45 - (Math.atan(1 / 3) * 180) / Math.PI, 1e-9);
		expect(largest).to.be.closeTo(270, 1e-9);
		for (let n = 5; n <= 9; n++) {
			const [outer, inner] = [2000, 900];
			const star = Array.from({ length: 2 * n }, (_, k) => {
				const radius = k % 2 ? inner : outer;
				return [radius * Math.cos((k * Math.PI) / n), radius * Math.sin((k * Math.PI) / n)] as const;
			});
			// Half the tip, by the triangle of middle, tip and inner corner.
			const half = Math.atan2(inner * Math.sin(Math.PI / n), outer - inner * Math.cos(Math.PI / n));
			const [tip, hollow] = anglesOf(cellOf(star, 0.3, n));
			expect(tip, `${n} points`).to.be.closeTo((2 * half * 180) / Math.PI, 1e-9);
			expect(hollow, `${n} points`).to.be.closeTo((2 * (Math.PI - half - Math.PI / n) * 180) / Math.PI, 1e-9);
		}
	});

	it('parts and trials of parts have the same', () => {
		const points = L.map(([x, y]): Vector => [x * 1000, 0, y * 1000]);
		const columns = trialColumns({ kind: 'ring', corners: 'any' }, points);
		expect(columns.get('largest_angle')).to.be.closeTo(1.5 * Math.PI, 1e-12);
		expect(columns.get('smallest_angle')).to.be.closeTo(0.5 * Math.PI, 1e-12);
	});
});
