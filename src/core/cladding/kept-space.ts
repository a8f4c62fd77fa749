import { fillLoops } from '../geometry/triangulate';
import { isWithin, type Place } from '../geometry/polygon';
import { SAME_STEP } from '../geometry/tolerance';
import { add, cross, dot, length, pointAt, scale, subtract, unit, type Vector } from '../geometry/vector';
import { sweptRing } from '../geometry/solid/swept';
import type { ClosedMesh } from '../geometry/solid/library';
import type { NodeGrid } from '../grid/node-grid';
import { uncutCells, type Cells } from '../pattern/cells';
import { placesOf } from '../pattern/trim-cells';

/**
 * What trims leave of the space that the part of a cell may stand in: their curves swept along the face's normals
 * where they run through the cell, and open to all sides beyond its other edges, over which parts may reach.
 */
export interface KeptSpace {
	/** The mean of the whole cell's corners (mm), and the frame that it is looked at in: its third axis is outward. */
	readonly middle: Vector;
	readonly axes: readonly [Vector, Vector, Vector];
	/** Of the cell as it is left, counter-clockwise seen from outside. */
	readonly ring: readonly Corner[];
}

interface Corner {
	readonly point: Vector;
	/** The face's normal there. */
	readonly way: Vector;
	/** Whether a side of the whole cell leads on from it, and none of a trim. */
	readonly open: boolean;
}

/** How far what stands in a space reaches (mm): over its open sides, seen from outside; behind its middle and before it. */
export interface Reach {
	readonly aside: number;
	readonly behind: number;
	readonly before: number;
}

/** A line seen from outside: a place x y lies `x * across + y * up - from` beyond it. */
interface Line {
	readonly across: number;
	readonly up: number;
	readonly from: number;
}

/**
 * The sides of a space that no trim cuts, in its frame.
 *
 * ```ts
 * const [first] = openSidesOf(keptSpace(faceModel.grid, faceModel.cells, 4));
 * ```
 */
export function openSidesOf({ middle, axes, ring }: KeptSpace): Line[] {
	const places = ring.map(({ point }): Place => {
		const off = subtract(point, middle);
		return [dot(off, axes[0]), dot(off, axes[1])];
	});
	return ring.flatMap(({ open }, k): Line[] => {
		const [a, b] = [places[k]!, places[(k + 1) % places.length]!];
		const size = Math.hypot(b[0] - a[0], b[1] - a[1]);
		if (!open || !(size > 0)) return [];
		const [across, up] = [(b[1] - a[1]) / size, (a[0] - b[0]) / size];
		return [{ across, up, from: a[0] * across + a[1] * up }];
	});
}

/** Whether a place lies on the straight line between two others. */
function isOn([x, y]: Place, a: Place, b: Place): boolean {
	const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
	const size = dx * dx + dy * dy;
	const t = size > 0 ? Math.min(1, Math.max(0, ((x - a[0]) * dx + (y - a[1]) * dy) / size)) : 0;
	return Math.hypot(x - a[0] - t * dx, y - a[1] - t * dy) < 10 * SAME_STEP;
}

/** How far sides may lean (sine): what crosses one more slantingly goes on straight across it. */
const LEAST_SLANT = 0.2;

/**
 * What trims leave of the space of a cut cell.
 *
 * ```ts
 * const space = keptSpace(faceModel.grid, faceModel.cells, 4);
 * ```
 */
export function keptSpace(grid: NodeGrid, cells: Cells, c: number): KeptSpace {
	const before = uncutCells(cells);
	const whole = before.corners.subarray(before.start[c]!, before.start[c + 1]!);
	const left = cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!);
	const sides = placesOf(grid, cells, c, whole);
	const places = placesOf(grid, cells, c, left);
	/** The sides of the whole cell that a corner lies on. */
	const on = places.map((place) =>
		sides.flatMap((a, k) => (isOn(place, a, sides[(k + 1) % sides.length]!) ? [k] : []))
	);
	const corners = Array.from(whole, (node) => pointAt(grid.positions, node));
	const middle = scale(
		corners.reduce((sum, p) => add(sum, p)),
		1 / corners.length
	);
	const out = unit(
		corners.reduce<Vector>(
			(sum, p, k) =>
				add(sum, cross(subtract(p, middle), subtract(corners[(k + 1) % corners.length]!, middle))),
			[0, 0, 0]
		)
	);
	const across = unit(cross(subtract(corners[1]!, corners[0]!), out));
	const ring = Array.from(left, (node, k): Corner => {
		const next = on[(k + 1) % on.length]!;
		const way = pointAt(grid.normals, node);
		return {
			point: pointAt(grid.positions, node),
			// At a pole a face has no normal of its own.
			way: dot(way, out) > LEAST_SLANT ? way : out,
			open: on[k]!.some((side) => next.includes(side))
		};
	});
	return { middle, axes: [across, cross(out, across), out], ring };
}

