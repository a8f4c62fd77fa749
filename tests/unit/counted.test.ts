import { expect } from 'chai';
import { counted } from '../../src/core/units/counted';

describe('so many of something', () => {
	it('is one of them, or several, or none', () => {
		expect([0, 1, 2].map((count) => counted(count, 'chain'))).to.deep.equal([
			'0 chains',
			'1 chain',
			'2 chains'
		]);
		expect(counted(1, 'mass', 'masses')).to.equal('1 mass');
		expect(counted(12_345, 'mass', 'masses')).to.match(/^12\s345 masses$/);
	});
});
