import { latticeOf, lineAt } from '../grid/lattice';
import type { NodeGrid } from '../grid/node-grid';
import { outlineOf, type Cells } from './cells';
import { SAME_SHARE } from '../geometry/tolerance';
import { scratch } from '../units/spare-memory';

export const edgeDirections = ['bay', 'course', 'rising', 'falling', 'trim', 'upright', 'gap'] as const;
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
	/** The cells on its two sides; `right` is NO_CELL on a rim, both are where lines have no cells. */
	readonly left: Uint32Array;
	readonly right: Uint32Array;
	/** Index into `edgeDirections`; an edge is on a rim when it has one cell. */
	readonly direction: Uint8Array;
	/** Counts the edges of one direction that start in one step, from 0; more than one are made by trims and scattered cells. */
	readonly ordinal: Uint32Array;
	/** Address of the step at whose lower left it starts, from 1. */
	readonly course: Uint32Array;
	readonly bay: Uint32Array;
}

/** Shortest way round a direction; `half` of a closed one's count, else without end. Lattice lines have whole numbers. */
function unwrap(step: number, half: number): number {
	const way = step > half ? step - 2 * half : step < -half ? step + 2 * half : step;
	return way < SAME_SHARE && way > -SAME_SHARE ? 0 : way;
}

/** Whether an edge with one cell does not lie on the grid's own rim: it runs along a trim. */
function isOnTrim(grid: NodeGrid, a: number, b: number): boolean {
	if (grid.extraI.length === 0) return false;
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
	const memory = scratch.take(4 * 5 * half);
	const next = new Int32Array(memory, 0, half);
	const low = new Uint32Array(memory, 4 * half, half);
	const high = new Uint32Array(memory, 8 * half, half);
	const first = new Uint32Array(memory, 12 * half, half);
	const second = new Uint32Array(memory, 16 * half, half).fill(NO_CELL);
	let count = 0;
	const find = (a: number, b: number): number => {
		let e = head[a]!;
		while (e >= 0 && high[e] !== b) e = next[e]!;
		return e;
	};
	for (let c = 0; c < cells.count; c++) {
		const start = rings.start[c]!;
		const end = rings.start[c + 1]!;
		for (let k = start; k < end; k++) {
			const p = rings.nodes[k]!;
			const q = rings.nodes[k + 1 < end ? k + 1 : start]!;
			const a = p < q ? p : q;
			const b = p < q ? q : p;
			const e = find(a, b);
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
	// Beside the sides of an opening lies the cell that is pierced.
	const { pierced } = cells;
	for (let k = 0; pierced && k < pierced.cells.length; k++)
		for (let n = pierced.firstOpening[k]!; n < pierced.firstOpening[k + 1]!; n++) {
			const c = pierced.openings[n]!;
			const [start, end] = [rings.start[c]!, rings.start[c + 1]!];
			for (let at = start; at < end; at++) {
				const [p, q] = [rings.nodes[at]!, rings.nodes[at + 1 < end ? at + 1 : start]!];
				second[find(Math.min(p, q), Math.max(p, q))] = pierced.cells[k]!;
			}
		}
	const edges = inBuildingOrder(grid, count, low, high, first, second);
	scratch.giveBack(memory);
	return edges;
}

/** Edges by their steps below a bound, and within one by direction; equal ones as they came. */
function byStepAndDirection(step: Uint32Array, direction: Uint8Array, bound: number): Uint32Array {
	const start = new Uint32Array(bound + 1);
	for (let e = 0; e < step.length; e++) start[step[e]! + 1]!++;
	for (let k = 1; k <= bound; k++) start[k]! += start[k - 1]!;
	const found = new Uint32Array(bound);
	const order = new Uint32Array(step.length);
	for (let e = 0; e < step.length; e++) {
		const at = step[e]!;
		const way = direction[e]!;
		// A step has few edges: each is put before those of its step that come after it.
		const from = start[at]!;
		let k = from + found[at]!++;
		for (; k > from && direction[order[k - 1]!]! > way; k--) order[k] = order[k - 1]!;
		order[k] = e;
	}
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
	const { columns, rows, across, up, extraI, extraJ } = grid;
	const own = columns * rows;
	const halfAcross = across.closed ? columns / 2 : Infinity;
	const halfUp = up.closed ? rows / 2 : Infinity;
	const isPole = new Uint8Array(rows);
	for (const row of grid.poles) isPole[row] = 1;
	const memory = scratch.take((4 * 3 + 1) * count);
	const from = new Uint32Array(memory, 0, count);
	const to = new Uint32Array(memory, 4 * count, count);
	const step = new Uint32Array(memory, 8 * count, count);
	const direction = new Uint8Array(memory, 12 * count, count);
	for (let e = 0; e < count; e++) {
		let a = low[e]!;
		let b = high[e]!;
		// Most run within the face from a node of the grid to its neighbour: they need none of what follows.
		if (b < own && second[e] !== NO_CELL) {
			const j = Math.floor(a / columns);
			const beside = b - a === 1 && b % columns !== 0;
			if ((beside || b - a === columns) && isPole[j] === 0 && isPole[j + 1] === 0) {
				from[e] = a;
				to[e] = b;
				const way = beside ? 1 : 0;
				direction[e] = way;
				step[e] = a;
				continue;
			}
		}
		let iA = a < own ? a % columns : extraI[a - own]!;
		let jA = a < own ? Math.floor(a / columns) : extraJ[a - own]!;
		let iB = b < own ? b % columns : extraI[b - own]!;
		let jB = b < own ? Math.floor(b / columns) : extraJ[b - own]!;
		let di = unwrap(iB - iA, halfAcross);
		let dj = unwrap(jB - jA, halfUp);
		if (dj < 0 || (dj === 0 && di < 0)) {
			a = b;
			b = low[e]!;
			const [i, j] = [iA, jA];
			iA = iB;
			jA = jB;
			iB = i;
			jB = j;
			di = -di;
			dj = -dj;
		}
		// A pole node stands for its whole row, so its column says nothing.
		if (isPole[jA] === 1 || isPole[jB] === 1) di = 0;
		from[e] = a;
		to[e] = b;
		const way =
			second[e] === NO_CELL && isOnTrim(grid, a, b) ? 4 : dj === 0 ? 1 : di === 0 ? 0 : di > 0 ? 2 : 3;
		direction[e] = way;
		const bay = lineAt(isPole[jA] === 1 ? iB : iA, columns, across.closed);
		step[e] = lineAt(jA, rows, up.closed) * columns + bay;
	}
	const order = byStepAndDirection(step, direction, own);
	const sorted = {
		count,
		from: new Uint32Array(count),
		to: new Uint32Array(count),
		left: new Uint32Array(count),
		right: new Uint32Array(count),
		direction: new Uint8Array(count),
		ordinal: new Uint32Array(count),
		course: new Uint32Array(count),
		bay: new Uint32Array(count)
	};
	/** Of the step at hand: its address, from 0, and its number. */
	let course = 0;
	let bay = 0;
	let here = 0;
	for (let n = 0; n < count; n++) {
		const e = order[n]!;
		for (; here < step[e]!; here++)
			if (++bay === columns) {
				bay = 0;
				course++;
			}
		sorted.from[n] = from[e]!;
		sorted.to[n] = to[e]!;
		sorted.left[n] = first[e]!;
		sorted.right[n] = second[e]!;
		sorted.direction[n] = direction[e]!;
		sorted.course[n] = course + 1;
		sorted.bay[n] = bay + 1;
		const before = order[n - 1]!;
		if (n > 0 && step[before] === here && direction[before] === direction[e])
			sorted.ordinal[n] = sorted.ordinal[n - 1]! + 1;
	}
	scratch.giveBack(memory);
	return sorted;
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
	let count = 0;
	for (let n = 0; n < used.length; n++) count += used[n]!;
	return count;
}
