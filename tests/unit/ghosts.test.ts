import { expect } from 'chai';
import { inspectPart } from '../../src/core/part/inspect';
import { shippedParts } from '../../src/core/part/kit';
import { cornersOfTrial, trialsOf } from '../../src/core/part/trials';

describe('what steps make, as it is shown', () => {
	it('of every part of the kit: lines and triangles go between the points there are, rings are closed', () => {
		let shown = 0;
		for (const part of shippedParts)
			for (const { points } of trialsOf(part.anchor)) {
				const { steps } = inspectPart(part, cornersOfTrial(part.anchor, points.length), shippedParts);
				for (const [name, view] of steps) {
					const where = `${part.id} ${name}`;
					const count = view.points.length;
					for (const loop of view.loops) {
						for (const place of loop) expect(place, where).to.be.within(0, count - 1);
						if (view.is === 'ring' || view.is === 'rings') expect(loop[0], where).to.equal(loop.at(-1));
					}
					for (const place of view.triangles) expect(place, where).to.be.within(0, count - 1);
					expect(view.triangles.length % 3, where).to.equal(0);
					// A ring or path has every point of it on its lines, a sheet every corner on a triangle.
					const reached = new Set([...view.loops.flat(), ...view.triangles]);
					if (view.is === 'ring' || view.is === 'path' || view.is === 'sheet')
						expect(reached.size, where).to.equal(count);
					if (view.loops.length || view.triangles.length) shown++;
				}
			}
		expect(shown).to.be.above(500);
	});
});
