import { evaluateGrid, type Surface } from '../geometry/surface';
import type { NodeGrid } from './set-out';

/**
 * The grid as a plane: i counts bays from the left, j courses from the foot, both with fractions between
 * nodes. Parameters between nodes are interpolated linearly, the same way in both directions.
 */
export class Lattice {
	private readonly periodU: number;
	private readonly periodV: number;

	constructor(
		readonly grid: NodeGrid,
		private readonly surface: Surface
	) {
		this.periodU = surface.knotsU.at(-1)! - surface.knotsU[0]!;
		this.periodV = surface.knotsV.at(-1)! - surface.knotsV[0]!;
	}

	/** The parameter up of course line j, beyond the ends of a ring too. */
	private v(j: number): number {
		const { v, rows } = this.grid;
		const turns = Math.floor(j / rows);
		return j < rows && j >= 0 ? v[j]! : v[j - turns * rows]! + turns * this.periodV;
	}

	private u(i: number, j: number): number {
		const { u, columns, rows, across } = this.grid;
		const row = ((j % rows) + rows) % rows;
		if (!across.closed) return u[row * columns + i]!;
		const turns = Math.floor(i / columns);
		return u[row * columns + i - turns * columns]! + turns * this.periodU;
	}

	private parameterAcross(i: number, row: number, share: number): number {
		return this.u(i, row) + share * (share === 0 ? 0 : this.u(i, row + 1) - this.u(i, row));
	}

	/** From parameters to lattice coordinates. */
	place(u: number, v: number): [number, number] {
		const { up, across } = this.grid;
		let row = 0;
		while (row < up.steps - 1 && this.v(row + 1) <= v) row++;
		const share = (v - this.v(row)) / (this.v(row + 1) - this.v(row));
		let column = across.closed ? Math.floor((u - this.u(0, row)) / this.periodU) * across.steps : 0;
		const last = across.closed ? column + 2 * across.steps : across.steps - 1;
		while (column < last && this.parameterAcross(column + 1, row, share) <= u) column++;
		while (across.closed && this.parameterAcross(column, row, share) > u) column--;
		const from = this.parameterAcross(column, row, share);
		const to = this.parameterAcross(column + 1, row, share);
		return [column + (u - from) / (to - from), row + share];
	}

	/** From lattice coordinates to parameters within the surface. */
	parameters(i: number, j: number): [number, number] {
		const { up, across } = this.grid;
		const row = Math.min(up.steps - 1, Math.max(0, Math.floor(j)));
		const column = across.closed ? Math.floor(i) : Math.min(across.steps - 1, Math.max(0, Math.floor(i)));
		const share = j - row;
		const from = this.parameterAcross(column, row, share);
		const to = this.parameterAcross(column + 1, row, share);
		const v = this.v(row) + share * (this.v(row + 1) - this.v(row));
		return [from + (i - column) * (to - from), v];
	}

	/** Position and normal at parameters, which may lie beyond the seam of a ring. */
	evaluate(u: number, v: number): { point: Float64Array; normal: [number, number, number] } {
		const wrap = (t: number, low: number, period: number, closed: boolean) =>
			closed ? low + ((((t - low) % period) + period) % period) : t;
		const { knotsU, knotsV } = this.surface;
		const at = [wrap(u, knotsU[0]!, this.periodU, this.grid.across.closed)];
		const { points, du, dv } = evaluateGrid(this.surface, at, [
			wrap(v, knotsV[0]!, this.periodV, this.grid.up.closed)
		]);
		const n = [0, 1, 2].map((a) => du[(a + 1) % 3]! * dv[(a + 2) % 3]! - du[(a + 2) % 3]! * dv[(a + 1) % 3]!);
		const size = Math.hypot(...n) || 1;
		return { point: points, normal: [n[0]! / size, n[1]! / size, n[2]! / size] };
	}
}

/** Lattice coordinates of a node; those that a trim made lie between the others. */
export function latticeOf(grid: NodeGrid, node: number): [number, number] {
	const own = grid.columns * grid.rows;
	if (node < own) return [node % grid.columns, Math.floor(node / grid.columns)];
	return [grid.trimI[node - own]!, grid.trimJ[node - own]!];
}
