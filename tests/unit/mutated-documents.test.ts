import { expect } from 'chai';
import { fuzz } from '../fuzz/run';

const DOCUMENTS = 3000;

describe('mutated documents', () => {
	it('3,000 of them through chain, schedules and writers: sentences or models, all finite, in time and memory', async () => {
		const { made, faults } = await fuzz(0, DOCUMENTS);
		expect(faults.join('\n')).to.equal('');
		// Most mutations are refused in words, those of conditions too; enough have to get through to the writers.
		expect(made).to.be.greaterThan(DOCUMENTS / 5);
	}).timeout(540_000);
});
