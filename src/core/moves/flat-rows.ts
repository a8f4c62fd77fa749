import type { Rows } from './least-squares';
import type { Network } from './network';

/** What is left of a direction by less than this share of it hangs on the others. */
const NOTHING_LEFT = 1e-6;

/**
 * What keeps each cell from being flat, as rows: combinations of its corners' heights over its middle plane that are
 * nothing for every plane, whichever way it leans; a cell of n corners has n - 3. Heights alone change with a step, to
 * first order: their combinations do not feel that the plane turns.
 */
export class FlatRows {
	private readonly x: Float64Array;
	private readonly y: Float64Array;
	/** Directions in the space of heights: constant, x, y, then what is left. */
	private readonly known: Float64Array[];

	constructor(private readonly network: Network) {
		const { cellStart } = network;
		let most = 0;
		for (let c = 0; c + 1 < cellStart.length; c++) most = Math.max(most, cellStart[c + 1]! - cellStart[c]!);
		this.x = new Float64Array(most);
		this.y = new Float64Array(most);
		this.known = Array.from({ length: most }, () => new Float64Array(most));
	}

	/** @param positions of all nodes (mm) */
	write(positions: Float64Array, rows: Rows): void {
		const { cellStart } = this.network;
		for (let c = 0; c + 1 < cellStart.length; c++)
			if (cellStart[c + 1]! - cellStart[c]! > 3)
				this.writeCell(positions, cellStart[c]!, cellStart[c + 1]!, rows);
	}

	private writeCell(positions: Float64Array, from: number, to: number, rows: Rows): void {
		const { corners, start, on, share } = this.network;
		const n = to - from;
		let [mx, my, mz] = [0, 0, 0];
		for (let k = from; k < to; k++) {
			const p = 3 * corners[k]!;
			mx += positions[p]! / n;
			my += positions[p + 1]! / n;
			mz += positions[p + 2]! / n;
		}
		let [nx, ny, nz] = [0, 0, 0];
		for (let k = from; k < to; k++) {
			const p = 3 * corners[k]!;
			const q = 3 * corners[k + 1 < to ? k + 1 : from]!;
			const [ax, ay, az] = [positions[p]! - mx, positions[p + 1]! - my, positions[p + 2]! - mz];
			const [bx, by, bz] = [positions[q]! - mx, positions[q + 1]! - my, positions[q + 2]! - mz];
			nx += ay * bz - az * by;
			ny += az * bx - ax * bz;
			nz += ax * by - ay * bx;
		}
		const size = Math.sqrt(nx * nx + ny * ny + nz * nz);
		if (!(size > 0)) return;
		nx /= size;
		ny /= size;
		nz /= size;
		// Two directions within the plane: one square to the axis that the normal is furthest from.
		const least = Math.min(Math.abs(nx), Math.abs(ny), Math.abs(nz));
		let [ux, uy, uz] =
			Math.abs(nx) === least ? [0, -nz, ny] : Math.abs(ny) === least ? [nz, 0, -nx] : [-ny, nx, 0];
		const wide = Math.sqrt(ux * ux + uy * uy + uz * uz);
		ux /= wide;
		uy /= wide;
		uz /= wide;
		const [vx, vy, vz] = [ny * uz - nz * uy, nz * ux - nx * uz, nx * uy - ny * ux];
		const { x, y, known } = this;
		const scale = Math.sqrt(size);
		for (let k = 0; k < n; k++) {
			const p = 3 * corners[from + k]!;
			const [ax, ay, az] = [positions[p]! - mx, positions[p + 1]! - my, positions[p + 2]! - mz];
			x[k] = (ux * ax + uy * ay + uz * az) / scale;
			y[k] = (vx * ax + vy * ay + vz * az) / scale;
		}
		let have = 0;
		const keep = (value: (k: number) => number): boolean => {
			const row = known[have]!;
			for (let k = 0; k < n; k++) row[k] = value(k);
			// Twice, so that rounding is gone too (Kahan's "twice is enough"; from memory).
			for (let round = 0; round < 2; round++)
				for (let h = 0; h < have; h++) {
					let along = 0;
					for (let k = 0; k < n; k++) along += row[k]! * known[h]![k]!;
					for (let k = 0; k < n; k++) row[k]! -= along * known[h]![k]!;
				}
			let left = 0;
			for (let k = 0; k < n; k++) left += row[k]! ** 2;
			if (!(left > NOTHING_LEFT)) return false;
			left = Math.sqrt(left);
			for (let k = 0; k < n; k++) row[k]! /= left;
			have++;
			return true;
		};
		if (!keep(() => 1) || !keep((k) => x[k]!) || !keep((k) => y[k]!)) return;
		for (let turn = 0; turn < n && have < n; turn++) {
			if (!keep((k) => Number(k === turn))) continue;
			const row = known[have - 1]!;
			let sum = 0;
			for (let k = 0; k < n; k++) {
				const corner = corners[from + k]!;
				const p = 3 * corner;
				sum +=
					row[k]! *
					(nx * (positions[p]! - mx) + ny * (positions[p + 1]! - my) + nz * (positions[p + 2]! - mz));
				for (let d = start[corner]!; d < start[corner + 1]!; d++) {
					const [column, weight] = [3 * on[d]!, row[k]! * share[d]!];
					rows.put(column, weight * nx);
					rows.put(column + 1, weight * ny);
					rows.put(column + 2, weight * nz);
				}
			}
			rows.end(sum);
		}
	}
}
