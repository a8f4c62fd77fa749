import { expect } from 'chai';
import type { Vector } from '../../src/core/geometry/vector';
import { mirroredStrand, turned, type Strand } from '../../src/core/grid/turned-copies';
import { woven } from '../../src/core/grid/weave';
import fc from '../property';

const BY = 40;
const flat = (points: Vector[]): Strand => ({ points, normals: points.map((): Vector => [0, 0, 1]) });

/** A spiral from the rim of a disc inward, through so many points, as it turns by an angle (rad) on its way. */
const spiral = (points: number, turn: number): Strand =>
	flat(
		Array.from({ length: points }, (_, k): Vector => {
			const share = k / (points - 1);
			const radius = 5000 * (1 - 0.8 * share);
			return [radius * Math.cos(turn * share), radius * Math.sin(turn * share), 0];
		})
	);

const copiesOf = (strand: Strand, count: number): Strand[] =>
	Array.from({ length: count }, (_, k) => turned(strand, [0, 0], (2 * Math.PI * k) / count));

describe('strands woven', () => {
	/**
	 * Two spirals that turn against each other from places that lie an angle apart meet where both have turned by half
	 * of it: copies of them as often as an angle between two of their beginnings lies within twice their turn.
	 */
	const spirals = fc
		.record({
			points: fc.integer({ min: 6, max: 24 }),
			count: fc.integer({ min: 3, max: 32 }),
			turn: fc.double({ min: 0.5, max: 1.5, noNaN: true })
		})
		.map((one) => {
			const each = (2 * Math.PI) / one.count;
			const apart = Array.from({ length: 2 * one.count }, (_, k) => (k + 1) * each);
			return { ...one, apart, piece: (2 * one.turn) / (one.points - 1) };
		})
		// One that meets the end of another crosses it or not.
		.filter(({ apart, turn, piece }) => apart.every((one) => Math.abs(one - 2 * turn) > 0.2 * piece));

	it('cross as often as their turns say (closed form), wherever their points lie', () => {
		fc.assert(
			fc.property(spirals, ({ points, count, turn, apart }) => {
				const strand = spiral(points, turn);
				const other = mirroredStrand(strand, [0, 0]);
				const { crossings, outOfTurn } = woven([...copiesOf(strand, count), ...copiesOf(other, count)], BY);
				expect(crossings).to.equal(count * apart.filter((one) => one < 2 * turn).length);
				expect(outOfTurn).to.equal(0);
			})
		);
	});

	it('lie one over and one under at every crossing, each in turn, and never further off', () => {
		fc.assert(
			fc.property(spirals, ({ points, count, turn }) => {
				const strand = spiral(points, turn);
				const other = mirroredStrand(strand, [0, 0]);
				const { strands, crossings } = woven([...copiesOf(strand, count), ...copiesOf(other, count)], BY);
				const sides: number[] = [];
				for (const { points: led } of strands) {
					let before = 0;
					for (const [, , z] of led) {
						expect(Math.abs(z)).to.be.at.most(BY + 1e-9);
						if (Math.abs(z) < BY - 1e-9) continue;
						expect(Math.sign(z)).not.to.equal(before);
						before = Math.sign(z);
						sides.push(before);
					}
					expect([led[0]![2], led.at(-1)![2]]).to.deep.equal([0, 0]);
				}
				expect(sides.length).to.equal(2 * crossings);
				expect(sides.reduce((sum, side) => sum + side, 0)).to.equal(0);
			})
		);
	});

	it('that come round cross wherever they begin, and are over and under in turn all the way round', () => {
		const rings = fc.record({
			points: fc.integer({ min: 12, max: 40 }),
			count: fc.integer({ min: 3, max: 9 }),
			begin: fc.double({ min: 0, max: 6.2, noNaN: true })
		});
		const [radius, off] = [1000, 620];
		fc.assert(
			fc.property(rings, ({ points, count, begin }) => {
				// Circles whose middles lie on a circle: each meets all others twice whose middle is nearer than two radii.
				const ring = Array.from({ length: points }, (_, k): Vector => {
					const angle = begin + (2 * Math.PI * k) / points;
					return [off + radius * Math.cos(angle), radius * Math.sin(angle), 0];
				});
				const { strands, crossings, outOfTurn } = woven(copiesOf(flat([...ring, ring[0]!]), count), BY);
				expect(crossings).to.equal(count * (count - 1));
				expect(outOfTurn).to.equal(0);
				for (const { points: led } of strands) {
					expect(led[0]).to.deep.equal(led.at(-1));
					const sides = led.slice(1).flatMap(([, , z]) => (Math.abs(z) > BY - 1e-9 ? [Math.sign(z)] : []));
					expect(sides.length).to.equal(2 * (count - 1));
					for (const [k, side] of sides.entries()) expect(side).to.equal(-sides.at(k - 1)!);
				}
			})
		);
	});

	it('cross once beside a point of one of them, which gives way or is led off with it; one that only comes near does not', () => {
		const across = (x: number) => flat([-1500, -500, 500, 1500].map((y): Vector => [x, y, 0]));
		const line = flat([0, 1000, 2000, 3000].map((x): Vector => [x, 0, 0]));
		for (let off = 0; off <= 480; off += 40) {
			const { strands, crossings } = woven([line, across(1000 - off)], BY);
			expect(crossings, `${off} mm beside the point`).to.equal(1);
			const [first] = strands[0]!.points.filter(([, , z]) => z !== 0);
			expect(first).to.deep.equal([1000 - off, 0, BY]);
			// By a quarter of the way back to the face it has lost the share that a cosine has lost.
			const own = strands[0]!.points.find(([x]) => Math.abs(x - 1000) < 1e-6);
			if (off === 0) expect(own![2]).to.equal(BY);
			else if (off < 300) expect(own).to.equal(undefined);
			else expect(own![2]).to.be.closeTo((BY * (1 + Math.cos((Math.PI * off) / 1000))) / 2, 1e-9);
		}
		const near = flat([
			[500, -900, 0],
			[1500, -80, 0],
			[2500, -900, 0]
		]);
		expect(woven([line, near], BY).crossings).to.equal(0);
	});
});
