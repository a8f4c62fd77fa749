import type { NodeGrid } from '../grid/node-grid';

/**
 * Moves after which every course of a grid is the first one, moved: its cells are parallelograms, flat by themselves. Of
 * all such grids it is the nearest (least squares: the mean of every column and of every course, less the mean of all).
 *
 * ```ts
 * const offsets = translationOffsets(grid); // mm, flat x y z
 * ```
 */
export function translationOffsets({
	columns,
	rows,
	positions
}: Pick<NodeGrid, 'columns' | 'rows' | 'positions'>): Float64Array {
	const offsets = new Float64Array(3 * columns * rows);
	const [ofColumn, ofRow] = [new Float64Array(columns), new Float64Array(rows)];
	for (let a = 0; a < 3; a++) {
		ofColumn.fill(0);
		ofRow.fill(0);
		let mean = 0;
		for (let j = 0; j < rows; j++)
			for (let i = 0; i < columns; i++) {
				const at = positions[3 * (j * columns + i) + a]!;
				ofColumn[i]! += at / rows;
				ofRow[j]! += at / columns;
				mean += at / (rows * columns);
			}
		for (let j = 0; j < rows; j++)
			for (let i = 0; i < columns; i++) {
				const node = 3 * (j * columns + i) + a;
				offsets[node] = ofColumn[i]! + ofRow[j]! - mean - positions[node]!;
			}
	}
	return offsets;
}
