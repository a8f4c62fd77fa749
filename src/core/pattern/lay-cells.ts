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
 * A pattern laid over the grid of a face.
 *
 * ```ts
 * const uncut = layPattern(face, grid, zone.pattern, { tiles: project.tiles, guides }, at);
 * ```
 * @param at the zone's path
 * @throws ProblemError
 */
export function layPattern(
	face: Face,
	grid: NodeGrid,
	choice: PatternChoice,
	{ tiles, guides }: PatternMeans,
	at: string
): LaidCells {
	const lattice = new Lattice(grid, face.surface);
	if (choice.kind === 'random splits') return randomSplits(lattice, choice, `${at}/pattern`);
	if (choice.kind === 'voronoi') return voronoiCells(lattice, choice, guides, `${at}/pattern`);
	return layTiles(lattice, patternOf(choice, tiles, `${at}/pattern`), at);
}

/**
 * The cells of a pattern, cut by the trims of their face.
 *
 * ```ts
 * const { cells } = cutToTrims(face, uncut);
 * ```
 * @throws ProblemError when nothing is left
 */
export const cutToTrims = (face: Face, { grid, cells }: LaidCells): LaidCells =>
	face.trims.length ? trimCells(new Lattice(grid, face.surface), cells, face.trims) : { grid, cells };
