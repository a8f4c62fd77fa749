import { latticeOf } from '../grid/lattice';
import type { NodeGrid } from '../grid/node-grid';
import { outlineOf, type Cells } from './cells';
import { SAME_SHARE } from '../geometry/tolerance';

export const edgeDirections = ['bay', 'course', 'rising', 'falling', 'trim'] as const;
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
	/** Counts the edges of one direction that start in one step, from 0; more than one are made by trims. */
	readonly ordinal: Uint8Array;
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

const DIRECTIONS = edgeDirections.length;

/** An edge with one cell that does not lie on the grid's own rim runs along a trim. */
function isOnTrim(grid: NodeGrid, a: number, b: number, second: number): boolean {
	if (grid.extraI.length === 0 || second !== NO_CELL) return false;
	const [[iA, jA], [iB, jB]] = [latticeOf(grid, a), latticeOf(grid, b)];
	const both = (p: number, q: number, line: number) =>
		Math.abs(p - line) < SAME_SHARE && Math.abs(q - line) < SAME_SHARE;
	const { across, up } = grid;
	const side = !across.closed && (both(iA, iB, 0) || both(iA, iB, across.steps));
	const end = !up.closed && (both(jA, jB, 0) || both(jA, jB, up.steps));
	return !side && !end;
}

/**
 * Every edge of the cells once.
 *
 * ```ts
 * const { count } = makeEdges(grid, cells);
 * ```
 */
export function makeEdges(grid: NodeGrid, cells: Cells): Edges {
	const { columns, rows } = grid;
	const rings = outlineOf(cells);
	const half = rings.nodes.length;
	const head = new Int32Array(columns * rows + grid.extraI.length).fill(-1);
	const next = new Int32Array(half);
	const low = new Uint32Array(half);
	const high = new Uint32Array(half);
	const first = new Uint32Array(half);
	const second = new Uint32Array(half).fill(NO_CELL);
	let count = 0;
	for (let c = 0; c < cells.count; c++) {
		const start = rings.start[c]!;
		const end = rings.start[c + 1]!;
		for (let k = start; k < end; k++) {
			const p = rings.nodes[k]!;
			const q = rings.nodes[k + 1 < end ? k + 1 : start]!;
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

/** Places of keys below a bound in ascending order, equal ones as they came: a counting sort. */
function ordered(keys: Uint32Array, bound: number): Uint32Array {
	const next = new Uint32Array(bound + 1);
	for (let e = 0; e < keys.length; e++) next[keys[e]! + 1]!++;
	for (let k = 1; k <= bound; k++) next[k]! += next[k - 1]!;
	const order = new Uint32Array(keys.length);
	for (let e = 0; e < keys.length; e++) order[next[keys[e]!]!++] = e;
	return order;
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
	const own = columns * rows;
	const pole = new Set(grid.poles);
	const from = new Uint32Array(count);
	const to = new Uint32Array(count);
	const direction = new Uint8Array(count);
	const key = new Uint32Array(count);
	/** Lines of the lattice have whole numbers; what a trim made lies beside them. */
	const flat = (value: number) => (Math.abs(value) < SAME_SHARE ? 0 : value);
	const columnOf = (node: number) => (node < own ? node % columns : grid.extraI[node - own]!);
	const rowOf = (node: number) => (node < own ? Math.floor(node / columns) : grid.extraJ[node - own]!);
	const hasPoles = pole.size > 0;
	const hasExtra = grid.extraI.length > 0;
	for (let e = 0; e < count; e++) {
		let a = low[e]!;
		let b = high[e]!;
		let [iA, jA, iB, jB] = [columnOf(a), rowOf(a), columnOf(b), rowOf(b)];
		let di = flat(unwrap(iB - iA, columns, across.closed));
		let dj = flat(unwrap(jB - jA, rows, up.closed));
		if (dj < 0 || (dj === 0 && di < 0)) {
			[a, b] = [b, a];
			[iA, iB] = [iB, iA];
			[jA, jB] = [jB, jA];
			di = -di;
			dj = -dj;
		}
		// A pole node stands for its whole row, so its column says nothing.
		if (hasPoles && (pole.has(jA) || pole.has(jB))) di = 0;
		from[e] = a;
		to[e] = b;
		direction[e] =
			hasExtra && isOnTrim(grid, a, b, second[e]!) ? 4 : dj === 0 ? 1 : di === 0 ? 0 : di > 0 ? 2 : 3;
		const bay = Math.floor(hasPoles && pole.has(jA) ? iB : iA);
		key[e] =
			(Math.floor(jA) * columns + (((bay % columns) + columns) % columns)) * DIRECTIONS + direction[e]!;
	}
	const order = ordered(key, columns * rows * DIRECTIONS);
	const ordinal = new Uint8Array(count);
	for (let n = 1; n < count; n++) if (key[order[n]!] === key[order[n - 1]!]) ordinal[n] = ordinal[n - 1]! + 1;
	const pick = (column: Uint32Array) => {
		const out = new Uint32Array(count);
		for (let n = 0; n < count; n++) out[n] = column[order[n]!]!;
		return out;
	};
	const [ways, course, bay] = [new Uint8Array(count), new Uint32Array(count), new Uint32Array(count)];
	for (let n = 0; n < count; n++) {
		const e = order[n]!;
		const step = Math.floor(key[e]! / DIRECTIONS);
		ways[n] = direction[e]!;
		course[n] = Math.floor(step / columns) + 1;
		bay[n] = (step % columns) + 1;
	}
	return {
		count,
		from: pick(from),
		to: pick(to),
		left: pick(first),
		right: pick(second),
		direction: ways,
		ordinal,
		course,
		bay
	};
}

/**
 * How many nodes of the grid the cells use.
 *
 * ```ts
 * countUsedNodes(grid, cells); // nodes that any cell stands on
 * ```
 */
export function countUsedNodes(grid: NodeGrid, cells: Cells): number {
	const used = new Uint8Array(grid.columns * grid.rows + grid.extraI.length);
	for (const node of outlineOf(cells).nodes) used[node] = 1;
	return used.reduce((sum, flag) => sum + flag, 0);
}
