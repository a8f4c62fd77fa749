import { expect } from 'chai';
import { kindPalette, kindPlace } from '../../src/lib/state/kind-colours';
import fc from '../property';

/** Red, green and blue of a colour, 0 to 255. */
const parts = (colour: string): number[] =>
	colour.startsWith('#')
		? [1, 3, 5].map((at) => parseInt(colour.slice(at, at + 2), 16))
		: colour.match(/\d+/g)!.map(Number);

describe('colours of kinds', () => {
	it('any two can be told apart', () => {
		const all = kindPalette.map(parts);
		for (const [k, one] of all.entries())
			for (const other of all.slice(0, k))
				expect(Math.hypot(...one.map((value, a) => value - other[a]!))).to.be.greaterThan(20);
	});

	it('the largest kinds have their own; those beyond share one, those of one piece another, bare cells a third', () => {
		fc.assert(
			fc.property(fc.integer({ min: -1, max: 500 }), fc.integer({ min: 1, max: 900 }), (rank, size) => {
				const place = kindPlace(rank, size);
				expect(kindPalette[place]).to.be.a('string');
				const own = rank >= 0 && rank < kindPalette.length - 3 && size > 1;
				if (own) expect(place).to.equal(rank);
				else expect(place).to.be.at.least(kindPalette.length - 3);
			})
		);
		expect(new Set([kindPlace(400, 2), kindPlace(2, 1), kindPlace(-1, 50)]).size).to.equal(3);
	});
});
