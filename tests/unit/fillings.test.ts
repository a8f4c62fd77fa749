import { expect } from 'chai';
import { doubledArea, fillLoops, fills, turnedOver, turnedOverAt } from '../../src/core/geometry/triangulate';
import { CapFiller } from '../../src/core/part/caps';
import fc from '../property';

const radius = (least: number, most: number) => fc.double({ min: least, max: most, noNaN: true });
/** A ring about nought that goes round once, and an opening well within it, either way round. */
const loops = fc.record({
	outer: fc.array(radius(900, 1500), { minLength: 4, maxLength: 12 }),
	inner: fc.array(radius(100, 300), { minLength: 3, maxLength: 8 }),
	clockwise: fc.boolean()
});

function placesOf({ outer, inner, clockwise }: { outer: number[]; inner: number[]; clockwise: boolean }) {
	const ring = (radii: number[], way: number) =>
		radii.flatMap((far, k) => {
			const angle = (way * 2 * Math.PI * k) / radii.length;
			return [far * Math.cos(angle), far * Math.sin(angle)];
		});
	return Float64Array.from([...ring(outer, 1), ...ring(inner, clockwise ? -1 : 1)]);
}

/** Area of a polygon about nought, by its radii at equal angles (closed form). */
const areaOf = (radii: readonly number[]) =>
	(Math.sin((2 * Math.PI) / radii.length) / 2) *
	radii.reduce((sum, far, k) => sum + far * radii[(k + 1) % radii.length]!, 0);

describe('what lies between loops of corners', () => {
	it('has the area of the ring without its opening, whichever way that goes round', () => {
		fc.assert(
			fc.property(loops, (of) => {
				const area = doubledArea(placesOf(of), [of.outer.length]) / 2;
				expect(area).to.be.closeTo(areaOf(of.outer) - areaOf(of.inner), 1e-6 * area);
			})
		);
	});

	it('is filled by triangles none of which is turned over; one that is gets found, wherever the search begins', () => {
		fc.assert(
			fc.property(loops, fc.nat(), fc.nat(), (of, which, begin) => {
				const places = placesOf(of);
				const filling = fillLoops(places, [of.outer.length])!;
				const area = doubledArea(places, [of.outer.length]);
				expect(fills(places, filling)).to.equal(true);
				const count = filling.length / 3;
				const first = 3 * (begin % count);
				expect(turnedOverAt(places, filling, area, first)).to.equal(-1);
				expect(fills(places, turnedOver(filling))).to.equal(false);
				const at = 3 * (which % count);
				const [a, b, c] = filling.slice(at, at + 3) as [number, number, number];
				const size = (k: number, axis: number) => places[2 * k + axis]! - places[2 * a + axis]!;
				if (size(b, 0) * size(c, 1) - size(b, 1) * size(c, 0) < 1e-4 * area) return;
				const wrong = [...filling.slice(0, at), a, c, b, ...filling.slice(at + 3)];
				expect(turnedOverAt(places, wrong, area, first)).to.equal(at);
			})
		);
	});

	it('caps of one instance after the other are each filled, whatever those before were', () => {
		const ring = fc.array(radius(900, 1500), { minLength: 8, maxLength: 8 });
		const both = fc.array(fc.tuple(ring, ring), { minLength: 2, maxLength: 30 });
		const opening = [200, 250, 180, 220, 240];
		const corners = Array.from({ length: 13 }, (_, k) => k);
		const second = corners.map((k) => 13 + k);
		const caps = [corners, second].map((of) => ({ corners: of, openings: [8], at: 0, plain: 0, far: null }));
		fc.assert(
			fc.property(both, (instances) => {
				const filler = new CapFiller([], caps);
				const choices = instances.map((rings) => {
					const flat = rings.map((outer) => placesOf({ outer, inner: opening, clockwise: true }));
					const positions = flat.flatMap((of) => corners.flatMap((k) => [of[2 * k]!, of[2 * k + 1]!, 0]));
					return { flat, choice: filler.fill(Float32Array.from(positions)) };
				});
				for (const { flat, choice } of choices) {
					const triangles = filler.trianglesOf(choice);
					for (const [c, first] of [0, 13].entries()) {
						const own = triangles.filter((vertex) => vertex >= first && vertex < first + 13);
						expect(new Set(own).size).to.equal(13);
						expect(
							fills(
								flat[c]!,
								own.map((vertex) => vertex - first)
							)
						).to.equal(true);
					}
				}
			})
		);
	});
});
