import type { NodeGrid, Spread } from '../grid/node-grid';
import { refuse } from '../units/problem';
import type { LatticePoint, Pattern, Tile } from './tile';

export const cellKinds = ['whole', 'edge', 'cut'] as const;
export type CellKind = (typeof cellKinds)[number];

/**
 * The cells of a face in building order: course by course from the foot, bay by bay from the left.
 * Corners are node indices of the grid, counter-clockwise seen from outside.
 */
export interface Cells {
	readonly count: number;
	/** Corners of cell c: corners[start[c] .. start[c + 1]). */
	readonly start: Uint32Array;
	readonly corners: Uint32Array;
	/** Index into `cellKinds`. */
	readonly kind: Uint8Array;
	/** Address within the face, each counted from 1. */
	readonly course: Uint32Array;
	readonly bay: Uint32Array;
	readonly slot: Uint8Array;
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

/** Clip a lattice polygon to lo <= coordinate <= hi (Sutherland-Hodgman, one axis). */
function clipAxis(
	polygon: readonly LatticePoint[],
	axis: 0 | 1,
	lo: number,
	hi: number
): readonly LatticePoint[] {
	let result = polygon;
	for (const [bound, sign] of [
		[lo, 1],
		[hi, -1]
	] as const) {
		const inside = (p: LatticePoint) => sign * (p[axis] - bound) >= 0;
		const next: LatticePoint[] = [];
		result.forEach((p, k) => {
			const q = result[(k + 1) % result.length]!;
			if (inside(p)) next.push(p);
			if (inside(p) !== inside(q)) {
				const t = (bound - p[axis]) / (q[axis] - p[axis]);
				next.push([p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])]);
			}
		});
		result = next;
	}
	return result.filter((p, k) => {
		const before = result[(k + result.length - 1) % result.length]!;
		return p[0] !== before[0] || p[1] !== before[1];
	});
}

function latticeArea(polygon: readonly LatticePoint[]): number {
	return (
		polygon.reduce((sum, p, k) => {
			const q = polygon[(k + 1) % polygon.length]!;
			return sum + p[0] * q[1] - q[0] * p[1];
		}, 0) / 2
	);
}

/** An edge cell's corner 1: the lowest corner, the left one of two. */
function fromLowest(polygon: readonly LatticePoint[]): readonly LatticePoint[] {
	let lowest = 0;
	polygon.forEach((p, k) => {
		const q = polygon[lowest]!;
		if (p[1] < q[1] || (p[1] === q[1] && p[0] < q[0])) lowest = k;
	});
	return [...polygon.slice(lowest), ...polygon.slice(0, lowest)];
}

/** Collects cells in the order they are made; `inBuildingOrder` sorts them. */
class CellBuilder {
	readonly start: number[] = [0];
	readonly corners: number[] = [];
	readonly kind: number[] = [];
	readonly course: number[] = [];
	readonly bay: number[] = [];
	readonly slot: number[] = [];
	private readonly poleRow: Uint8Array;

	constructor(private readonly grid: NodeGrid) {
		this.poleRow = new Uint8Array(grid.rows);
		for (const row of grid.poles) this.poleRow[row] = 1;
	}

	private node(i: number, j: number): number {
		const { columns, rows } = this.grid;
		const column = ((i % columns) + columns) % columns;
		const row = ((j % rows) + rows) % rows;
		return this.poleRow[row] ? row * columns : row * columns + column;
	}

	/** Take a lattice polygon as a cell; corners that fall together at a pole are dropped. */
	add(
		polygon: readonly LatticePoint[],
		i: number,
		j: number,
		kind: number,
		homeI: number,
		homeJ: number,
		slot: number
	): void {
		const { corners } = this;
		const first = corners.length;
		const { absent } = this.grid;
		for (const [di, dj] of polygon) {
			const node = this.node(i + di, j + dj);
			if (absent?.[node] === 2) {
				corners.length = first;
				return;
			}
			if (absent?.[node]) continue;
			if (corners.length === first || (corners.at(-1) !== node && corners[first] !== node))
				corners.push(node);
		}
		if (corners.length - first < 3) {
			corners.length = first;
			return;
		}
		this.start.push(corners.length);
		this.kind.push(corners.length - first < polygon.length ? 1 : kind);
		this.course.push(homeJ + 1);
		this.bay.push(homeI + 1);
		this.slot.push(slot + 1);
	}

