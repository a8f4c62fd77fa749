import type { Division, LineLengths } from './spacing';

/** What one direction of the grid came to. Lengths in mm. */
export interface Spread {
	readonly steps: number;
	/** Those of a grid that lies between another's lines begin after 0; on a ring they end a whole turn on. */
	readonly division: Division;
	readonly lengths: LineLengths;
	/** The two ends of the face meet in this direction. */
	readonly closed: boolean;
}

/**
 * The nodes of a face that is set out. Node (i, j) has the index j * columns + i; a closed direction does
 * not repeat its first line. Positions in mm, normals of length 1 pointing outside, flat x y z.
 */
export interface NodeGrid {
	readonly across: Spread;
	readonly up: Spread;
	readonly columns: number;
	readonly rows: number;
	readonly positions: Float64Array;
	readonly normals: Float64Array;
	/** Parameters of every node; on a ring they run on over the seam. */
	readonly u: Float64Array;
	readonly v: Float64Array;
	/** Every node on the face laid flat: mm to the right of the middle line, mm up from the foot. */
	readonly flat: Float64Array;
	/**
	 * How far every node is from where even true length would put it, along its lines; in a net of equal
	 * chords, how far the chords before it are from their length (mm).
	 */
	readonly off: Float64Array;
	/** Rows whose nodes all fall into one point; their first node stands for all. */
	readonly poles: readonly number[];
	/** Nodes that are not there, and no cell that would have one: 1; null when all are. */
	readonly absent: Uint8Array | null;
	readonly rims: RimRows | null;
	/** Lattice coordinates of the nodes that trims made; they come after the others. */
	readonly extraI: Float64Array;
	readonly extraJ: Float64Array;
	/** True length of each course line, in mm. */
	readonly courseLengths: Float64Array;
}

/**
 * Where lines across run out over the foot or the head before they reach a column: its rows up to `foot` and from
 * `head` on lie on that rim in one point, and the node of that row stands for all of them.
 */
export interface RimRows {
	readonly foot: Uint32Array;
	readonly head: Uint32Array;
}

/**
 * The row that stands for a row at a column, which may lie between two (lattice coordinates).
 *
 * ```ts
 * const row = standingRow(rimRows, grid.columns, 0, 3);
 * ```
 */
export function standingRow(rims: RimRows, columns: number, i: number, j: number): number {
	const at = (column: number) => ((column % columns) + columns) % columns;
	const [left, right] = [at(Math.floor(i)), at(Math.ceil(i))];
	const foot = Math.min(rims.foot[left]!, rims.foot[right]!);
	const head = Math.max(rims.head[left]!, rims.head[right]!);
	return Math.min(head, Math.max(foot, j));
}

/** Nodes of a net by their parameters, row by row. */
export interface NodeNet {
	readonly columns: number;
	readonly rows: number;
	readonly u: Float64Array;
	readonly v: Float64Array;
	/** The lengths that edges across and up are meant to have (mm), in a net of equal chords. */
	readonly chords?: readonly [number, number];
	readonly absent: Uint8Array | null;
	readonly rims: RimRows | null;
	/** It does not come round, even on a ring. */
	readonly open: boolean;
	/** Of lines set out by even true length: where they lie, so that it need not be measured again. */
	readonly even?: {
		/** Shares of its course line for every column, running on over the seam of a ring. */
		readonly across: Float64Array;
		/** mm up from the foot for every row. */
		readonly up: Float64Array;
		readonly courseLengths: Float64Array;
	};
}
