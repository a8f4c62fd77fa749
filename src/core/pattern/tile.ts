import { polygonArea, side, type Place } from '../geometry/polygon';
import { FOUND_SHARE, SAME_SHARE } from '../geometry/tolerance';

/**
 * The piece of pattern that repeats: polygons over `across` by `up` grid steps, in lattice steps,
 * counter-clockwise seen from outside, corner 1 first. A polygon may reach beyond the tile, and its corners may
 * lie between the lattice points. Slot n is polygon n, counted from 1.
 */
export interface Tile {
	readonly across: number;
	readonly up: number;
	readonly polygons: readonly (readonly Place[])[];
	/** What each polygon is called, for rules. */
	readonly names: readonly string[];
}

/** A tile, or two of one size between which every step chooses by the diagonal that is shorter. */
export interface Pattern {
	readonly label: string;
	readonly tile: Tile;
	readonly otherwise?: Tile;
}

/** A corner of a polygon, or one of a neighbour that lies on its side. */
export interface OutlinePoint {
	readonly at: Place;
	readonly through: boolean;
}

const known = new WeakMap<Tile, readonly (readonly OutlinePoint[])[]>();

/** The outlines of a tile's polygons with the corners of their neighbours on them. */
export function outlinesOf(tile: Tile): readonly (readonly OutlinePoint[])[] {
	const found = known.get(tile);
	if (found) return found;
	const corners = cornersAround(tile);
	const made = tile.polygons.map((polygon) =>
		polygon.flatMap((a, k): OutlinePoint[] => {
			const b = polygon[(k + 1) % polygon.length]!;
			const size = Math.hypot(b[0] - a[0], b[1] - a[1]);
			const between = corners
				.map((p) => ({
					p,
					share: ((p[0] - a[0]) * (b[0] - a[0]) + (p[1] - a[1]) * (b[1] - a[1])) / size ** 2
				}))
				.filter(
					({ p, share }) =>
						share * size > SAME_SHARE &&
						(1 - share) * size > SAME_SHARE &&
						Math.abs(side(a, b, p)) < SAME_SHARE * size
				)
				.sort((one, other) => one.share - other.share);
			return [{ at: a, through: false }, ...between.map(({ p }) => ({ at: p, through: true }))];
		})
	);
	known.set(tile, made);
	return made;
}

/** All different corners of a tile and of the copies around it, as far as its polygons reach. */
function cornersAround(tile: Tile): Place[] {
	const all = tile.polygons.flat();
	const reach = [0, 1].map((axis) => {
		const size = axis === 0 ? tile.across : tile.up;
		const beyond = all.reduce((most, p) => Math.max(most, -p[axis]!, p[axis]! - size), 0);
		return Math.ceil(beyond / size) + 1;
	}) as [number, number];
	const different = new Map<string, Place>();
	for (let dj = -reach[1]; dj <= reach[1]; dj++)
		for (let di = -reach[0]; di <= reach[0]; di++)
			for (const [x, y] of all) {
				const p: Place = [x + di * tile.across, y + dj * tile.up];
				different.set(p.map((t) => Math.round(t / FOUND_SHARE)).join(' '), p);
			}
	return [...different.values()];
}

/**
 * Whether the cells of a tile have their corners on nodes of the grid wherever its border cuts them, so that
 * they hang on counts alone.
 */
export function isOnLattice(tile: Tile): boolean {
	const whole = (t: number) => Math.abs(t - Math.round(t)) < SAME_SHARE;
	return tile.polygons.every((polygon) =>
		polygon.every((p, k) => {
			const q = polygon[(k + 1) % polygon.length]!;
			const [dx, dy] = [Math.abs(q[0] - p[0]), Math.abs(q[1] - p[1])];
			return p.every(whole) && (dx < 2 || dy % dx === 0) && (dy < 2 || dx % dy === 0);
		})
	);
}

/**
 * The tile whose polygons join the middles of those around every corner, so that corners and polygons change
 * places.
 */
export function dualOf(tile: Tile, name: string): Tile {
	const middle = (polygon: readonly Place[]): Place => [
		polygon.reduce((sum, p) => sum + p[0], 0) / polygon.length,
		polygon.reduce((sum, p) => sum + p[1], 0) / polygon.length
	];
	const copies = [-1, 0, 1].flatMap((dj) =>
		[-1, 0, 1].flatMap((di) =>
			tile.polygons.map((polygon) => polygon.map(([x, y]): Place => [x + di * tile.across, y + dj * tile.up]))
		)
	);
	const inTile = new Map<string, Place>();
	for (const [x, y] of tile.polygons.flat()) {
		const wrapped: Place = [
			x - Math.floor(x / tile.across + SAME_SHARE) * tile.across,
			y - Math.floor(y / tile.up + SAME_SHARE) * tile.up
		];
		inTile.set(wrapped.map((t) => Math.round(t / FOUND_SHARE)).join(' '), wrapped);
	}
	const polygons = [...inTile.values()].map((corner) => {
		const around = copies
			.filter((polygon) => polygon.some((p) => Math.hypot(p[0] - corner[0], p[1] - corner[1]) < FOUND_SHARE))
			.map(middle)
			.sort(
				(a, b) =>
					Math.atan2(a[1] - corner[1], a[0] - corner[0]) - Math.atan2(b[1] - corner[1], b[0] - corner[0])
			);
		return polygonArea(around) < 0 ? around.reverse() : around;
	});
	return { across: tile.across, up: tile.up, polygons, names: polygons.map(() => name) };
}
