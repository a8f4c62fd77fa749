import { expect } from 'chai';
import type { Vector } from '../../src/core/geometry/vector';
import { CellRectangles } from '../../src/core/measure/cell-rectangles';
import { smallestRectangle } from '../../src/core/measure/smallest-rectangle';
import fc from '../property';

const coordinate = fc.integer({ min: -3000, max: 3000 });
const ring = fc.array(fc.tuple(coordinate, coordinate), { minLength: 3, maxLength: 9 });
const flat = (points: readonly (readonly [number, number])[]) => points.map(([x, y]): Vector => [x, 0, y]);

/** The smallest of so many turned boxes: an upper bound that knows nothing of hulls. */
function bySweeping(points: readonly (readonly [number, number])[], turns: number): number {
	let least = Infinity;
	for (let k = 0; k < turns; k++) {
		const [c, s] = [Math.cos((k * Math.PI) / 2 / turns), Math.sin((k * Math.PI) / 2 / turns)];
		const xs = points.map(([x, y]) => c * x + s * y);
		const ys = points.map(([x, y]) => c * y - s * x);
		least = Math.min(least, (Math.max(...xs) - Math.min(...xs)) * (Math.max(...ys) - Math.min(...ys)));
	}
	return least;
}

describe('the smallest rectangle around a ring', () => {
	it('of figures whose rectangle is known', () => {
		const near = (points: [number, number][], [long, short]: [number, number]) => {
			const [a, b] = smallestRectangle(flat(points));
			expect(a).to.be.closeTo(long, 1e-9);
			expect(b).to.be.closeTo(short, 1e-9);
		};
		// A right triangle fills half of its legs' rectangle; turned by 45 degrees a square is a square.
		near(
			[
				[0, 0],
				[4, 0],
				[0, 3]
			],
			[4, 3]
		);
		near(
			[
				[1, 0],
				[2, 1],
				[1, 2],
				[0, 1]
			],
			[Math.SQRT2, Math.SQRT2]
		);
		near(
			[
				[0, 0],
				[10, 0],
				[10, 2],
				[0, 2],
				[5, 1]
			],
			[10, 2]
		);
		expect(
			smallestRectangle(
				flat([
					[0, 0],
					[1, 1],
					[2, 2]
				])
			)
		).to.deep.equal([0, 0]);
	});

	it('is never larger than any turned box, and holds the ring from wherever it is seen', () => {
		fc.assert(
			fc.property(ring, fc.double({ min: 0, max: 6, noNaN: true }), (points, turn) => {
				const [long, short] = smallestRectangle(flat(points));
				expect(long).to.be.at.least(short);
				if (!(short > 1)) return;
				expect(long * short).to.be.at.most(bySweeping(points, 360) * (1 + 1e-9));
				expect(long * short).to.be.at.least(bySweeping(points, 3600) * 0.99);
				const [c, s] = [Math.cos(turn), Math.sin(turn)];
				const turned = points.map(([x, y]): Vector => [c * x, s * x, y + 500]);
				const [otherLong, otherShort] = smallestRectangle(turned);
				expect(otherLong * otherShort).to.be.closeTo(long * short, 1e-6 * long * long);
			})
		);
	});

	it('of cells one after the other is the same, convex or not', () => {
		const height = fc.integer({ min: -200, max: 200 });
		fc.assert(
			fc.property(fc.array(fc.tuple(ring, height), { minLength: 1, maxLength: 6 }), (all) => {
				const rings = all.map(([points, lift]) =>
					points.map(([x, y], k): Vector => [x, y, k % 2 ? lift : 0])
				);
				const start = Uint32Array.from([0, ...rings.map((_, k) => rings.slice(0, k + 1).flat().length)]);
				const corners = Uint32Array.from({ length: start.at(-1)! }, (_, k) => k);
				const rectangles = new CellRectangles({ start, corners }, Float64Array.from(rings.flat(2)));
				for (const [cell, one] of rings.entries()) {
					const [long, short] = smallestRectangle(one);
					rectangles.look(cell);
					// Of several that are as small, any may be found.
					expect(rectangles.long * rectangles.short).to.be.closeTo(long * short, 1e-6 * (1 + long * long));
				}
			})
		);
		const cells = { start: Uint32Array.of(0, 4), corners: Uint32Array.of(0, 1, 2, 3) };
		const pane = new CellRectangles(cells, Float64Array.of(0, 0, 0, 1200, 0, 0, 1200, 0, 900, 0, 0, 900));
		pane.look(0);
		expect([pane.long, pane.short]).to.deep.equal([1200, 900]);
	});
});