	/** Bucket the cells by step; the order within a step (by slot) is kept. */
	inBuildingOrder(): Cells {
		const { across, up } = this.grid;
		const count = this.kind.length;
		const bucket = new Uint32Array(across.steps * up.steps + 1);
		const stepOf = (c: number) => (this.course[c]! - 1) * across.steps + this.bay[c]! - 1;
		for (let c = 0; c < count; c++) bucket[stepOf(c) + 1]!++;
		for (let k = 1; k < bucket.length; k++) bucket[k]! += bucket[k - 1]!;
		const order = new Uint32Array(count);
		for (let c = 0; c < count; c++) order[bucket[stepOf(c)]!++] = c;
		const cells = {
			count,
			start: new Uint32Array(count + 1),
			corners: new Uint32Array(this.corners.length),
			kind: new Uint8Array(count),
			course: new Uint32Array(count),
			bay: new Uint32Array(count),
			slot: new Uint8Array(count)
		};
		let at = 0;
		for (let n = 0; n < count; n++) {
			const c = order[n]!;
			for (let k = this.start[c]!; k < this.start[c + 1]!; k++) cells.corners[at++] = this.corners[k]!;
			cells.start[n + 1] = at;
			cells.kind[n] = this.kind[c]!;
			cells.course[n] = this.course[c]!;
			cells.bay[n] = this.bay[c]!;
			cells.slot[n] = this.slot[c]!;
		}
		return cells;
	}
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
	return gap(node(i + 1, j), node(i, j + 1)) < gap(node(i, j), node(i + 1, j + 1)) - 1e-9;
}

interface Stretch {
	readonly from: number;
	readonly to: number;
}

/** Which repeats of the tile can touch the grid in one direction. */
function repeats(spread: Spread, size: number, least: number, most: number): Stretch {
	if (spread.closed) return { from: 0, to: spread.steps / size };
	return { from: -Math.ceil(most / size), to: Math.ceil((spread.steps - least) / size) };
}

function clampStep(centre: number, spread: Spread): number {
	const step = Math.ceil(centre - 1e-9) - 1;
	if (spread.closed) return ((step % spread.steps) + spread.steps) % spread.steps;
	return Math.min(spread.steps - 1, Math.max(0, step));
}

/**
 * Lay a pattern over a grid. At an open border polygons are cut to the grid and become edge cells; rings wrap.
 * @param at the zone's path
 * @throws ProblemError when a ring does not take whole tiles
 */
export function makeCells(grid: NodeGrid, pattern: Pattern, at: string): Cells {
	const { across, up } = grid;
	const { tile, otherwise } = pattern;
	checkRing(across, tile.across, pattern, at, 'across');
	checkRing(up, tile.up, pattern, at, 'up');
	const builder = new CellBuilder(grid);
	const polygonOf = (slot: number, i: number, j: number) =>
		(otherwise && fallingIsShorter(grid, i, j) ? otherwise : tile).polygons[slot]!;

	for (let slot = 0; slot < tile.polygons.length; slot++) {
		const { left, right, foot, head, centreI, centreJ } = extent(tile, slot);
		const overI = repeats(across, tile.across, left, right);
		const overJ = repeats(up, tile.up, foot, head);
		for (let tj = overJ.from; tj < overJ.to; tj++)
			for (let ti = overI.from; ti < overI.to; ti++) {
				const i = ti * tile.across;
				const j = tj * tile.up;
				const homeI = clampStep(i + centreI, across);
				const homeJ = clampStep(j + centreJ, up);
				const insideI = across.closed || (i + left >= 0 && i + right <= across.steps);
				const insideJ = up.closed || (j + foot >= 0 && j + head <= up.steps);
				if (insideI && insideJ) {
					builder.add(polygonOf(slot, i, j), i, j, 0, homeI, homeJ, slot);
					continue;
				}
				let clipped = tile.polygons[slot]!;
				if (!insideI) clipped = clipAxis(clipped, 0, -i, across.steps - i);
				if (!insideJ) clipped = clipAxis(clipped, 1, -j, up.steps - j);
				if (clipped.length < 3 || latticeArea(clipped) < 1e-9) continue;
				builder.add(fromLowest(clipped), i, j, 1, homeI, homeJ, slot);
			}
	}
	return builder.inBuildingOrder();
}

function extent(tile: Tile, slot: number) {
	const polygon = tile.polygons[slot]!;
	const i = polygon.map((p) => p[0]);
	const j = polygon.map((p) => p[1]);
	const mean = (values: readonly number[]) => values.reduce((a, b) => a + b, 0) / values.length;
	return {
		left: Math.min(...i),
		right: Math.max(...i),
		foot: Math.min(...j),
		head: Math.max(...j),
		centreI: mean(i),
		centreJ: mean(j)
	};
}
