import { expect } from 'chai';
import { prismOf } from '../../src/core/part/prism';
import fc from '../property';
import { volumeWithin } from '../trial-run';

/** An outline, possibly with one within it, drawn from one plane to another: as bars and plates are kept. */
function drawn(
	outline: number[][],
	hole: number[][] | null,
	way: number[],
	end: (p: number[]) => number[] = (p) => p
) {
	const loops = hole ? [outline, hole] : [outline];
	const places: number[] = [];
	const triangles: number[] = [];
	const n = outline.length;
	for (const [k, loop] of loops.entries()) {
		const first = places.length / 3;
		for (const [x, y] of loop) places.push(x!, y!, 0);
		for (const p of loop) {
			const [x, y, z] = end([p[0]! + way[0]!, p[1]! + way[1]!, way[2]!]);
			places.push(x!, y!, z!);
		}
		for (let i = 0; i < n; i++) {
			const [a, b] = [first + i, first + ((i + 1) % n)];
			triangles.push(...(k ? [a, b + n, b, a, a + n, b + n] : [a, b, b + n, a, b + n, a + n]));
		}
	}
	if (hole)
		for (let i = 0; i < n; i++) {
			const [a, b, c, d] = [i, (i + 1) % n, 2 * n + ((i + 1) % n), 2 * n + i];
			triangles.push(a, c, b, a, d, c, a + n, b + n, c + n, a + n, c + n, d + n);
		}
	else for (let i = 1; i + 1 < n; i++) triangles.push(0, i + 1, i, n, n + i, n + i + 1);
	return { places: Float64Array.from(places), triangles };
}
const polygon = (n: number, r: number) =>
	Array.from({ length: n }, (_, k) => [
		r * Math.cos((2 * Math.PI * k) / n),
		r * Math.sin((2 * Math.PI * k) / n)
	]);
/** Turned by an angle about each axis in turn, and moved. */
function placed(places: Float64Array, [a, b, c]: number[], to: number[]): Float64Array {
	const out = new Float64Array(places.length);
	for (let k = 0; k < places.length; k += 3) {
		let [x, y, z] = [places[k]!, places[k + 1]!, places[k + 2]!];
		[y, z] = [y * Math.cos(a!) - z * Math.sin(a!), y * Math.sin(a!) + z * Math.cos(a!)];
		[x, z] = [x * Math.cos(b!) + z * Math.sin(b!), -x * Math.sin(b!) + z * Math.cos(b!)];
		[x, y] = [x * Math.cos(c!) - y * Math.sin(c!), x * Math.sin(c!) + y * Math.cos(c!)];
		out.set([x + to[0]!, y + to[1]!, z + to[2]!], k);
	}
	return out;
}
const areaOf = (loop: Float64Array) => {
	let twice = 0;
	for (let k = 0; k < loop.length; k += 2) {
		const m = (k + 2) % loop.length;
		twice += loop[k]! * loop[m + 1]! - loop[m]! * loop[k + 1]!;
	}
	return twice / 2;
};

describe('a body as one outline drawn along', () => {
	it('is found of every prism, straight or on the skew, hollow or not, however it stands: area by height is its volume', () => {
		const angle = fc.double({ min: -3, max: 3, noNaN: true });
		const way = fc.double({ min: -400, max: 400, noNaN: true });
		fc.assert(
			fc.property(
				fc.integer({ min: 3, max: 16 }),
				fc.boolean(),
				fc.tuple(way, way, fc.double({ min: 5, max: 6000, noNaN: true })),
				fc.tuple(angle, angle, angle),
				fc.tuple(way, way, way),
				(n, isHollow, along, turns, to) => {
					const { places, triangles } = drawn(polygon(n, 60), isHollow ? polygon(n, 40) : null, along);
					const body = placed(places, turns, to);
					const prism = prismOf(body, triangles)!;
					expect(prism, `${n} corners`).to.not.equal(null);
					expect(prism.loops).to.have.length(isHollow ? 2 : 1);
					const area = prism.loops.reduce((sum, loop) => sum + areaOf(loop), 0);
					const exact = (n / 2) * Math.sin((2 * Math.PI) / n) * (60 ** 2 - (isHollow ? 40 ** 2 : 0));
					expect(area / exact).to.be.closeTo(1, 1e-9);
					expect(prism.way[2]).to.be.closeTo(along[2], 1e-6);
					expect((area * prism.way[2]) / volumeWithin(body, triangles)).to.be.closeTo(1, 1e-6);
				}
			)
		);
	});

	it('is not made of what is none: ends that are cut differently, outlines that are not flat, what tapers', () => {
		const straight = drawn(polygon(4, 50), null, [0, 0, 1000]);
		expect(prismOf(straight.places, straight.triangles)).to.not.equal(null);
		const cut = drawn(polygon(4, 50), null, [0, 0, 1000], ([x, y, z]) => [x!, y!, z! + 0.5 * x!]);
		expect(prismOf(cut.places, cut.triangles)).to.equal(null);
		const tapered = drawn(polygon(4, 50), null, [0, 0, 1000], ([x, y, z]) => [0.99 * x!, y!, z!]);
		expect(prismOf(tapered.places, tapered.triangles)).to.equal(null);
		const bent = Float64Array.from(straight.places);
		for (const v of [0, 4]) bent[3 * v + 2]! += 0.1;
		expect(prismOf(bent, straight.triangles)).to.equal(null);
		// A hundredth of a millimetre is what 32 bits leave of exactness.
		const nearly = Float64Array.from(straight.places, (value) => value + 0.004 * Math.sin(value));
		expect(prismOf(nearly, straight.triangles)).to.not.equal(null);
		// Triangles that do not close it: no prism, whatever its corners are.
		expect(prismOf(straight.places, straight.triangles.slice(3))).to.equal(null);
	});
});
