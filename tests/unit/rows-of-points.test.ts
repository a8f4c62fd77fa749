import { expect } from 'chai';
import { readPoints } from '../../src/core/exchange/csv/read-points';
import { netOfPoints, rowsOfPoints } from '../../src/core/exchange/csv/rows-of-points';

const lines = (...rows: readonly (readonly [string, number, number, number])[]) =>
	readPoints([['row', 'x', 'y', 'z'], ...rows]);

describe('points of a table as rows', () => {
	it('points of one name are a row, in their order; names that are all others make one row', () => {
		const two = lines(['ridge', 0, 0, 9], ['eaves', 0, 4, 3], ['ridge', 5, 0, 9], ['eaves', 5, 4, 3]);
		expect(rowsOfPoints(two)).to.deep.equal([
			{
				name: 'ridge',
				points: [
					[0, 0, 9],
					[5, 0, 9]
				]
			},
			{
				name: 'eaves',
				points: [
					[0, 4, 3],
					[5, 4, 3]
				]
			}
		]);
		expect(rowsOfPoints(lines(['P1', 0, 0, 0], ['P2', 1, 0, 0], ['P3', 2, 0, 0]))).to.deep.equal([
			{
				name: '',
				points: [
					[0, 0, 0],
					[1, 0, 0],
					[2, 0, 0]
				]
			}
		]);
	});

	it('a net has as many points in every row, or it is told which row has others', () => {
		const rows = [0, 1, 2].flatMap((j) =>
			[0, 1].map((i) => [`row ${j}`, i, j, 0] as [string, number, number, number])
		);
		expect(netOfPoints(lines(...rows))).to.deep.equal([0, 1, 2].map((j) => [0, 1].map((i) => [i, j, 0])));
		expect(() => netOfPoints(lines(...rows.slice(0, 5)))).to.throw(
			'row “row 2” has 1 points and row “row 0” 2'
		);
		expect(() => netOfPoints(lines(['a', 0, 0, 0], ['a', 1, 0, 0]))).to.throw(
			'a net has two rows of points or more'
		);
	});
});
