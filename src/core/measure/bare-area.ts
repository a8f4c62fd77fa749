import { evaluateRows, surfaceArea, type Surface } from '../geometry/surface';
import { distance, pointAt, type Vector } from '../geometry/vector';
import type { NodeGrid } from '../grid/node-grid';

/** Pieces of a step, both ways, in which its area is measured. */
const PIECES = 4;
/** Less of a face is not told: it is the error of measuring. */
const LEAST_SHARE = 2e-3;

const triangle = (a: Vector, b: Vector, c: Vector): number => {
	const [p, q, r] = [distance(a, b), distance(b, c), distance(c, a)];
	const half = (p + q + r) / 2;
	return Math.sqrt(Math.max(0, half * (half - p) * (half - q) * (half - r)));
};

/**
 * What a net that does not reach every rim leaves of a face, trims left aside (mm²); 0 where it is nothing.
 *
 * ```ts
 * bareArea(surface, grid) / 1e6; // m² that no cell covers
 * ```
 */
export function bareArea(surface: Surface, { columns, rows, u, v, absent }: NodeGrid): number {
	const us: number[] = [];
	const vs: number[] = [];
	let steps = 0;
	for (let j = 0; j + 1 < rows; j++)
		for (let i = 0; i + 1 < columns; i++) {
			const corners = [
				j * columns + i,
				j * columns + i + 1,
				(j + 1) * columns + i + 1,
				(j + 1) * columns + i
			];
			if (corners.some((node) => absent?.[node])) continue;
			steps++;
			const [a, b, c, d] = corners as [number, number, number, number];
			for (let t = 0; t <= PIECES; t++)
				for (let s = 0; s <= PIECES; s++) {
					const [x, y] = [s / PIECES, t / PIECES];
					const mix = (of: Float64Array) =>
						(of[a]! * (1 - x) + of[b]! * x) * (1 - y) + (of[d]! * (1 - x) + of[c]! * x) * y;
					us.push(mix(u));
					vs.push(mix(v));
				}
		}
	const { points } = evaluateRows(surface, Float64Array.from(us), 1, vs);
	const side = PIECES + 1;
	let covered = 0;
	for (let step = 0; step < steps; step++)
		for (let t = 0; t < PIECES; t++)
			for (let s = 0; s < PIECES; s++) {
				const at = step * side * side + t * side + s;
				const [a, b, c, d] = [at, at + 1, at + side + 1, at + side].map((k) => pointAt(points, k)) as [
					Vector,
					Vector,
					Vector,
					Vector
				];
				covered += triangle(a, b, c) + triangle(a, c, d);
			}
	const whole = surfaceArea(surface);
	return whole - covered > LEAST_SHARE * whole ? whole - covered : 0;
}
