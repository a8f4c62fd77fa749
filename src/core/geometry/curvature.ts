import { basisTable, type BasisTable } from './basis';
import type { Surface } from './surface';

/**
 * Points, normals and curvatures on a grid of parameters: point (i, j) at (j * columns + i), three numbers
 * for points and normals. Normals of length 1 on the side of du × dv; curvatures in 1/mm and 1/mm²,
 * positive mean curvature where the surface bends towards its normal. Where du × dv vanishes (a pole) the
 * normal is (0, 0, 0) and the curvatures are 0.
 */
export interface CurvatureSamples {
	readonly columns: number;
	readonly rows: number;
	readonly points: Float64Array;
	readonly normals: Float64Array;
	readonly gaussian: Float64Array;
	readonly mean: Float64Array;
}

/** The net collapsed onto v = constant, with its first and second derivative up: 12 numbers per column. */
function collapse(surface: Surface, table: BasisTable, row: number, out: Float64Array): void {
	const { countU, net } = surface;
	const width = table.degree + 1;
	const base = row * 3 * width;
	out.fill(0);
	for (let j = 0; j < width; j++) {
		const n = table.values[base + j]!;
		const d = table.values[base + width + j]!;
		const e = table.values[base + 2 * width + j]!;
		let from = 4 * (table.first[row]! + j) * countU;
		for (let i = 0, o = 0; i < countU; i++, o += 12)
			for (let c = 0; c < 4; c++) {
				const p = net[from++]!;
				out[o + c]! += n * p;
				out[o + 4 + c]! += d * p;
				out[o + 8 + c]! += e * p;
			}
	}
}

/**
 * Hot loop along one collapsed row. Second derivatives of a rational surface: Piegl & Tiller, The NURBS
 * Book, 4.5; curvatures from the two fundamental forms: do Carmo, Differential Geometry, 3-3 (from memory).
 */
function curveRow(
	table: BasisTable,
	count: number,
	row: Float64Array,
	out: CurvatureSamples,
	start: number
): void {
	const { first, values } = table;
	const width = table.degree + 1;
	const stride = 3 * width;
	const { points, normals, gaussian, mean } = out;
	for (let k = 0; k < count; k++) {
		let x = 0,
			y = 0,
			z = 0,
			w = 0,
			ux = 0,
			uy = 0,
			uz = 0,
			uw = 0,
			vx = 0,
			vy = 0,
			vz = 0,
			vw = 0;
		let uux = 0,
			uuy = 0,
			uuz = 0,
			uuw = 0,
			uvx = 0,
			uvy = 0,
			uvz = 0,
			uvw = 0,
			vvx = 0,
			vvy = 0,
			vvz = 0,
			vvw = 0;
		let o = 12 * first[k]!;
		let b = k * stride;
		for (let i = 0; i < width; i++, b++, o += 12) {
			const n = values[b]!;
			const d = values[b + width]!;
			const e = values[b + 2 * width]!;
			const px = row[o]!,
				py = row[o + 1]!,
				pz = row[o + 2]!,
				pw = row[o + 3]!;
			const qx = row[o + 4]!,
				qy = row[o + 5]!,
				qz = row[o + 6]!,
				qw = row[o + 7]!;
			x += n * px;
			y += n * py;
			z += n * pz;
			w += n * pw;
			ux += d * px;
			uy += d * py;
			uz += d * pz;
			uw += d * pw;
			uux += e * px;
			uuy += e * py;
			uuz += e * pz;
			uuw += e * pw;
			vx += n * qx;
			vy += n * qy;
			vz += n * qz;
			vw += n * qw;
			uvx += d * qx;
			uvy += d * qy;
			uvz += d * qz;
			uvw += d * qw;
			vvx += n * row[o + 8]!;
			vvy += n * row[o + 9]!;
			vvz += n * row[o + 10]!;
			vvw += n * row[o + 11]!;
		}
		const inverse = 1 / w;
		x *= inverse;
		y *= inverse;
		z *= inverse;
		ux = (ux - uw * x) * inverse;
		uy = (uy - uw * y) * inverse;
		uz = (uz - uw * z) * inverse;
		vx = (vx - vw * x) * inverse;
		vy = (vy - vw * y) * inverse;
		vz = (vz - vw * z) * inverse;
		uux = (uux - 2 * uw * ux - uuw * x) * inverse;
		uuy = (uuy - 2 * uw * uy - uuw * y) * inverse;
		uuz = (uuz - 2 * uw * uz - uuw * z) * inverse;
		uvx = (uvx - uw * vx - vw * ux - uvw * x) * inverse;
		uvy = (uvy - uw * vy - vw * uy - uvw * y) * inverse;
		uvz = (uvz - uw * vz - vw * uz - uvw * z) * inverse;
		vvx = (vvx - 2 * vw * vx - vvw * x) * inverse;
		vvy = (vvy - 2 * vw * vy - vvw * y) * inverse;
		vvz = (vvz - 2 * vw * vz - vvw * z) * inverse;

		let nx = uy * vz - uz * vy;
		let ny = uz * vx - ux * vz;
		let nz = ux * vy - uy * vx;
		const E = ux * ux + uy * uy + uz * uz;
		const F = ux * vx + uy * vy + uz * vz;
		const G = vx * vx + vy * vy + vz * vz;
		const size = Math.sqrt(nx * nx + ny * ny + nz * nz);
		const at = start + k;
		points[3 * at] = x;
		points[3 * at + 1] = y;
		points[3 * at + 2] = z;
		if (!(size > 1e-9 * (E + G))) continue;
		nx /= size;
		ny /= size;
		nz /= size;
		normals[3 * at] = nx;
		normals[3 * at + 1] = ny;
		normals[3 * at + 2] = nz;
		const L = nx * uux + ny * uuy + nz * uuz;
		const M = nx * uvx + ny * uvy + nz * uvz;
		const N = nx * vvx + ny * vvy + nz * vvz;
		const area = E * G - F * F;
		gaussian[at] = (L * N - M * M) / area;
		mean[at] = (E * N - 2 * F * M + G * L) / (2 * area);
	}
}

/**
 * Points, normals and both curvatures as a tensor product.
 *
 * ```ts
 * const { gaussian, mean } = evaluateCurvature(surface, [0.25, 0.5], [0.5]);
 * ```
 */
export function evaluateCurvature(
	surface: Surface,
	us: ArrayLike<number>,
	vs: ArrayLike<number>
): CurvatureSamples {
	const count = us.length * vs.length;
	const out: CurvatureSamples = {
		columns: us.length,
		rows: vs.length,
		points: new Float64Array(3 * count),
		normals: new Float64Array(3 * count),
		gaussian: new Float64Array(count),
		mean: new Float64Array(count)
	};
	const across = basisTable(surface.knotsU, surface.degreeU, us, 2);
	const up = basisTable(surface.knotsV, surface.degreeV, vs, 2);
	const row = new Float64Array(12 * surface.countU);
	for (let j = 0; j < vs.length; j++) {
		collapse(surface, up, j, row);
		curveRow(across, us.length, row, out, j * us.length);
	}
	return out;
}

/**
 * Both principal curvatures (1/mm), the smaller one first.
 *
 * ```ts
 * principal(1 / 25, 1 / 5); // 1/5 and 1/5, as on a sphere of radius 5
 * ```
 */
export function principal(gaussian: number, mean: number): [number, number] {
	const root = Math.sqrt(Math.max(0, mean * mean - gaussian));
	return [mean - root, mean + root];
}
