import { expect } from 'chai';
import fc from '../property';
import { SpareMemory } from '../../src/core/units/spare-memory';

const MB = 2 ** 20;

describe('spare memory', () => {
	const asked = fc.array(fc.tuple(fc.integer({ min: 0, max: 24 * MB }), fc.boolean()), { maxLength: 60 });

	it('gives as much as is asked for, to one at a time, and not much more', () => {
		fc.assert(
			fc.property(asked, (steps) => {
				const spare = new SpareMemory((bytes) => new ArrayBuffer(bytes));
				const taken: ArrayBuffer[] = [];
				for (const [bytes, back] of steps) {
					const memory = spare.take(bytes);
					expect(taken).not.to.include(memory);
					expect(memory.byteLength).to.be.within(bytes, 4 * bytes);
					taken.push(memory);
					if (back) spare.giveBack(taken.shift()!);
				}
			})
		);
	});
	it('is used again, the smallest that is large enough, and kept within a bound', () => {
		let made = 0;
		const spare = new SpareMemory((bytes) => {
			made += bytes;
			return new ArrayBuffer(bytes);
		});
		const [large, small] = [spare.take(3 * MB), spare.take(2 * MB)];
		spare.giveBack(large);
		spare.giveBack(small);
		expect(spare.take(1.5 * MB)).to.equal(small);
		expect(spare.take(1.5 * MB)).to.equal(large);
		expect(made).to.equal(5 * MB);
		// Of 60 MB that come back, those that came last are kept.
		const many = Array.from({ length: 60 }, () => spare.take(MB));
		for (const one of many) spare.giveBack(one);
		made = 0;
		const again = Array.from({ length: 60 }, () => spare.take(MB));
		expect(made).to.equal(28 * MB);
		expect(again.filter((one) => many.slice(28).includes(one))).to.have.length(32);
	});
});
