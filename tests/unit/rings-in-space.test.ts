import { expect } from 'chai';
import { polygonArea, type Place } from '../../src/core/geometry/polygon';
import { flattened, isConvexRing, triangulate } from '../../src/core/geometry/triangulate';
import { cross, unit, type Vector } from '../../src/core/geometry/vector';
import fc from '../property';

const direction = fc
	.tuple(...[0, 1, 2].map(() => fc.double({ min: -1, max: 1, noNaN: true })))
	.map(([x, y, z]): Vector => unit([x!, y!, z! + 0.01]))
	.filter((way) => way.some((one) => one !== 0));
/** A ring about a place, in a plane: its corners at angles that rise, so far from the middle each. */
const ring = fc.record({
	normal: direction,
	radii: fc.array(fc.double({ min: 200, max: 2000, noNaN: true }), { minLength: 3, maxLength: 9 }),
	warp: fc.double({ min: 0, max: 40, noNaN: true })
});

/** Corners in space, among others that are of no ring. */
function inSpace({ normal, radii, warp }: { normal: Vector; radii: number[]; warp: number }) {
	const [x, y, z] = normal;
	const right = unit(Math.abs(z) < 0.9 ? [-y, x, 0] : [0, -z, y]);
	const up = cross(normal, right);
	const points = [9, 9, 9];
	radii.forEach((radius, k) => {
		const angle = (2 * Math.PI * k) / radii.length;
		for (let a = 0; a < 3; a++)
			points.push(
				5000 * a +
					radius * (Math.cos(angle) * right[a]! + Math.sin(angle) * up[a]!) +
					(k % 2 ? warp : -warp) * normal[a]!
			);
	});
	// Before and behind the ring stand other nodes.
	const nodes = [0, ...radii.map((_, k) => k + 1), 0];
	return { points, nodes, from: 1, to: radii.length + 1 };
}

describe('rings in space', () => {
	it('are fans exactly where, seen along their normal, every corner turns left or goes straight on', () => {
		let [fans, others] = [0, 0];
		fc.assert(
			fc.property(ring, (one) => {
				const { points, nodes, from, to } = inSpace(one);
				const seen = flattened(points, nodes.slice(from, to));
				const turns = seen.map(([x, y], k) => {
					const [px, py] = seen[(k + seen.length - 1) % seen.length]!;
					const [nx, ny] = seen[(k + 1) % seen.length]!;
					return (x - px) * (ny - y) - (y - py) * (nx - x);
				});
				// What is all but straight may be called either.
				fc.pre(turns.every((turn) => Math.abs(turn) > 1e-3));
				const isFan = turns.every((turn) => turn > 0);
				expect(isConvexRing(points, nodes, from, to)).to.equal(isFan);
				if (isFan) fans++;
				else others++;
			}),
			{ numRuns: 500 }
		);
		expect(Math.min(fans, others)).to.be.greaterThan(20);
	});

	it('are filled by their triangles once: areas add up to the ring, none is turned over (shoelace)', () => {
		fc.assert(
			fc.property(ring, (one) => {
				const { points, nodes, from, to } = inSpace({ ...one, warp: 0 });
				const own = nodes.slice(from, to);
				const seen = flattened(points, own);
				const whole = polygonArea(seen as Place[]);
				const found = isConvexRing(points, nodes, from, to)
					? own.slice(2).flatMap((_, k) => [0, k + 1, k + 2])
					: triangulate(seen);
				let sum = 0;
				for (let k = 0; k < found.length; k += 3) {
					const area = polygonArea(found.slice(k, k + 3).map((n) => seen[n]!));
					expect(area).to.be.at.least(-1e-6 * whole);
					sum += area;
				}
				expect(sum).to.be.closeTo(whole, 1e-6 * whole);
			}),
			{ numRuns: 300 }
		);
	});
});
