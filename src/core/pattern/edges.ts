import type { NodeGrid } from '../grid/set-out';
import type { Cells } from './cells';

export const edgeDirections = ['bay', 'course', 'rising', 'falling'] as const;
export type EdgeDirection = (typeof edgeDirections)[number];

/** Stands for "no cell on this side". */
export const NO_CELL = 0xffffffff;

/**
 * The edges of a pattern, each once, in building order; found by node pairs, never by coordinates.
 * An edge runs upward, or to the right when it lies on a course line.
 */
export interface Edges {
	readonly count: number;
	readonly from: Uint32Array;
	readonly to: Uint32Array;
	/** The cells on its two sides; `right` is NO_CELL on a rim. */
	readonly left: Uint32Array;
	readonly right: Uint32Array;
	/** Index into `edgeDirections`; an edge is on a rim when it has one cell. */
	readonly direction: Uint8Array;
	/** Address of the step at whose lower left it starts, from 1. */
	readonly course: Uint32Array;
	readonly bay: Uint32Array;
}

/** Shortest way round a closed direction. */
function unwrap(step: number, count: number, closed: boolean): number {
	if (!closed) return step;
	if (step > count / 2) return step - count;
	if (step < -count / 2) return step + count;
	return step;
}

/** Every edge of the cells once. */
export function makeEdges(grid: NodeGrid, cells: Cells): Edges {
	const { columns, rows } = grid;
	const half = cells.corners.length;
	const head = new Int32Array(columns * rows).fill(-1);
	const next = new Int32Array(half);
	const low = new Uint32Array(half);
	const high = new Uint32Array(half);
	const first = new Uint32Array(half);
	const second = new Uint32Array(half).fill(NO_CELL);
	let count = 0;
	for (let c = 0; c < cells.count; c++) {
		const start = cells.start[c]!;
		const end = cells.start[c + 1]!;
		for (let k = start; k < end; k++) {
			const p = cells.corners[k]!;
			const q = cells.corners[k + 1 < end ? k + 1 : start]!;
			const a = p < q ? p : q;
			const b = p < q ? q : p;
			let e = head[a]!;
			while (e >= 0 && high[e] !== b) e = next[e]!;
			if (e >= 0) {
				second[e] = c;
				continue;
			}
			low[count] = a;
			high[count] = b;
			first[count] = c;
			next[count] = head[a]!;
			head[a] = count++;
		}
	}
	return inBuildingOrder(grid, count, low, high, first, second);
}

function inBuildingOrder(
	grid: NodeGrid,
	count: number,
	low: Uint32Array,
	high: Uint32Array,
	first: Uint32Array,
	second: Uint32Array
): Edges {
	const { columns, rows, across, up } = grid;
	const pole = new Set(grid.poles);
	const from = new Uint32Array(count);
	const to = new Uint32Array(count);
	const direction = new Uint8Array(count);
	const key = new Float64Array(count);
	for (let e = 0; e < count; e++) {
		let a = low[e]!;
		let b = high[e]!;
		let di = unwrap((b % columns) - (a % columns), columns, across.closed);
		let dj = unwrap(Math.floor(b / columns) - Math.floor(a / columns), rows, up.closed);
		if (dj < 0 || (dj === 0 && di < 0)) {
			[a, b] = [b, a];
			di = -di;
			dj = -dj;
		}
		const rowA = Math.floor(a / columns);
		const rowB = Math.floor(b / columns);
		// A pole node stands for its whole row, so its column says nothing.
		if (pole.has(rowA) || pole.has(rowB)) di = 0;
		from[e] = a;
		to[e] = b;
		direction[e] = dj === 0 ? 1 : di === 0 ? 0 : di > 0 ? 2 : 3;
		const bay = pole.has(rowA) ? b % columns : a % columns;
		key[e] = (rowA * columns + bay) * 4 + direction[e]!;
	}
	// Key and edge in one number, so that the native sort needs no comparison function.
	const packed = key.map((value, e) => value * count + e).sort();
	const order = Uint32Array.from(packed, (value) => value % count);
	const pick = (column: Uint32Array) => order.map((e) => column[e]!);
	return {
		count,
		from: pick(from),
		to: pick(to),
		left: pick(first),
		right: pick(second),
		direction: Uint8Array.from(order, (e) => direction[e]!),
		course: order.map((e) => Math.floor(Math.floor(key[e]! / 4) / columns) + 1),
		bay: order.map((e) => (Math.floor(key[e]! / 4) % columns) + 1)
	};
}

/** How many nodes of the grid the cells use. */
export function countUsedNodes(grid: NodeGrid, cells: Cells): number {
	const used = new Uint8Array(grid.columns * grid.rows);
	for (const node of cells.corners) used[node] = 1;
	return used.reduce((sum, flag) => sum + flag, 0);
}
