import { expect } from 'chai';
import fc from '../property';
import { nearestFrom, nearestSeed, seedsOf } from '../../src/core/geometry/nearest';
import type { Vector } from '../../src/core/geometry/vector';
import { onlyFace, revolved } from '../faces';

/** The distance from a point to the nearest place of a form's only face (mm), as trims and guides find it. */
function finderOf(form: Parameters<typeof onlyFace>[0]) {
	const { surface, closedAcross } = onlyFace(form);
	const seeds = seedsOf(surface);
	return (point: Vector) => nearestFrom(surface, point, nearestSeed(seeds, point), closedAcross);
}

const turn = fc.double({ min: 0, max: 2 * Math.PI, noNaN: true });
/** From a fifth of the radius, where all places are nearly as near, to many times as far. */
const away = fc.double({ min: 0.2, max: 8, noNaN: true });

describe('the nearest place of a face, from however far', () => {
	it('of a drum: along the ray from its axis', () => {
		const find = finderOf(
			revolved([
				[5000, 0],
				[5000, 8000]
			])
		);
		fc.assert(
			fc.property(turn, away, fc.double({ min: 0, max: 8000, noNaN: true }), (angle, far, height) => {
				const radius = 5000 * far;
				const { distance } = find([radius * Math.cos(angle), radius * Math.sin(angle), height]);
				expect(distance).to.be.closeTo(Math.abs(radius - 5000), 1e-4);
			})
		);
	});

	it('of a dome: along the ray from its middle', () => {
		const find = finderOf({ kind: 'dome', at: [0, 0], foot: 0, radii: [6000, 6000, 6000], cut: 0 });
		const up = fc.double({ min: 0.05, max: Math.PI / 2 - 0.01, noNaN: true });
		fc.assert(
			fc.property(turn, away, up, (angle, far, rise) => {
				const radius = 6000 * far;
				const level = radius * Math.cos(rise);
				const { distance } = find([
					level * Math.cos(angle),
					level * Math.sin(angle),
					radius * Math.sin(rise)
				]);
				expect(distance).to.be.closeTo(Math.abs(radius - 6000), 1e-3);
			})
		);
	});

	it('of a cone: square to its slant, or its rim', () => {
		const [radius, height] = [4000, 6000];
		const find = finderOf(
			revolved([
				[radius, 0],
				[0, height]
			])
		);
		const slant = Math.hypot(radius, height);
		fc.assert(
			fc.property(turn, fc.double({ min: 0.02, max: 0.98, noNaN: true }), away, (angle, share, far) => {
				// From a place of the slant outward along its normal.
				const off = 1000 * far;
				const level = radius * (1 - share) + (off * height) / slant;
				const up = height * share + (off * radius) / slant;
				const { distance } = find([level * Math.cos(angle), level * Math.sin(angle), up]);
				expect(distance).to.be.closeTo(off, 1e-4);
			})
		);
	});
});
