import { bayOfNode, courseOfNode, latticeOf, type GridLines } from '../grid/lattice';
import { gather, reckon } from './column';
import { field, type Field } from './field';

/** How far along its direction a node lies, 0 to 1 at the last line; those beyond the seam of a ring come round. */
function shareOf(at: number, lines: number, closed: boolean): number {
	const round = closed ? ((at % lines) + lines) % lines : at;
	return Math.min(1, round / Math.max(1, lines - 1));
}
const across = (grid: GridLines, n: number) =>
	shareOf(latticeOf(grid, n)[0], grid.columns, grid.across.closed);
const up = (grid: GridLines, n: number) => shareOf(latticeOf(grid, n)[1], grid.rows, grid.up.closed);

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
		reckon(sites, (n) => courseOfNode(grid, n))
	),
	field('node', 'bay', 'bay', 'count', ['grid'], ({ grid }, sites) =>
		reckon(sites, (n) => bayOfNode(grid, n))
	),
	field('node', 'across', 'share of the way across', 'ratio', ['grid'], ({ grid }, sites) =>
		reckon(sites, (n) => across(grid, n))
	),
	field('node', 'up', 'share of the way up', 'ratio', ['grid'], ({ grid }, sites) =>
		reckon(sites, (n) => up(grid, n))
	)
];
