import { evaluateCurve } from './curve';
import { bezierChain, chainCurve, type BezierChain } from './path';
import type { Vector } from './vector';

/** Samples for each piece when a curve is measured. */
const EACH = 64;

function samples(chain: BezierChain): Float64Array {
	const at: number[] = [];
	for (let k = 0; k + 1 < chain.breaks.length; k++)
		for (let s = 0; s < EACH; s++)
			at.push(chain.breaks[k]! + (s / EACH) * (chain.breaks[k + 1]! - chain.breaks[k]!));
	at.push(1);
	return evaluateCurve(chainCurve(chain), at).points;
}

/** The distance from a point to a polyline. */
function distanceToLine(line: Float64Array, p: Vector): number {
	let least = Infinity;
	for (let k = 0; k + 5 < line.length; k += 3) {
		let [along, size] = [0, 0];
		for (let a = 0; a < 3; a++) {
			const way = line[k + 3 + a]! - line[k + a]!;
			along += way * (p[a]! - line[k + a]!);
			size += way * way;
		}
		const t = size > 0 ? Math.min(1, Math.max(0, along / size)) : 0;
		let far = 0;
		for (let a = 0; a < 3; a++) far += (p[a]! - line[k + a]! - t * (line[k + 3 + a]! - line[k + a]!)) ** 2;
		least = Math.min(least, far);
	}
	return Math.sqrt(least);
}

/**
 * A smooth curve through points that are evenly spread along another one.
 *
 * ```ts
 * const { points, deviation } = evenPoints(chainOfPoints, 12, false);
 * ```
 * @param count points, the two ends included; for a closed curve its first point is not repeated
 * @returns the points and the largest deviation of the smooth curve from the old one (mm)
 */
export function evenPoints(
	chain: BezierChain,
	count: number,
	closed: boolean
): { points: Vector[]; deviation: number } {
	const line = samples(chain);
	const upTo = [0];
	for (let k = 3; k < line.length; k += 3)
		upTo.push(
			upTo.at(-1)! +
				Math.hypot(line[k]! - line[k - 3]!, line[k + 1]! - line[k - 2]!, line[k + 2]! - line[k - 1]!)
		);
	const total = upTo.at(-1)!;
	let k = 0;
	const points = Array.from({ length: count }, (_, n): Vector => {
		const wanted = (total * n) / (closed ? count : count - 1);
		while (k + 2 < upTo.length && upTo[k + 1]! < wanted) k++;
		const share = (wanted - upTo[k]!) / (upTo[k + 1]! - upTo[k]! || 1);
		return [0, 1, 2].map(
			(a) => line[3 * k + a]! + share * (line[3 * k + 3 + a]! - line[3 * k + a]!)
		) as unknown as Vector;
	});
	const round = closed ? [...points, points[0]!] : points;
	const made = samples(bezierChain(round, new Array<'smooth'>(round.length - 1).fill('smooth')));
	let deviation = 0;
	for (let n = 0; n < made.length; n += 3)
		deviation = Math.max(deviation, distanceToLine(line, [made[n]!, made[n + 1]!, made[n + 2]!]));
	return { points, deviation };
}
