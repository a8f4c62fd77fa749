import { expect } from 'chai';
import { matching, type Entry } from '../../src/lib/frame/matching';

const entry = (label: string, kind: string, isAtClause = false): Entry => ({
	label,
	kind,
	isAtClause,
	act: () => undefined
});
const labels = (entries: readonly Entry[]) => entries.map(({ label, kind }) => `${label} (${kind})`);

describe('what is found by its words', () => {
	const entries = [
		entry('Copy to Gull truss', 'at clause 2.7', true),
		entry('Copy to Gull truss', 'at clause 2.8', true),
		entry('3.1 Gull truss, marked GT, lies along the normals', 'clause'),
		entry('Gull truss', 'zone'),
		entry('Truss cell', 'part'),
		entry('Trussed', 'part'),
		entry('Solid spandrel', 'part')
	];

	it('is called so before it holds the word, and what can be done at clauses comes last', () => {
		expect(labels(matching(entries, 'truss'))).to.deep.equal([
			'Truss cell (part)',
			'Trussed (part)',
			'3.1 Gull truss, marked GT, lies along the normals (clause)',
			'Gull truss (zone)',
			'Copy to Gull truss (at clause 2.7)',
			'Copy to Gull truss (at clause 2.8)'
		]);
	});

	it('is what can be done where that is asked for by its first words', () => {
		expect(labels(matching(entries, 'copy to'))).to.deep.equal([
			'Copy to Gull truss (at clause 2.7)',
			'Copy to Gull truss (at clause 2.8)'
		]);
	});

	it('has all words, in any order, of its label and its kind', () => {
		expect(labels(matching(entries, 'part cell'))).to.deep.equal(['Truss cell (part)']);
		expect(matching(entries, 'glass')).to.deep.equal([]);
		expect(matching(entries, '  ')).to.have.length(entries.length);
	});
});
