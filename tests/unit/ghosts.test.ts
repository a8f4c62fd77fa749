import { expect } from 'chai';
import { inspectPart } from '../../src/core/part/inspect';
import { pointAt } from '../../src/core/geometry/vector';
import { loadSolids } from '../../src/core/geometry/solid/library';
import { shippedParts } from '../../src/core/part/kit';
import { shippedMaterials } from '../../src/core/part/materials';
import { joinedMesh } from '../../src/core/part/places';
import { cameTo, hang } from '../../src/lib/bench/hang';
import { orderedIn } from '../../src/lib/bench/ordered';
import { cornersOfTrial, trialsOf } from '../../src/core/part/trials';

describe('what steps make, as it is shown', () => {
	before(() => loadSolids());

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

	it('of a step within a repeat: all that its turns made, as the elements that are ordered of it lie', () => {
		let repeats = 0;
		for (const part of shippedParts) {
			const [trial] = trialsOf(part.anchor);
			const inspection = inspectPart(part, cornersOfTrial(part.anchor, trial!.points.length), shippedParts);
			const stock = { library: shippedParts, materials: shippedMaterials };
			const piece = hang(part, inspection, stock, trial!.points, {});
			// Every corner of what is ordered, to the hundredth of a millimetre.
			const key = (p: ArrayLike<number>) => Array.from(p, (value) => Math.round(value * 100)).join();
			const ordered = new Set(
				piece.elements.flatMap(({ table }) =>
					Array.from({ length: table.count }, (_, k) => joinedMesh(table.shape, [k]).places).flatMap(
						(places) => Array.from({ length: places.length / 3 }, (_, n) => key(pointAt(places, n)))
					)
				)
			);
			for (const [name, view] of inspection.steps) {
				if (!view.repeated || !view.points.length) continue;
				const where = `${part.id} ${name}`;
				const { points, loops, triangles } = cameTo(piece, view);
				const turns = points.length / view.points.length;
				expect(Number.isInteger(turns), where).to.equal(true);
				expect(loops.length, where).to.equal(turns * view.loops.length);
				expect(triangles.length, where).to.equal(turns * view.triangles.length);
				for (const p of points) expect(p.every(Number.isFinite), where).to.equal(true);
				for (const place of [...loops.flat(), ...triangles])
					expect(place, where).to.be.within(0, points.length - 1);
				if (turns > 1) repeats++;
				if (view.is !== 'solid' || !orderedIn(part).includes(name)) continue;
				for (const p of points) expect(ordered, `${where} ${key(p)}`).to.include(key(p));
			}
		}
		expect(repeats).to.be.above(5);
	});
});
