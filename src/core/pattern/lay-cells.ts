import { Lattice } from '../grid/lattice';
import type { NodeGrid } from '../grid/node-grid';
import type { Vector } from '../geometry/vector';
import type { Face } from '../mass/face';
import type { PatternChoice, TileDefinition } from '../project/pattern-schema';
import { patternOf } from './catalogue';
import { layTiles, type LaidCells } from './lay-tiles';
import { randomSplits } from './scatter/random-splits';
import { voronoiCells } from './scatter/voronoi';
import { isOnLattice, type Pattern } from './tile';
import { trimCells } from './trim-cells';

/** What a pattern may hang on beside the grid. */
export interface PatternMeans {
	readonly tiles: readonly TileDefinition[];
	readonly guides: ReadonlyMap<string, readonly Vector[]>;
}

/**
 * Guides that a pattern's cells keep away from, or come near to.
 *
 * ```ts
 * guidesOfPattern({ kind: 'rectangles' }); // none
 * ```
 */
export const guidesOfPattern = (choice: PatternChoice): string[] =>
	choice.kind === 'voronoi' && choice.near ? [choice.near.guide] : [];

const isScattered = (choice: PatternChoice) => choice.kind === 'random splits' || choice.kind === 'voronoi';

function tiled(choice: PatternChoice, tiles: readonly TileDefinition[], at: string): Pattern | null {
	return choice.kind === 'random splits' || choice.kind === 'voronoi'
		? null
		: patternOf(choice, tiles, `${at}/pattern`);
}

/**
 * Names of a pattern's slots, each once.
 *
 * ```ts
 * const slots = slotNames({ kind: 'basket weave' }, [], at);
 * ```
 * @throws ProblemError when the pattern cannot be
 */
export function slotNames(choice: PatternChoice, tiles: readonly TileDefinition[], at: string): string[] {
	const pattern = tiled(choice, tiles, at);
	return pattern ? [...pattern.tile.names] : ['cell'];
}

/**
 * Whether the cells of a face hang on places and lengths rather than on counts alone.
 *
 * ```ts
 * if (hangsOnPlaces(face, zone.pattern, project.tiles, at)) tell('cells are trimmed');
 * ```
 */
export function hangsOnPlaces(
	face: Face,
	choice: PatternChoice,
	tiles: readonly TileDefinition[],
	at: string
): boolean {
	if (face.trims.length || isScattered(choice)) return true;
	const pattern = tiled(choice, tiles, at)!;
	return pattern.otherwise !== undefined || !isOnLattice(pattern.tile);
}

/**
 * The cells of a face: its pattern laid over its grid, cut by its trims.
 *
 * ```ts
 * const { cells } = layCells(face, grid, zone.pattern, { tiles: project.tiles, guides }, at);
 * ```
 * @param at the zone's path
 * @throws ProblemError
 */
export function layCells(
	face: Face,
	grid: NodeGrid,
	choice: PatternChoice,
	{ tiles, guides }: PatternMeans,
	at: string
): LaidCells {
	const lattice = new Lattice(grid, face.surface);
	const lay = () => {
		if (choice.kind === 'random splits') return randomSplits(lattice, choice, `${at}/pattern`);
		if (choice.kind === 'voronoi') return voronoiCells(lattice, choice, guides, `${at}/pattern`);
		return layTiles(lattice, patternOf(choice, tiles, `${at}/pattern`), at);
	};
	const laid = lay();
	if (!face.trims.length) return laid;
	return trimCells(new Lattice(laid.grid, face.surface), laid.cells, face.trims);
}
