import type { PatternChoice } from '../project/schema';

/** A place on the lattice of grid steps. */
export type LatticePoint = readonly [across: number, up: number];

/**
 * The piece of pattern that repeats: polygons over `across` by `up` grid steps, as lattice points,
 * counter-clockwise seen from outside, corner 1 first. A polygon may reach beyond the tile.
 * Slot n is polygon n, counted from 1.
 */
export interface Tile {
	readonly across: number;
	readonly up: number;
	readonly polygons: readonly (readonly LatticePoint[])[];
}

/** A tile, or two of one size between which every step chooses by the diagonal that is shorter. */
export interface Pattern {
	readonly label: string;
	readonly tile: Tile;
	readonly otherwise?: Tile;
}

const rectangles: Tile = {
	across: 1,
	up: 1,
	polygons: [
		[
			[0, 0],
			[1, 0],
			[1, 1],
			[0, 1]
		]
	]
};

const rising: Tile = {
	across: 1,
	up: 1,
	polygons: [
		[
			[0, 0],
			[1, 0],
			[1, 1]
		],
		[
			[0, 0],
			[1, 1],
			[0, 1]
		]
	]
};

const falling: Tile = {
	across: 1,
	up: 1,
	polygons: [
		[
			[0, 0],
			[1, 0],
			[0, 1]
		],
		[
			[1, 0],
			[1, 1],
			[0, 1]
		]
	]
};

const moved = (tile: Tile, across: number, up: number) =>
	tile.polygons.map((polygon) => polygon.map(([i, j]): LatticePoint => [i + across, j + up]));

const alternating: Tile = {
	across: 2,
	up: 2,
	polygons: [...moved(rising, 0, 0), ...moved(falling, 1, 0), ...moved(falling, 0, 1), ...moved(rising, 1, 1)]
};

/** Corner 1 is the lowest. A diamond is two bays wide and two courses high. */
const diamonds: Tile = {
	across: 2,
	up: 2,
	polygons: [
		[
			[1, -1],
			[2, 0],
			[1, 1],
			[0, 0]
		],
		[
			[0, 0],
			[1, 1],
			[0, 2],
			[-1, 1]
		]
	]
};

/** The tile data behind a choice of pattern. */
export function patternOf(choice: PatternChoice): Pattern {
	if (choice.kind === 'rectangles') return { label: 'rectangles', tile: rectangles };
	if (choice.kind === 'diamonds') return { label: 'diamonds', tile: diamonds };
	const label = `triangles, ${choice.diagonal}`;
	switch (choice.diagonal) {
		case 'rising':
			return { label, tile: rising };
		case 'falling':
			return { label, tile: falling };
		case 'alternating':
			return { label, tile: alternating };
		case 'shorter':
			return { label, tile: rising, otherwise: falling };
	}
}
