import { evaluateRows, type Surface } from '../../geometry/surface';
import type { SettingOut } from '../../project/setting-out-schema';
import type { Belt } from '../belt';
import type { NodeNet, Spread } from '../node-grid';
import { lineNet } from './lines';

/** Pieces a geodesic is made of for each course, at least so many in all. */
const LEAST_PIECES = 24;
const ROUNDS = 60;
/** A line is straight enough when its points move less than this share of the face. */
const STILL = 1e-12;

/**
 * Draw a line on a surface straight: its inner points are moved so that the sum of its squared chords is
 * least, which makes it a geodesic with even steps (Gauss-Newton; the normal equations are block
 * tridiagonal). Ends stay.
 * @param u, v parameters of the points, changed in place; within the surface
 */
export function straighten(surface: Surface, u: Float64Array, v: Float64Array): void {
	const n = u.length;
	const { knotsU, knotsV } = surface;
	const [lowU, highU, lowV, highV] = [knotsU[0]!, knotsU.at(-1)!, knotsV[0]!, knotsV.at(-1)!];
	for (let round = 0; round < ROUNDS; round++) {
		const { points, du, dv } = evaluateRows(surface, u, 1, v);
		const dot = (a: Float64Array, i: number, b: Float64Array, j: number) =>
			a[3 * i]! * b[3 * j]! + a[3 * i + 1]! * b[3 * j + 1]! + a[3 * i + 2]! * b[3 * j + 2]!;
		// For every inner point k: 2 · JᵀJ on the diagonal, −JₖᵀJₖ₊₁ beside it, the pull of its two chords.
		const upper: number[][] = [];
		const right: number[][] = [];
		for (let k = 1; k + 1 < n; k++) {
			const pull = [0, 1, 2].map(
				(a) => points[3 * (k + 1) + a]! + points[3 * (k - 1) + a]! - 2 * points[3 * k + a]!
			);
			const along = (t: Float64Array) =>
				t[3 * k]! * pull[0]! + t[3 * k + 1]! * pull[1]! + t[3 * k + 2]! * pull[2]!;
			let [a, b, d] = [2 * dot(du, k, du, k), 2 * dot(du, k, dv, k), 2 * dot(dv, k, dv, k)];
			let c = b;
			let [p, q] = [along(du), along(dv)];
			if (k > 1) {
				// Take the row above off: L = −JₖᵀJₖ₋₁.
				const [e, f, g, h] = [
					-dot(du, k, du, k - 1),
					-dot(du, k, dv, k - 1),
					-dot(dv, k, du, k - 1),
					-dot(dv, k, dv, k - 1)
				];
				const [w, x, y, z] = upper[k - 2]! as [number, number, number, number];
				const [r, s] = right[k - 2]! as [number, number];
				a -= e * w + f * y;
				b -= e * x + f * z;
				c -= g * w + h * y;
				d -= g * x + h * z;
				p -= e * r + f * s;
				q -= g * r + h * s;
			}
			const det = a * d - b * c || 1e-300;
			const [e, f, g, h] = [
				-dot(du, k, du, k + 1),
				-dot(du, k, dv, k + 1),
				-dot(dv, k, du, k + 1),
				-dot(dv, k, dv, k + 1)
			];
			upper.push([
				(d * e - b * g) / det,
				(d * f - b * h) / det,
				(a * g - c * e) / det,
				(a * h - c * f) / det
			]);
			right.push([(d * p - b * q) / det, (a * q - c * p) / det]);
		}
		let moved = 0;
		let [x, y] = [0, 0];
		for (let k = n - 2; k >= 1; k--) {
			const [w, s, t, z] = upper[k - 1]! as [number, number, number, number];
			const [p, q] = right[k - 1]! as [number, number];
			[x, y] = [p - w * x - s * y, q - t * x - z * y];
			u[k] = Math.min(highU, Math.max(lowU, u[k]! + x));
			v[k] = Math.min(highV, Math.max(lowV, v[k]! + y));
			moved = Math.max(moved, Math.abs(x) / (highU - lowU), Math.abs(y) / (highV - lowV));
		}
		if (!(moved > STILL)) return;
	}
}

/**
 * Bay lines run straight on the face, as geodesics from the foot to the head, both divided by true length;
 * courses divide each of them by its own length.
 */
export function geodesicNet(
	surface: Surface,
	settingOut: SettingOut,
	spreads: { across: Spread; up: Spread },
	belts: { across: Belt; up: Belt }
): NodeNet {
	const { columns, rows, u, v } = lineNet(surface, { ...settingOut, along: 'true length' }, spreads, belts);
	const net: NodeNet = { columns, rows, u, v, absent: null, rims: null, open: false };
	const { fractions } = spreads.up.division;
	if (spreads.up.closed || rows < 3) return net;
	const pieces = Math.max(LEAST_PIECES, 2 * (rows - 1));
	const period = surface.knotsU.at(-1)! - surface.knotsU[0]!;
	const low = surface.knotsU[0]!;
	for (let i = 0; i < columns; i++) {
		const [foot, head] = [u[i]!, u[(rows - 1) * columns + i]!];
		const turn = foot >= low + period ? period : 0;
		const [from, to] = [foot - turn, head - turn];
		const lineU = Float64Array.from({ length: pieces + 1 }, (_, k) => from + (k / pieces) * (to - from));
		const lineV = Float64Array.from(
			{ length: pieces + 1 },
			(_, k) => v[i]! + (k / pieces) * (v[(rows - 1) * columns + i]! - v[i]!)
		);
		straighten(surface, lineU, lineV);
		for (let j = 1; j + 1 < rows; j++) {
			const at = fractions[j]! * pieces;
			const k = Math.min(pieces - 1, Math.floor(at));
			const mix = (line: Float64Array) => line[k]! + (at - k) * (line[k + 1]! - line[k]!);
			u[j * columns + i] = mix(lineU) + turn;
			v[j * columns + i] = mix(lineV);
		}
	}
	return net;
}
