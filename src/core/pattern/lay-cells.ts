import { Lattice } from '../grid/lattice';
import type { NodeGrid } from '../grid/node-grid';
import type { Vector } from '../geometry/vector';
import type { Face } from '../mass/face';
import type { PatternChoice, TileDefinition } from '../project/pattern-schema';
import { patternOf } from './catalogue';
import { layTiles, type LaidCells } from './lay-tiles';
import { randomSplits } from './scatter/random-splits';
import { piercedSheets } from './scatter/sheets';
import { scatteredCells, scatteredShapes, type SizesOfCells } from './scatter/voronoi';
import { isOnLattice, type Pattern } from './tile';

/** What a pattern may hang on beside the grid. */
export interface PatternMeans {
	readonly tiles: readonly TileDefinition[];
	readonly guides: ReadonlyMap<string, readonly Vector[]>;
	/** What scattered cells are to be of their own size, where that follows something. */
	readonly sizesOn: SizesOfCells | null;
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
	if (pattern) return [...pattern.tile.names];
	return choice.kind === 'voronoi' && choice.sheet ? ['cell', 'sheet'] : ['cell'];
}

/**
 * Whether the cells of a pattern, before trims cut them, hang on places and lengths rather than on counts alone.
 *
 * ```ts
 * if (hangsOnPlaces(zone.pattern, project.tiles, at)) tell('cells are laid anew with every form');
 * ```
 */
export function hangsOnPlaces(choice: PatternChoice, tiles: readonly TileDefinition[], at: string): boolean {
	if (isScattered(choice)) return true;
	const pattern = tiled(choice, tiles, at)!;
	return pattern.otherwise !== undefined || !isOnLattice(pattern.tile);
}

/**
 * A pattern laid over the grid of a face. Sheets between scattered cells are cut by its trims; nothing else is yet.
 *
 * ```ts
 * const uncut = layPattern(face, grid, zone.pattern, { tiles: project.tiles, guides, sizesOn: null }, at);
 * ```
 * @param at the zone's path
 * @throws ProblemError
 */
export function layPattern(
	face: Face,
	grid: NodeGrid,
	choice: PatternChoice,
	{ tiles, guides, sizesOn }: PatternMeans,
	at: string
): LaidCells {
	const lattice = new Lattice(grid, face.surface);
	if (choice.kind === 'random splits') return randomSplits(lattice, choice, `${at}/pattern`);
	if (choice.kind === 'voronoi') {
		const scattered = scatteredShapes(lattice, choice, guides, sizesOn, `${at}/pattern`);
		if (!choice.sheet) return scatteredCells(lattice, scattered);
		return piercedSheets(face, grid, choice, choice.sheet, scattered, `${at}/pattern`);
	}
	return layTiles(lattice, patternOf(choice, tiles, `${at}/pattern`), at);
}