/** The ring moved out over its open sides, so far that nothing reaches beyond, and which of its sides cut. */
function openedRing({ ring }: KeptSpace, aside: number) {
	const n = ring.length;
	const at = (k: number) => ring[(k + n) % n]!;
	const along = ring.map(({ point }, k) => unit(subtract(at(k + 1).point, point)));
	const outward = ring.map(({ way }, k) => unit(cross(along[k]!, way)));
	/** Whether two open sides meet at a corner so sharply that nothing near leads over both. */
	const isSharp = (corner: number) => {
		const [o, p] = [outward[corner]!, outward[(corner - 1 + n) % n]!];
		return dot(add(o, p), o) <= LEAST_SLANT;
	};
	/** From a corner over the open side k: along what cuts it, or, between two open sides, over both. */
	const over = (k: number, corner: number): Vector => {
		const other = corner === k ? corner - 1 : corner;
		const [o, p] = [outward[k]!, outward[(other + n) % n]!];
		if (at(other).open) {
			const both = add(o, p);
			return isSharp(corner) ? scale(o, aside) : scale(both, aside / dot(both, o));
		}
		const straight = scale(along[(other + n) % n]!, corner === k ? 1 : -1);
		const across = dot(straight, o);
		return across > LEAST_SLANT ? scale(straight, aside / across) : scale(o, aside);
	};
	/** Of each open side, how much of that its corners can take without passing each other. */
	const shares = ring.map(({ point, open }, k) => {
		if (!open) return 1;
		const [a, b] = [over(k, k), over(k, (k + 1) % n)];
		const wide = length(subtract(at(k + 1).point, point));
		const grown = dot(subtract(b, a), along[k]!);
		return wide + grown < 0 ? (0.99 * wide) / -grown : 1;
	});
	// Those on both sides of a corner that is moved over both take as much.
	for (let round = 0, changed = true; changed && round < n; round++) {
		changed = false;
		for (let k = 0; k < n; k++) {
			const last = (k - 1 + n) % n;
			if (!at(k).open || !at(last).open || isSharp(k) || shares[k] === shares[last]) continue;
			shares[k] = shares[last] = Math.min(shares[k]!, shares[last]!);
			changed = true;
		}
	}
	const opened: (Corner & { readonly cuts: boolean })[] = [];
	ring.forEach((corner, k) => {
		const before = at(k - 1).open;
		const last = (k - 1 + n) % n;
		const moved = (side: number, share: number, cuts: boolean) =>
			opened.push({ ...corner, point: add(corner.point, scale(over(side, k), share)), cuts });
		if (before && (!corner.open || isSharp(k))) moved(last, shares[last]!, !corner.open);
		if (!before || !corner.open) opened.push({ ...corner, cuts: true });
		if (corner.open) moved(k, shares[k]!, false);
	});
	return opened;
}

/** The box that one side of a space that cuts lies in, in its frame across and up. */
interface CuttingSide {
	readonly low: Place;
	readonly high: Place;
}

/** A space as far as something in it reaches. */
export interface SpaceWithin {
	/** Null where its outline crosses itself: chords of a bent face may, where a trim runs near to them. */
	readonly mesh: ClosedMesh | null;
	/** How far it is swept behind and before (mm). */
	readonly swept: readonly [behind: number, before: number];
	readonly sides: readonly CuttingSide[];
	/** Seen from outside, in its frame. */
	readonly outline: readonly Place[];
}

/**
 * @returns null where no trim cuts the cell: all of its space is left
 *
 * ```ts
 * const body = spaceWithin(keptSpace(faceModel.grid, faceModel.cells, 4), { aside: 2000, behind: 300, before: 50 });
 * ```
 */
export function spaceWithin(space: KeptSpace, { aside, behind, before }: Reach): SpaceWithin | null {
	if (space.ring.every(({ open }) => open)) return null;
	const { middle, axes } = space;
	// The more it leans behind and before, the further over its sides it reaches there.
	const slope = space.ring.reduce((most, { way }) => {
		const out = Math.max(LEAST_SLANT, dot(way, axes[2]));
		return Math.max(most, Math.sqrt(Math.max(0, 1 - out * out)) / out);
	}, 0);
	const ring = openedRing(space, aside + slope * Math.max(behind, before) + 1);
	const seen = (point: Vector): Place => {
		const off = subtract(point, middle);
		return [dot(off, axes[0]), dot(off, axes[1])];
	};
	// Swept so far that even where the face leans most everything lies between.
	let [lean, off] = [1, 0];
	for (const { point, way } of ring) {
		lean = Math.min(lean, Math.max(LEAST_SLANT, dot(way, axes[2])));
		off = Math.max(off, Math.abs(dot(subtract(point, middle), axes[2])));
	}
	const [down, up] = [(behind + off + 1) / lean, (before + off + 1) / lean];
	const outline = ring.map(({ point }) => seen(point));
	const filling = fillLoops(Float64Array.from(outline.flat()), []);
	const mesh =
		filling &&
		sweptRing(
			ring.map(({ point }) => point),
			ring.map(({ way }) => way),
			filling,
			down,
			up
		);
	const sides = ring.flatMap(({ cuts }, k): CuttingSide[] => {
		if (!cuts) return [];
		const ends = [ring[k]!, ring[(k + 1) % ring.length]!];
		const places = ends.flatMap(({ point, way }) =>
			[-down, up].map((by) => seen(add(point, scale(way, by))))
		);
		const xs = places.map(([x]) => x);
		const ys = places.map(([, y]) => y);
		return [{ low: [Math.min(...xs), Math.min(...ys)], high: [Math.max(...xs), Math.max(...ys)] }];
	});
	return { mesh, swept: [down, up], sides, outline };
}

/** Where something with a box stands, seen from outside: in a space, beside it, or a side of it may cut it. */
export function standing(
	{ sides, outline }: SpaceWithin,
	low: Place,
	high: Place
): 'within' | 'beside' | 'crossed' {
	const isNear = ({ low: l, high: h }: CuttingSide) =>
		l[0] <= high[0] && h[0] >= low[0] && l[1] <= high[1] && h[1] >= low[1];
	if (sides.some(isNear)) return 'crossed';
	return isWithin(outline, [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2]) ? 'within' : 'beside';
}
