import { gather, reckon } from './column';
import { field, type Field, type FieldSource } from './field';

/** Lattice coordinates of nodes, whole on the grid itself. */
type Lattice = Pick<FieldSource['grid'], 'columns' | 'rows' | 'extraI' | 'extraJ'>;
const columnOf = ({ columns, rows, extraI }: Lattice, n: number) =>
	n < columns * rows ? n % columns : extraI[n - columns * rows]!;
const rowOf = ({ columns, rows, extraJ }: Lattice, n: number) =>
	n < columns * rows ? Math.floor(n / columns) : extraJ[n - columns * rows]!;

export const nodeFields: readonly Field[] = [
	field('node', 'height', 'height', 'length', ['grid'], ({ grid }, sites) =>
		gather(sites, grid.positions, 3, 2)
	),
	field('node', 'lines', 'lines that meet there', 'count', ['nodes'], ({ nodes }, sites) => {
		const { start } = nodes();
		return reckon(sites, (n) => start[n + 1]! - start[n]!);
	}),
	field(
		'node',
		'fold',
		'sharpest fold there',
		'angle',
		['edges', 'folds', 'grid'],
		({ edges, folds, grid }, sites) => {
			const sharpest = new Float64Array(grid.positions.length / 3);
			for (let e = 0; e < edges.count; e++)
				for (const n of [edges.from[e]!, edges.to[e]!]) sharpest[n] = Math.max(sharpest[n]!, folds[e]!);
			return gather(sites, sharpest);
		}
	),
	field('node', 'course', 'course', 'count', ['grid'], ({ grid }, sites) =>
		reckon(sites, (n) => Math.floor(rowOf(grid, n)) + 1)
	),
	field('node', 'bay', 'bay', 'count', ['grid'], ({ grid }, sites) =>
		reckon(sites, (n) => Math.floor(columnOf(grid, n)) + 1)
	),
	field('node', 'across', 'share of the way across', 'ratio', ['grid'], ({ grid }, sites) =>
		reckon(sites, (n) => columnOf(grid, n) / Math.max(1, grid.columns - 1))
	),
	field('node', 'up', 'share of the way up', 'ratio', ['grid'], ({ grid }, sites) =>
		reckon(sites, (n) => rowOf(grid, n) / Math.max(1, grid.rows - 1))
	)
];
