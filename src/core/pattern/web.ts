import { bayOfNode, courseOfNode, latticeOf } from '../grid/lattice';
import type { NodeGrid } from '../grid/node-grid';
import type { WebBar } from '../project/standing-schema';
import { outlineOf, type Cells } from './cells';
import { edgeDirections, type Edges } from './edges';
import { LineList } from './line-list';

/** A face as webs see it: one side of them. */
export interface WebSide {
	readonly grid: NodeGrid;
	readonly cells: Cells;
	readonly edges: Edges;
	/** Its nodes lie in the middle of the other's steps. */
	readonly shifted: boolean;
}

/** The lines of a web, over the nodes of one side and then of the other. */
export interface Web {
	readonly lines: Edges;
	/** Bars that have no node at one of their ends, since a trim took it. */
	readonly leftOut: number;
}

const NO_NODE = -1;
/** Places in a grid are told apart to a millionth of a step. */
const PLACE = 1e6;

/** The node of a grid behind each of another: the same one, or of those that trims and patterns made the one at its place. */
function nodesBehind(grid: NodeGrid, other: NodeGrid): (node: number) => number {
	const own = grid.columns * grid.rows;
	const name = (of: NodeGrid, node: number) =>
		latticeOf(of, node)
			.map((at) => Math.round(at * PLACE))
			.join();
	const made = new Map<string, number>();
	for (let node = own; node < other.positions.length / 3; node++) made.set(name(other, node), node);
	return (node) => (node < own ? node : (made.get(name(grid, node)) ?? NO_NODE));
}

/** Nodes that a cell stands on: 1. */
function used({ grid, cells }: WebSide): Uint8Array {
	const there = new Uint8Array(grid.positions.length / 3);
	for (const node of outlineOf(cells).nodes) there[node] = 1;
	return there;
}

/**
 * The nodes of a pattern in two lots, 0 and 1, so that lines lead from one to the other: as far as that can be, where
 * cells have odd numbers of sides.
 */
function inTurn({ count, from, to }: Edges, nodes: number): Int8Array {
	const start = new Uint32Array(nodes + 1);
	for (let e = 0; e < count; e++) {
		start[from[e]! + 1]!++;
		start[to[e]! + 1]!++;
	}
	for (let n = 0; n < nodes; n++) start[n + 1]! += start[n]!;
	const next = start.slice();
	const beside = new Uint32Array(2 * count);
	for (let e = 0; e < count; e++) {
		beside[next[from[e]!]!++] = to[e]!;
		beside[next[to[e]!]!++] = from[e]!;
	}
	const lot = new Int8Array(nodes).fill(-1);
	const reached = new Uint32Array(nodes);
	for (let first = 0; first < nodes; first++) {
		if (lot[first] !== -1) continue;
		lot[first] = 0;
		reached[0] = first;
		for (let at = 0, last = 1; at < last; at++) {
			const node = reached[at]!;
			for (let k = start[node]!; k < start[node + 1]!; k++) {
				const other = beside[k]!;
				if (lot[other] !== -1) continue;
				lot[other] = 1 - lot[node]!;
				reached[last++] = other;
			}
		}
	}
	return lot;
}

const directionOf = (way: (typeof edgeDirections)[number]) => edgeDirections.indexOf(way);

/**
 * The lines between a grid and one behind it, each once. Node behind node: uprights, and one diagonal along each line
 * of the first side, from its node to the one behind its neighbour, alternately from the one side and from the other.
 * A shifted side: four diagonals from each of its nodes to the corners of the step it lies in.
 *
 * ```ts
 * const side = { grid, cells, edges, shifted: false };
 * const { lines } = webBetween(side, side, ['upright', 'diagonal']);
 * ```
 */
export function webBetween(from: WebSide, to: WebSide, bars: readonly WebBar[]): Web {
	const lines = new LineList();
	const offset = from.grid.positions.length / 3;
	const [usedFrom, usedTo] = [used(from), used(to)];
	let leftOut = 0;
	const push = (a: number, b: number, course: number, bay: number, way: number) => {
		if (b === NO_NODE) {
			if (usedFrom[a]) leftOut++;
		} else if (usedFrom[a] && usedTo[b]) lines.push(a, offset + b, course, bay, way);
		else if (usedFrom[a] || usedTo[b]) leftOut++;
	};
	if (from.shifted !== to.shifted) {
		if (!bars.includes('diagonal')) return { lines: lines.made(), leftOut };
		const [middles, corners] = from.shifted ? [from, to] : [to, from];
		const usedMiddles = from.shifted ? usedFrom : usedTo;
		const { columns, rows } = middles.grid;
		for (let j = 0; j < rows; j++)
			for (let i = 0; i < columns; i++) {
				const middle = j * columns + i;
				// What a trim took with all four of its bars is an opening in both.
				if (!usedMiddles[middle]) continue;
				for (const [p, q, way] of [
					[i, j, 'rising'],
					[i + 1, j, 'falling'],
					[i + 1, j + 1, 'rising'],
					[i, j + 1, 'falling']
				] as const) {
					const { grid } = corners;
					const corner = (q % grid.rows) * grid.columns + (p % grid.columns);
					const [a, b] = from.shifted ? [middle, corner] : [corner, middle];
					push(a, b, j + 1, i + 1, directionOf(way));
				}
			}
		return { lines: lines.made(), leftOut };
	}
	const { grid, edges } = from;
	const behind = nodesBehind(grid, to.grid);
	if (bars.includes('upright'))
		for (let node = 0; node < offset; node++) {
			push(node, behind(node), courseOfNode(grid, node), bayOfNode(grid, node), directionOf('upright'));
		}
	if (bars.includes('diagonal')) {
		const side = inTurn(edges, offset);
		for (let e = 0; e < edges.count; e++) {
			const [a, b] = [edges.from[e]!, edges.to[e]!];
			const ends = side[a] === 1 ? ([b, behind(a)] as const) : ([a, behind(b)] as const);
			const isLevel = edges.direction[e] === directionOf('course');
			push(...ends, edges.course[e]!, edges.bay[e]!, directionOf(isLevel ? 'rising' : 'falling'));
		}
	}
	return { lines: lines.made(), leftOut };
}
