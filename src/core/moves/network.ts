import type { FaceModel } from '../cladding/model';
import { latticeOf, mixedFrom } from '../grid/lattice';
import { NO_CELL } from '../pattern/edges';
import type { Moves } from '../project/moves-schema';
import { SAME_SHARE } from '../geometry/tolerance';

/** Nodes nearer than this (mm) are one, whichever faces they are of. */
const ONE = 1e-3;
/** A node that lies no further from a level (mm) stands on it. */
const ON_LEVEL = 1;

/** The faces of a zone as one net of cells that nodes can be moved in. All lists are flat. */
export interface Network {
	/** Nodes that can move, whichever faces they are of. */
	readonly variables: number;
	/** 1 where a coordinate of one may change. */
	readonly free: Uint8Array;
	/** Nodes of all faces, one face behind the other, as they are before (mm). */
	readonly base: Float64Array;
	/** What each node goes with: on[start[n] .. start[n + 1]), by shares. */
	readonly start: Uint32Array;
	readonly on: Uint32Array;
	readonly share: Float64Array;
	/** Corners of all cells, as nodes. */
	readonly cellStart: Uint32Array;
	readonly corners: Uint32Array;
	/** Where the nodes of each face begin, and which variable those of its grid are; NONE where no cell needs them. */
	readonly faces: readonly { readonly first: number; readonly variable: Int32Array }[];
	/** Upright on the face at every variable, length 1. */
	readonly upright: Float64Array;
}
const NONE = -1;

/** The face as cells that are moved need it. */
export type MovableFace = Pick<FaceModel, 'grid' | 'cells' | 'edges' | 'sharedEdges'>;

/** Nodes of edges that have a cell on one side only, in this zone. */
function rimNodes({ edges, sharedEdges }: MovableFace): Set<number> {
	const found = new Set<number>();
	for (let e = 0; e < edges.count; e++)
		if (edges.right[e] === NO_CELL && !sharedEdges?.[e]) found.add(edges.from[e]!).add(edges.to[e]!);
	return found;
}

/** Whether a place lies on the border of its lattice. */
function isOnBorder({ across, up, poles, absent, rims }: MovableFace['grid'], i: number, j: number): boolean {
	const at = (p: number, steps: number) => p < SAME_SHARE || p > steps - SAME_SHARE;
	if ((!across.closed && at(i, across.steps)) || (!up.closed && at(j, up.steps))) return true;
	// What runs out over a rim, or is not there at all, has no border of its own.
	return rims !== null || absent !== null || poles.includes(Math.round(j));
}

/**
 * @param levels heights (mm) at which nodes keep theirs, where the clause keeps levels
 */
export function networkOf(
	faces: readonly MovableFace[],
	keeps: Moves['keeps'],
	levels: readonly number[]
): Network {
	const known = new Map<string, number>();
	const upright: number[] = [];
	const heights: number[] = [];
	const fixed: number[] = [];
	const base: Float64Array[] = [];
	const start = [0];
	const on: number[] = [];
	const share: number[] = [];
	const cellStart = [0];
	const corners: number[] = [];
	const ofFaces: { first: number; variable: Int32Array }[] = [];
	let first = 0;
	for (const face of faces) {
		const { grid, cells } = face;
		const { positions, normals } = grid;
		const variable = new Int32Array(grid.columns * grid.rows).fill(NONE);
		const variableOf = (node: number): number => {
			if (variable[node] !== NONE) return variable[node]!;
			const key = [0, 1, 2].map((a) => Math.round(positions[3 * node + a]! / ONE)).join();
			const one = known.get(key) ?? upright.push(...normals.subarray(3 * node, 3 * node + 3)) / 3 - 1;
			known.set(key, one);
			heights[one] = positions[3 * node + 2]!;
			variable[node] = one;
			return one;
		};
		const used = new Uint8Array(positions.length / 3);
		for (let k = 0; k < cells.start[cells.count]!; k++) used[cells.corners[k]!] = 1;
		const rim = rimNodes(face);
		for (let node = 0; node < used.length; node++) {
			if (used[node]) {
				const [i, j] = latticeOf(grid, node);
				const mixed = mixedFrom(grid, i, j);
				const stays = rim.has(node) && (isOnBorder(grid, i, j) ? keeps.rims : keeps.openings);
				for (const [k, of] of mixed.nodes.entries()) {
					const one = variableOf(of);
					on.push(one);
					share.push(mixed.shares[k]!);
					if (stays) fixed.push(one);
				}
			}
			start.push(on.length);
		}
		for (let k = 0; k < cells.start[cells.count]!; k++) corners.push(first + cells.corners[k]!);
		const before = cellStart.at(-1)!;
		for (let c = 1; c <= cells.count; c++) cellStart.push(before + cells.start[c]!);
		base.push(positions);
		ofFaces.push({ first, variable });
		first += used.length;
	}
	const variables = upright.length / 3;
	const free = new Uint8Array(3 * variables).fill(1);
	for (const one of fixed) free.fill(0, 3 * one, 3 * one + 3);
	if (keeps.levels)
		for (let one = 0; one < variables; one++)
			if (levels.some((height) => Math.abs(heights[one]! - height) < ON_LEVEL)) free[3 * one + 2] = 0;
	const all = new Float64Array(3 * first);
	base.reduce((at, positions) => {
		all.set(positions, at);
		return at + positions.length;
	}, 0);
	return {
		variables,
		free,
		base: all,
		start: Uint32Array.from(start),
		on: Uint32Array.from(on),
		share: Float64Array.from(share),
		cellStart: Uint32Array.from(cellStart),
		corners: Uint32Array.from(corners),
		faces: ofFaces,
		upright: Float64Array.from(upright)
	};
}

/** Write where all nodes are with their variables moved. @param offsets mm, flat x y z */
export function place({ base, start, on, share }: Network, offsets: Float64Array, out: Float64Array): void {
	out.set(base);
	for (let node = 0; node + 1 < start.length; node++)
		for (let k = start[node]!; k < start[node + 1]!; k++) {
			const [of, weight] = [3 * on[k]!, share[k]!];
			for (let a = 0; a < 3; a++) out[3 * node + a]! += weight * offsets[of + a]!;
		}
}

/** Which cells have a corner that may move: 1. */
export function movableCells({ cellStart, corners, start, on, free }: Network): Uint8Array {
	const movable = new Uint8Array(cellStart.length - 1);
	for (let c = 0; c < movable.length; c++)
		for (let k = cellStart[c]!; k < cellStart[c + 1]! && !movable[c]; k++)
			for (let d = start[corners[k]!]!; d < start[corners[k]! + 1]!; d++)
				if (free[3 * on[d]!] || free[3 * on[d]! + 2]) movable[c] = 1;
	return movable;
}
