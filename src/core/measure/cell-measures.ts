import { areaOfTriangles } from '../geometry/triangulate';
import type { Cells } from '../pattern/cells';

/** Fans that all look the same way span nearly as much together as one by one. */
const BENT = 1 - 1e-12;
/** Sines of turns the other way up to this are rounding: the corner is straight. */
const STRAIGHT = 1e-9;

/**
 * What every cell measures, one column each. Lengths mm, areas mm², angles rad.
 * - area: spanned from the middle of the corners; exact where the cell is flat; of a pierced cell without its openings
 * - warp: for four corners the gap between the diagonals, otherwise how far the corners spread across the
 *   cell's mean plane
 */
export interface CellMeasures {
	readonly area: Float64Array;
	readonly perimeter: Float64Array;
	readonly longestEdge: Float64Array;
	readonly shortestEdge: Float64Array;
	readonly smallestAngle: Float64Array;
	readonly largestAngle: Float64Array;
	readonly warp: Float64Array;
	/** Flat x y z. */
	readonly centre: Float64Array;
	/** Flat x y z, length 1, pointing outside. */
	readonly normal: Float64Array;
}

/** An angle from its cosine, folded over where it is more than half a turn. */
const unfolded = (cosine: number) =>
	cosine < -1 ? 2 * Math.PI - Math.acos(Math.min(1, -2 - cosine)) : Math.acos(Math.min(1, cosine));

/**
 * Measure all cells. Hot loop; degenerate cells (no area, coincident corners) give 0, never NaN.
 *
 * ```ts
 * const { area, warp } = measureCells(cells, grid.positions);
 * ```
 */
