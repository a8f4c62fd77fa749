import { placeAt, type Surface } from '../geometry/surface';
import { cross, length, scale, type Vector } from '../geometry/vector';
import { SAME_STEP } from '../geometry/tolerance';
import type { NodeGrid, Spread } from './node-grid';

/** A step counts as met this far outside it, in shares of it. */
const EDGE = 1e-9;
const NEWTON_ROUNDS = 20;

/** Between the four corners of a step, anticlockwise from its foot on the left. */
const mix = (a: number, b: number, c: number, d: number, s: number, t: number): number =>
	a * (1 - s) * (1 - t) + b * s * (1 - t) + c * s * t + d * (1 - s) * t;

/**
 * The grid as a plane: i counts bays from the left, j courses from the foot, both with fractions between
 * nodes. Parameters between the four nodes of a step are interpolated bilinearly, both ways.
 *
 * ```ts
 * const lattice = new Lattice(grid, surface);
 * ```
 */
export class Lattice {
	private readonly periodU: number;
	private readonly periodV: number;
	/** The step in which the last place was found: the next one is near it as a rule. */
	private last: [number, number] = [0, 0];

	constructor(
		readonly grid: NodeGrid,
		private readonly surface: Surface
	) {
		this.periodU = surface.knotsU.at(-1)! - surface.knotsU[0]!;
		this.periodV = surface.knotsV.at(-1)! - surface.knotsV[0]!;
	}

	/** Parameters of node (i, j), beyond the ends of a ring too. */
	private node(i: number, j: number): [number, number] {
		const { u, v, columns, rows, across, up } = this.grid;
		const turnsI = across.closed ? Math.floor(i / columns) : 0;
		const turnsJ = up.closed ? Math.floor(j / rows) : 0;
		const at = (j - turnsJ * rows) * columns + i - turnsI * columns;
		return [u[at]! + turnsI * this.periodU, v[at]! + turnsJ * this.periodV];
	}

	/** The four corners of a step. */
	private step(i: number, j: number) {
		return [this.node(i, j), this.node(i + 1, j), this.node(i + 1, j + 1), this.node(i, j + 1)] as const;
	}

	/** Shares within a step (0..1 inside it) of a place given by its parameters. */
	private within(i: number, j: number, u: number, v: number): [number, number] {
		const [a, b, c, d] = this.step(i, j);
		let s = 0.5;
		let t = 0.5;
		for (let round = 0; round < NEWTON_ROUNDS; round++) {
			const p = u - mix(a[0], b[0], c[0], d[0], s, t);
			const q = v - mix(a[1], b[1], c[1], d[1], s, t);
			const su = (b[0] - a[0]) * (1 - t) + (c[0] - d[0]) * t;
			const sv = (b[1] - a[1]) * (1 - t) + (c[1] - d[1]) * t;
			const tu = (d[0] - a[0]) * (1 - s) + (c[0] - b[0]) * s;
			const tv = (d[1] - a[1]) * (1 - s) + (c[1] - b[1]) * s;
			const det = su * tv - sv * tu;
			if (!(Math.abs(det) > 0)) break;
			const ds = (p * tv - q * tu) / det;
			const dt = (su * q - sv * p) / det;
			s += ds;
			t += dt;
			if (Math.abs(ds) + Math.abs(dt) < 1e-14) break;
			// Far outside the step its own corners say little; near it they settle the place.
			s = Math.min(50, Math.max(-50, s));
			t = Math.min(50, Math.max(-50, t));
		}
		return [s, t];
	}

	/** From parameters to lattice coordinates. */
	place(u: number, v: number): [number, number] {
		const { across, up } = this.grid;
		const held = (k: number, steps: number, closed: boolean) =>
			closed ? k : Math.min(steps - 1, Math.max(0, k));
		let [i, j] = this.last;
		let [s, t] = [0, 0];
		for (let walk = 0; walk < across.steps + up.steps + 8; walk++) {
			[s, t] = this.within(i, j, u, v);
			const over = (share: number) => (share < -EDGE || share > 1 + EDGE ? Math.floor(share) : 0);
			const nextI = held(i + Math.max(-8, Math.min(8, over(s))), across.steps, across.closed);
			const nextJ = held(j + Math.max(-8, Math.min(8, over(t))), up.steps, up.closed);
			if (nextI === i && nextJ === j) break;
			[i, j] = [nextI, nextJ];
		}
		this.last = [i, j];
		return [i + s, j + t];
	}

	/** From lattice coordinates to parameters. */
	parameters(i: number, j: number): [number, number] {
		const { across, up } = this.grid;
		const row = up.closed ? Math.floor(j) : Math.min(up.steps - 1, Math.max(0, Math.floor(j)));
		const column = across.closed ? Math.floor(i) : Math.min(across.steps - 1, Math.max(0, Math.floor(i)));
		const [s, t] = [i - column, j - row];
		const [a, b, c, d] = this.step(column, row);
		return [mix(a[0], b[0], c[0], d[0], s, t), mix(a[1], b[1], c[1], d[1], s, t)];
	}

