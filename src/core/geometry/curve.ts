import { basisTable, type BasisTable } from './basis';

/** A rational B-spline curve. `net` holds (wx, wy, wz, w) per control point, lengths in mm. */
export interface Curve {
	readonly degree: number;
	readonly knots: Float64Array;
	readonly net: Float64Array;
}

/** Points and first derivatives of a curve, as flat arrays of x y z. */
export interface CurveSamples {
	readonly points: Float64Array;
	readonly tangents: Float64Array;
}

/**
 * Parameters where a curve's polynomial pieces meet, ends included, each once.
 *
 * ```ts
 * distinctKnots(Float64Array.of(0, 0, 0.5, 1, 1)); // 0, 0.5, 1
 * ```
 */
export function distinctKnots(knots: Float64Array): number[] {
	return [...new Set(knots)];
}

/**
 * ```ts
 * const { points, tangents } = evaluateCurve(chainCurve(chainOfPoints), [0, 0.5, 1]);
 * ```
 */
export function evaluateCurve(curve: Curve, at: ArrayLike<number>): CurveSamples {
	const table = basisTable(curve.knots, curve.degree, at, 1);
	const points = new Float64Array(3 * at.length);
	const tangents = new Float64Array(3 * at.length);
	combineCurve(table, at.length, curve.net, points, tangents, 0);
	return { points, tangents };
}

/**
 * Hot loop: points and derivatives along one homogeneous row of control points.
 * @param net 4 numbers per control point
 * @param points, tangents written from point `start` on
 */
export function combineCurve(
	table: BasisTable,
	count: number,
	net: Float64Array,
	points: Float64Array,
	tangents: Float64Array,
	start: number
): void {
	const { degree, first, values } = table;
	const width = degree + 1;
	const stride = (table.order + 1) * width;
	for (let k = 0; k < count; k++) {
		let x = 0,
			y = 0,
			z = 0,
			w = 0;
		let dx = 0,
			dy = 0,
			dz = 0,
			dw = 0;
		let c = 4 * first[k]!;
		let b = k * stride;
		for (let i = 0; i < width; i++, b++, c += 4) {
			const n = values[b]!;
			const d = values[b + width]!;
			const px = net[c]!,
				py = net[c + 1]!,
				pz = net[c + 2]!,
				pw = net[c + 3]!;
			x += n * px;
			y += n * py;
			z += n * pz;
			w += n * pw;
			dx += d * px;
			dy += d * py;
			dz += d * pz;
			dw += d * pw;
		}
		const o = 3 * (start + k);
		const inverse = 1 / w;
		x *= inverse;
		y *= inverse;
		z *= inverse;
		points[o] = x;
		points[o + 1] = y;
		points[o + 2] = z;
		tangents[o] = (dx - dw * x) * inverse;
		tangents[o + 1] = (dy - dw * y) * inverse;
		tangents[o + 2] = (dz - dw * z) * inverse;
	}
}