export function measureCells(cells: Cells, positions: Float64Array): CellMeasures {
	const { count: n, start, corners } = cells;
	let most = 0;
	for (let c = 0; c < n; c++) most = Math.max(most, start[c + 1]! - start[c]!);
	// Scratch for one cell: its corners with the first repeated, its edges, and the fans about its middle.
	const scratch = () => new Float64Array(most + 1);
	const [px, py, pz, edge] = [scratch(), scratch(), scratch(), scratch()];
	const [fanX, fanY, fanZ, fanSize] = [scratch(), scratch(), scratch(), scratch()];
	const area = new Float64Array(n);
	const perimeter = new Float64Array(n);
	const longestEdge = new Float64Array(n);
	const shortestEdge = new Float64Array(n);
	const smallestAngle = new Float64Array(n);
	const largestAngle = new Float64Array(n);
	const warp = new Float64Array(n);
	const centre = new Float64Array(3 * n);
	const normal = new Float64Array(3 * n);

	for (let c = 0; c < n; c++) {
		const first = start[c]!;
		const count = start[c + 1]! - first;
		let cx = 0,
			cy = 0,
			cz = 0;
		for (let k = 0; k < count; k++) {
			const o = 3 * corners[first + k]!;
			cx += px[k] = positions[o]!;
			cy += py[k] = positions[o + 1]!;
			cz += pz[k] = positions[o + 2]!;
		}
		px[count] = px[0]!;
		py[count] = py[0]!;
		pz[count] = pz[0]!;
		cx /= count;
		cy /= count;
		cz /= count;

		let around = 0,
			longest = 0,
			shortest = Infinity;
		let nx = 0,
			ny = 0,
			nz = 0,
			fan = 0;
		for (let k = 0; k < count; k++) {
			const ax = px[k]! - cx,
				ay = py[k]! - cy,
				az = pz[k]! - cz;
			const bx = px[k + 1]! - cx,
				by = py[k + 1]! - cy,
				bz = pz[k + 1]! - cz;
			const x = ay * bz - az * by,
				y = az * bx - ax * bz,
				z = ax * by - ay * bx;
			fanX[k] = x;
			fanY[k] = y;
			fanZ[k] = z;
			nx += x;
			ny += y;
			nz += z;
			fan += fanSize[k] = Math.sqrt(x * x + y * y + z * z);
			const ex = bx - ax,
				ey = by - ay,
				ez = bz - az;
			const side = Math.sqrt(ex * ex + ey * ey + ez * ez);
			edge[k] = side;
			around += side;
			if (side > longest) longest = side;
			if (side < shortest) shortest = side;
		}
		edge[count] = edge[0]!;
		const size = Math.sqrt(nx * nx + ny * ny + nz * nz);
		if (size > 0) {
			nx /= size;
			ny /= size;
			nz /= size;
		}

		// Bent, or with a re-entrant corner: fans that turn the other way count against the others.
		if (size < BENT * fan) {
			fan = 0;
			for (let k = 0; k < count; k++)
				fan += Math.sign(fanX[k]! * nx + fanY[k]! * ny + fanZ[k]! * nz) * fanSize[k]!;
		}

		// The widest cosine is the smallest angle; only the two extremes are turned into angles. A corner that turns
		// the other way has more than half a turn inside: its cosine is folded over at −1, down to −3 for a whole turn.
		let widest = -3,
			least = 1;
		for (let k = 0; k < count; k++) {
			const before = k === 0 ? count - 1 : k - 1;
			const product = edge[before]! * edge[k]!;
			if (product === 0) continue;
			const bx = px[before]! - px[k]!,
				by = py[before]! - py[k]!,
				bz = pz[before]! - pz[k]!;
			const ax = px[k + 1]! - px[k]!,
				ay = py[k + 1]! - py[k]!,
				az = pz[k + 1]! - pz[k]!;
			let cosine = (bx * ax + by * ay + bz * az) / product;
			if (
				count > 3 &&
				nx * (ay * bz - az * by) + ny * (az * bx - ax * bz) + nz * (ax * by - ay * bx) < -STRAIGHT * product
			)
				cosine = -2 - cosine;
			if (cosine > widest) widest = cosine;
			if (cosine < least) least = cosine;
		}

		let gap = 0;
		if (count === 4) {
			const dx = px[2]! - px[0]!,
				dy = py[2]! - py[0]!,
				dz = pz[2]! - pz[0]!;
			const ex = px[3]! - px[1]!,
				ey = py[3]! - py[1]!,
				ez = pz[3]! - pz[1]!;
			const x = dy * ez - dz * ey,
				y = dz * ex - dx * ez,
				z = dx * ey - dy * ex;
			const across = Math.sqrt(x * x + y * y + z * z);
			if (across > 0)
				gap = Math.abs((px[1]! - px[0]!) * x + (py[1]! - py[0]!) * y + (pz[1]! - pz[0]!) * z) / across;
		} else if (count > 4) {
			let above = 0,
				below = 0;
			for (let k = 0; k < count; k++) {
				const height = (px[k]! - cx) * nx + (py[k]! - cy) * ny + (pz[k]! - cz) * nz;
				if (height > above) above = height;
				if (height < below) below = height;
			}
			gap = above - below;
		}

		area[c] = fan / 2;
		perimeter[c] = around;
		longestEdge[c] = longest;
		shortestEdge[c] = shortest;
		smallestAngle[c] = unfolded(widest);
		largestAngle[c] = unfolded(least);
		warp[c] = gap;
		centre[3 * c] = cx;
		centre[3 * c + 1] = cy;
		centre[3 * c + 2] = cz;
		normal[3 * c] = nx;
		normal[3 * c + 1] = ny;
		normal[3 * c + 2] = nz;
	}
	const { pierced } = cells;
	for (let k = 0; pierced && k < pierced.cells.length; k++)
		area[pierced.cells[k]!] = areaOfTriangles(
			positions,
			pierced.triangles.subarray(pierced.firstCorner[k]!, pierced.firstCorner[k + 1]!)
		);
	return { area, perimeter, longestEdge, shortestEdge, smallestAngle, largestAngle, warp, centre, normal };
}
