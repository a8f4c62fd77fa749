import { NO_DIRECTION } from '../geometry/tolerance';
import { add, cross, distance, length, mix, scale, subtract, type Vector } from '../geometry/vector';
import type { SurfaceLine } from '../mass/rim-lines';

const unit = (a: Vector, otherwise: Vector): Vector => {
	const size = length(a);
	return size > NO_DIRECTION ? scale(a, 1 / size) : otherwise;
};

/** Where a line goes at each of its points. */
function tangents({ points, closed }: SurfaceLine): Vector[] {
	const n = points.length;
	return points.map((point, k) => {
		const before = points[k > 0 ? k - 1 : closed ? n - 1 : 0]!;
		const after = points[k < n - 1 ? k + 1 : closed ? 0 : n - 1]!;
		const there = unit(subtract(point, before), [0, 0, 0]);
		const on = unit(subtract(after, point), [0, 0, 0]);
		return unit(add(there, on), [1, 0, 0]);
	});
}

/**
 * A line moved along its normals and to the left of its run on the face.
 *
 * ```ts
 * const [eaves] = rimLines([face], 'foot');
 * const rail = movedLine(eaves!, { lift: 900, aside: 0 });
 * ```
 * @param by mm
 */
export function movedLine(
	line: SurfaceLine,
	by: { readonly lift: number; readonly aside: number }
): SurfaceLine {
	if (!by.lift && !by.aside) return line;
	const along = tangents(line);
	return {
		...line,
		points: line.points.map((point, k) => {
			const normal = line.normals[k]!;
			const left = unit(cross(normal, along[k]!), [0, 0, 0]);
			return add(point, add(scale(normal, by.lift), scale(left, by.aside)));
		})
	};
}

/**
 * True length of a line (mm), a closed one all round.
 *
 * ```ts
 * const [eaves] = rimLines([face], 'foot');
 * const metres = lengthOfLine(eaves!) / 1000;
 * ```
 */
export function lengthOfLine({ points, closed }: SurfaceLine): number {
	let sum = 0;
	for (let k = 1; k < points.length; k++) sum += distance(points[k - 1]!, points[k]!);
	return closed ? sum + distance(points.at(-1)!, points[0]!) : sum;
}

/** Stations on a line: flat x y z (mm), and what is outside there. */
export interface Stations {
	readonly positions: Float64Array;
	readonly normals: Float64Array;
}

/**
 * Stations at shares of a line's true length, ascending; on a closed line the last share is the first once more and
 * makes none.
 *
 * ```ts
 * const [eaves] = rimLines([face], 'foot');
 * const { positions } = stationsOn(eaves!, [0, 0.5, 1]);
 * ```
 */
export function stationsOn(line: SurfaceLine, shares: ArrayLike<number>): Stations {
	const { closed } = line;
	const points = closed ? [...line.points, line.points[0]!] : line.points;
	const normals = closed ? [...line.normals, line.normals[0]!] : line.normals;
	const whole = lengthOfLine(line);
	const count = shares.length - (closed ? 1 : 0);
	const [positions, outside] = [new Float64Array(3 * count), new Float64Array(3 * count)];
	let [k, before] = [1, 0];
	let side = distance(points[0]!, points[1]!);
	for (let n = 0; n < count; n++) {
		const wanted = shares[n]! * whole;
		while (k < points.length - 1 && before + side < wanted) {
			before += side;
			k++;
			side = distance(points[k - 1]!, points[k]!);
		}
		const share = side > 0 ? Math.min(1, Math.max(0, (wanted - before) / side)) : 0;
		positions.set(mix(points[k - 1]!, points[k]!, share), 3 * n);
		outside.set(unit(mix(normals[k - 1]!, normals[k]!, share), normals[k]!), 3 * n);
	}
	return { positions, normals: outside };
}
