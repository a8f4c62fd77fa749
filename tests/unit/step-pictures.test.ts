import { expect } from 'chai';
import { loadSolids } from '../../src/core/geometry/solid/library';
import { stepGroups, stepLines } from '../../src/lib/bench/step-groups';
import { stepPicture } from '../../src/lib/bench/step-pictures';
import { sentences } from '../../src/lib/bench/step-words';
import type { AnyStep } from '../../src/core/project/part-definition';

const kinds = Object.keys(sentences) as AnyStep['do'][];
/** A number has no place, a mesh comes from a file. */
const unseen: readonly AnyStep['do'][] = ['number', 'block mesh', 'block sheet'];
/** They are not offered: they come with the mesh they hold. */
const brought: readonly AnyStep['do'][] = ['block mesh', 'block sheet'];

describe('pictures of steps', () => {
	before(() => loadSolids());

	it('every kind that can be added is offered once, with a line', () => {
		const offered = stepGroups.flatMap(({ steps }) => steps);
		expect([...offered].sort()).to.deep.equal(kinds.filter((kind) => !brought.includes(kind)).sort());
		for (const kind of kinds) expect(stepLines[kind], kind).to.match(/^[A-Z].{5,}/);
	});

	it('every kind that makes something to be seen shows it, within its box', () => {
		for (const kind of kinds.filter((one) => !unseen.includes(one))) {
			const picture = stepPicture(kind);
			expect(picture, kind).not.to.equal(null);
			const { faces, lines, dots, width, height } = picture!;
			const made =
				faces.length + lines.filter(({ lit }) => lit).length + dots.filter(({ lit }) => lit).length;
			expect(made, kind).to.be.above(0);
			const places = [...faces, ...lines].flatMap(({ path }) => path.slice(1).replace('Z', '').split('L'));
			for (const place of [...places, ...dots.map(({ x, y }) => `${x} ${y}`)]) {
				const [x, y] = place.split(' ').map(Number) as [number, number];
				expect(x, kind).to.be.within(0, width);
				expect(y, kind).to.be.within(0, height);
			}
		}
	});
});