	/** Where lattice coordinates lie on the face laid flat (mm). */
	flat(i: number, j: number): [number, number] {
		const { across, up, columns, rows, flat, courseLengths } = this.grid;
		const row = up.closed ? Math.floor(j) : Math.min(up.steps - 1, Math.max(0, Math.floor(j)));
		const column = across.closed ? Math.floor(i) : Math.min(across.steps - 1, Math.max(0, Math.floor(i)));
		const at = (p: number, q: number) => {
			const [turnsI, turnsJ] = [Math.floor(p / columns), Math.floor(q / rows)];
			const line = q - (up.closed ? turnsJ * rows : 0);
			const node = line * columns + p - (across.closed ? turnsI * columns : 0);
			return [
				flat[2 * node]! + (across.closed ? turnsI * courseLengths[line]! : 0),
				flat[2 * node + 1]! + (up.closed ? turnsJ * up.lengths.belt : 0)
			] as const;
		};
		const [s, t] = [i - column, j - row];
		const [a, b, c, d] = [at(column, row), at(column + 1, row), at(column + 1, row + 1), at(column, row + 1)];
		return [mix(a[0], b[0], c[0], d[0], s, t), mix(a[1], b[1], c[1], d[1], s, t)];
	}

	/** Position and normal at parameters, which may lie beyond the seam of a ring. */
	evaluate(u: number, v: number): { point: Vector; normal: Vector } {
		const wrap = (t: number, low: number, period: number, closed: boolean) =>
			closed ? low + ((((t - low) % period) + period) % period) : t;
		const { knotsU, knotsV } = this.surface;
		const { point, du, dv } = placeAt(
			this.surface,
			wrap(u, knotsU[0]!, this.periodU, this.grid.across.closed),
			wrap(v, knotsV[0]!, this.periodV, this.grid.up.closed)
		);
		const n = cross(du, dv);
		return { point, normal: scale(n, 1 / (length(n) || 1)) };
	}
}

/**
 * Lattice coordinates of a node; those that a trim made lie between the others.
 *
 * ```ts
 * const [i, j] = latticeOf(grid, 12);
 * ```
 */
export function latticeOf(
	grid: Pick<NodeGrid, 'columns' | 'rows' | 'extraI' | 'extraJ'>,
	node: number
): [number, number] {
	const own = grid.columns * grid.rows;
	if (node < own) return [node % grid.columns, Math.floor(node / grid.columns)];
	return [grid.extraI[node - own]!, grid.extraJ[node - own]!];
}

/**
 * The line that a place along one direction of a grid lies on, or the last one before it, from 0: of those that there
 * are. A place on a line but for rounding is on it, as are those that trims make at a rim.
 *
 * ```ts
 * lineAt(2.9999999999, 12, false); // 3
 * ```
 * @param at lattice coordinate; on a ring it may run on over the seam
 */
export function lineAt(at: number, lines: number, closed: boolean): number {
	const line = Math.floor(at + SAME_STEP);
	if (closed) return ((line % lines) + lines) % lines;
	return line < 0 ? 0 : line < lines ? line : lines - 1;
}

/** What is needed of a grid to know the lines that a node lies on. */
export type GridLines = Pick<NodeGrid, 'columns' | 'rows' | 'extraI' | 'extraJ'> & {
	readonly across: Pick<Spread, 'closed'>;
	readonly up: Pick<Spread, 'closed'>;
};

/**
 * The course line that a node lies on, or the last one below it, from 1.
 *
 * ```ts
 * courseOfNode(grid, 0); // 1
 * ```
 */
export const courseOfNode = (grid: GridLines, node: number): number =>
	lineAt(latticeOf(grid, node)[1], grid.rows, grid.up.closed) + 1;

/**
 * The bay line that a node lies on, or the last one to the left of it, from 1.
 *
 * ```ts
 * bayOfNode(grid, 0); // 1
 * ```
 */
export const bayOfNode = (grid: GridLines, node: number): number =>
	lineAt(latticeOf(grid, node)[0], grid.columns, grid.across.closed) + 1;

/** The grid itself, by which nodes between its own ones are mixed. */
type Steps = Pick<NodeGrid, 'columns' | 'rows' | 'across' | 'up'>;

/** Nodes of a grid, and how much each of them counts; those that count nothing are left out. */
export interface Mixed {
	readonly nodes: readonly number[];
	readonly shares: readonly number[];
}

/**
 * The nodes of the grid itself that a place is mixed from: the four corners of its step, fewer where it lies on a line.
 *
 * ```ts
 * const { nodes, shares } = mixedFrom(grid, 2.5, 1); // two nodes, half and half
 * ```
 * @param i lattice coordinates
 */
export function mixedFrom({ columns, rows, across, up }: Steps, i: number, j: number): Mixed {
	const held = (at: number, steps: number, closed: boolean) =>
		closed ? Math.floor(at) : Math.min(steps - 1, Math.max(0, Math.floor(at)));
	const [bay, course] = [held(i, across.steps, across.closed), held(j, up.steps, up.closed)];
	const [s, t] = [i - bay, j - course];
	const nodes: number[] = [];
	const shares: number[] = [];
	for (const [right, above, share] of [
		[0, 0, (1 - s) * (1 - t)],
		[1, 0, s * (1 - t)],
		[1, 1, s * t],
		[0, 1, (1 - s) * t]
	] as const) {
		if (share === 0) continue;
		const column = (((bay + right) % columns) + columns) % columns;
		nodes.push(((((course + above) % rows) + rows) % rows) * columns + column);
		shares.push(share);
	}
	return { nodes, shares };
}
