import { rounded } from '$core/units/quantity';
import { patternOf } from '$core/pattern/catalogue';
import type { PatternChoice, TileDefinition } from '$core/project/pattern-schema';
import { freshId } from './fresh-id';

/** A tile to go on drawing from: the one behind a pattern, or a plain rectangle. */
export function newTile(pattern: PatternChoice, tiles: readonly TileDefinition[]): TileDefinition {
	const id = freshId('tile', tiles);
	const name = `Tile ${tiles.length + 1}`;
	if (pattern.kind !== 'random splits' && pattern.kind !== 'voronoi')
		try {
			const { tile } = patternOf(pattern, tiles);
			return {
				id,
				name,
				across: tile.across,
				up: tile.up,
				polygons: tile.polygons.map((points, k) => ({
					slot: tile.names[k]!,
					points: points.map(([x, y]): [number, number] => [rounded(x, 6), rounded(y, 6)])
				}))
			};
		} catch {
			// A pattern with impossible values: start from a rectangle.
		}
	return {
		id,
		name,
		across: 1,
		up: 1,
		polygons: [
			{
				slot: 'cell',
				points: [
					[0, 0],
					[1, 0],
					[1, 1],
					[0, 1]
				]
			}
		]
	};
}
