import type { Lattice } from '../grid/lattice';
import type { NodeGrid, Spread } from '../grid/node-grid';
import { refuse } from '../units/problem';
import { CellMaker, extentOf } from './cell-maker';
import type { Cells } from './cells';
import { ExtraNodes } from './extra-nodes';
import { outlinesOf, type Pattern, type Tile } from './tile';
import { ROUNDED } from '../geometry/tolerance';

/** A grid and the cells on it; patterns and trims may add nodes to the grid. */
export interface LaidCells {
	readonly grid: NodeGrid;
	readonly cells: Cells;
}

/** A closed direction only takes whole tiles. */
function checkRing(
	spread: Spread,
	step: number,
	pattern: Pattern,
	at: string,
	direction: 'across' | 'up'
): void {
	if (!spread.closed || spread.steps % step === 0) return;
	const what = direction === 'across' ? 'bays' : 'courses';
	const below = Math.max(step * Math.ceil(3 / step), spread.steps - (spread.steps % step));
	const above = below + step;
	refuse(
		`${at}/pattern`,
		`${pattern.label} on a closed ring need a count of ${what} that divides by ${step}; ${spread.steps} does not. ${below} and ${above} do`,
		[below, above].map((count) => ({
			label: `${count} ${what}`,
			path: `${at}/settingOut/${direction}`,
			value: { by: 'count', count }
		}))
	);
}

/** Whether the rising diagonal of a step is longer than the falling one. */
function fallingIsShorter(grid: NodeGrid, i: number, j: number): boolean {
	const { columns, rows, positions } = grid;
	const node = (a: number, b: number) => 3 * ((b % rows) * columns + (a % columns));
	const gap = (p: number, q: number) =>
		Math.hypot(
			positions[p]! - positions[q]!,
			positions[p + 1]! - positions[q + 1]!,
			positions[p + 2]! - positions[q + 2]!
		);
	return gap(node(i + 1, j), node(i, j + 1)) < gap(node(i, j), node(i + 1, j + 1)) - ROUNDED;
}

/** Which repeats of the tile can touch the grid in one direction. */
function repeats(spread: Spread, size: number, least: number, most: number): { from: number; to: number } {
	if (spread.closed) return { from: 0, to: spread.steps / size };
	return { from: -Math.ceil(most / size), to: Math.ceil((spread.steps - least) / size) };
}

/**
 * Lay a pattern over a grid. At an open border polygons are cut to the grid and become edge cells; rings wrap.
 * @param at the zone's path
 * @throws ProblemError when a ring does not take whole tiles
 */
export function layTiles(lattice: Lattice, pattern: Pattern, at: string): LaidCells {
	const { grid } = lattice;
	const { across, up } = grid;
	const { tile, otherwise } = pattern;
	checkRing(across, tile.across, pattern, at, 'across');
	checkRing(up, tile.up, pattern, at, 'up');
	const extra = new ExtraNodes(lattice);
	const maker = new CellMaker(grid, tile.polygons.length, extra, false, true);
	const prepared = (one: Tile) => outlinesOf(one).map((points) => ({ points, extent: extentOf(points) }));
	const own = prepared(tile);
	const other = otherwise ? prepared(otherwise) : null;
	own.forEach(({ extent }, slot) => {
		const overI = repeats(across, tile.across, extent.left, extent.right);
		const overJ = repeats(up, tile.up, extent.foot, extent.head);
		for (let tj = overJ.from; tj < overJ.to; tj++)
			for (let ti = overI.from; ti < overI.to; ti++) {
				const i = ti * tile.across;
				const j = tj * tile.up;
				const from = other && fallingIsShorter(grid, i, j) ? other : own;
				maker.put(from[slot]!.points, from[slot]!.extent, i, j, slot);
			}
	});
	const cells = maker.cells();
	return { grid: extra.joined(), cells };
}
