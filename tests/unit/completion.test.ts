import { expect } from 'chai';
import fc from '../property';
import { completed, fitting } from '../../src/lib/components/completion';

const names = ['area', 'warp', 'hours_of_sun', 'distance.tide_line', 'cell_area'];

describe('names in formulas as one types', () => {
	it('offer those that begin as the word does, then those that have it within them', () => {
		expect(fitting('2 * ar', 6, names)).to.deep.equal(['area', 'warp', 'cell_area']);
		expect(fitting('sun + 1', 3, names)).to.deep.equal(['hours_of_sun']);
		expect(fitting('distance.', 9, names)).to.deep.equal(['distance.tide_line']);
		expect(fitting('2 * ', 4, names), 'no word yet').to.deep.equal([]);
		expect(fitting('area', 4, names), 'what stands there is not offered again').to.deep.equal(['cell_area']);
	});

	it('take the place of the word before the caret and of nothing else', () => {
		fc.assert(
			fc.property(
				fc.stringMatching(/^[a-z0-9 *+.]{0,12}[ *+]$/),
				fc.stringMatching(/^[a-z][a-z0-9_]{0,5}$/),
				fc.stringMatching(/^[ *+)][a-z0-9 *+]{0,12}$/),
				fc.constantFrom(...names),
				(before, word, after, name) => {
					const { text, caret } = completed(before + word + after, before.length + word.length, name);
					expect(text).to.equal(before + name + after);
					expect(caret).to.equal(before.length + name.length);
				}
			)
		);
	});
});
