import { pointAt } from '../geometry/vector';
import type { Cells } from '../pattern/cells';
import { smallestRectangle } from './smallest-rectangle';

/** Turns the other way up to this share of the sides are rounding: the ring is convex. */
const STRAIGHT = 1e-9;

/** Rings of more corners can turn one way all along and yet go round twice. */
const FEW = 4;

/**
 * The smallest rectangle around a cell (see `smallestRectangle`): the same values for one after the other, without a point
 * of their own for each corner where they have three or four. Of a ring that is convex every edge is one of its hull.
 *
 * ```ts
 * const rectangles = new CellRectangles(faceModel.cells, faceModel.grid.positions);
 * rectangles.look(0);
 * const { long, short } = rectangles; // mm
 * ```
 */
export class CellRectangles {
	private readonly x = new Float64Array(FEW);
	private readonly y = new Float64Array(FEW);
	/** Of the cell that was looked at last (mm). */
	long = 0;
	short = 0;

	constructor(
		private readonly cells: Pick<Cells, 'start' | 'corners'>,
		private readonly positions: Float64Array
	) {}

	look(cell: number): void {
		const { start, corners } = this.cells;
		const [from, to] = [start[cell]!, start[cell + 1]!];
		if (to - from <= FEW && this.lay(from, to) && this.measure(to - from)) return;
		const ring = corners.subarray(from, to);
		[this.long, this.short] = smallestRectangle(Array.from(ring, (node) => pointAt(this.positions, node)));
	}

	/** Lay the ring on its middle plane. @returns whether it has one */
	private lay(from: number, to: number): boolean {
		const { positions } = this;
		const { corners } = this.cells;
		const n = to - from;
		const o = 3 * corners[from]!;
		let [nx, ny, nz] = [0, 0, 0];
		for (let k = from; k < to; k++) {
			const p = 3 * corners[k]!;
			const q = 3 * corners[k + 1 < to ? k + 1 : from]!;
			const [ax, ay, az] = [
				positions[p]! - positions[o]!,
				positions[p + 1]! - positions[o + 1]!,
				positions[p + 2]! - positions[o + 2]!
			];
			const [bx, by, bz] = [
				positions[q]! - positions[o]!,
				positions[q + 1]! - positions[o + 1]!,
				positions[q + 2]! - positions[o + 2]!
			];
			nx += ay * bz - az * by;
			ny += az * bx - ax * bz;
			nz += ax * by - ay * bx;
		}
		const size = Math.sqrt(nx * nx + ny * ny + nz * nz);
		if (!(size > 0)) return false;
		nx /= size;
		ny /= size;
		nz /= size;
		// Any two directions square to the normal and to each other.
		let [ux, uy, uz] = Math.abs(nx) < 0.6 ? [0, -nz, ny] : [nz, 0, -nx];
		const wide = Math.sqrt(ux * ux + uy * uy + uz * uz);
		ux /= wide;
		uy /= wide;
		uz /= wide;
		const [vx, vy, vz] = [ny * uz - nz * uy, nz * ux - nx * uz, nx * uy - ny * ux];
		for (let k = 0; k < n; k++) {
			const p = 3 * corners[from + k]!;
			const [ax, ay, az] = [
				positions[p]! - positions[o]!,
				positions[p + 1]! - positions[o + 1]!,
				positions[p + 2]! - positions[o + 2]!
			];
			this.x[k] = ux * ax + uy * ay + uz * az;
			this.y[k] = vx * ax + vy * ay + vz * az;
		}
		return true;
	}

	/** @returns whether the ring is convex: only then it is measured */
	private measure(n: number): boolean {
		const { x, y } = this;
		let best = Infinity;
		for (let k = 0; k < n; k++) {
			const [next, after] = [(k + 1) % n, (k + 2) % n];
			const [ex, ey] = [x[next]! - x[k]!, y[next]! - y[k]!];
			const [fx, fy] = [x[after]! - x[next]!, y[after]! - y[next]!];
			const edge = Math.sqrt(ex * ex + ey * ey);
			// The ring runs anticlockwise about its normal.
			if (ex * fy - ey * fx < -STRAIGHT * edge * Math.sqrt(fx * fx + fy * fy)) return false;
			if (!(edge > 0)) return false;
			const [cx, cy] = [ex / edge, ey / edge];
			let [left, right, foot, head] = [Infinity, -Infinity, Infinity, -Infinity];
			for (let p = 0; p < n; p++) {
				const along = cx * x[p]! + cy * y[p]!;
				const up = cx * y[p]! - cy * x[p]!;
				if (along < left) left = along;
				if (along > right) right = along;
				if (up < foot) foot = up;
				if (up > head) head = up;
			}
			const [across, high] = [right - left, head - foot];
			if (across * high >= best) continue;
			best = across * high;
			this.long = Math.max(across, high);
			this.short = Math.min(across, high);
		}
		return best < Infinity;
	}
}
