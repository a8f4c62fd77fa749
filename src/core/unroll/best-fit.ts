import { fills } from '../geometry/triangulate';
import { cross, pointAt, subtract, unit, type Vector } from '../geometry/vector';
import { Rows } from '../moves/least-squares';
import type { Side } from './outer-side';
import type { Unfolding } from './unfolding';

const ROUNDS = 80;
const INNER_ROUNDS = 400;
/** Corners that move by less (mm) have come to rest. */
const AT_REST = 1e-4;
/** How near to where it stands a corner is held at first, in shares of what its sides pull at it. */
const [HELD, LOOSER, TIGHTER] = [1e-4, 0.3, 8];

/** Corners as they are seen against the way that the side looks, all in all. */
function seen({ points, triangles }: Side): Float64Array {
	const sum: [number, number, number] = [0, 0, 0];
	for (let k = 0; k < triangles.length; k += 3) {
		const a = pointAt(points, triangles[k]!);
		const twice = cross(
			subtract(pointAt(points, triangles[k + 1]!), a),
			subtract(pointAt(points, triangles[k + 2]!), a)
		);
		for (let n = 0; n < 3; n++) sum[n]! += twice[n]!;
	}
	const normal = unit(sum);
	const least = Math.abs(normal[0]) < 0.6 ? ([1, 0, 0] as const) : ([0, 1, 0] as const);
	const right = unit(cross(least, normal)) satisfies Vector;
	const up = cross(normal, right);
	const flat = new Float64Array((2 * points.length) / 3);
	for (let k = 0; k < flat.length / 2; k++) {
		flat[2 * k] = points[3 * k]! * right[0] + points[3 * k + 1]! * right[1] + points[3 * k + 2]! * right[2];
		flat[2 * k + 1] = points[3 * k]! * up[0] + points[3 * k + 1]! * up[1] + points[3 * k + 2]! * up[2];
	}
	return flat;
}

/** How far each side is from its length, as rows of a sparse matrix. */
function fillRows(rows: Rows, unfolding: Unfolding, points: Float64Array, flat: Float64Array): void {
	rows.clear();
	unfolding.eachSide(points, (a, b, length) => {
		const [dx, dy] = [flat[2 * b]! - flat[2 * a]!, flat[2 * b + 1]! - flat[2 * a + 1]!];
		const size = Math.hypot(dx, dy) || 1;
		rows.put(2 * a, -dx / size);
		rows.put(2 * a + 1, -dy / size);
		rows.put(2 * b, dx / size);
		rows.put(2 * b + 1, dy / size);
		rows.end(size - length);
	});
}

/**
 * Corners of a side that is curved both ways laid flat so that its sides are, all in all, as near to their lengths as can
 * be: least squares, by Levenberg and Marquardt's steps.
 * @param laid a first try @returns x y of every corner (mm)
 */
export function bestFit(side: Side, unfolding: Unfolding, laid: Float64Array): Float64Array {
	const { points, triangles } = side;
	const from = seen(side);
	let flat = fills(from, triangles) ? from : laid.slice();
	const rows = new Rows();
	const none = new Float64Array(flat.length);
	let held = HELD;
	fillRows(rows, unfolding, points, flat);
	for (let round = 0; round < ROUNDS; round++) {
		const before = rows.energy();
		const step = rows.step(none, held, () => undefined, INNER_ROUNDS);
		const moved = flat.map((value, k) => value + step[k]!);
		fillRows(rows, unfolding, points, moved);
		if (rows.energy() > before) {
			held *= TIGHTER;
			fillRows(rows, unfolding, points, flat);
			continue;
		}
		held *= LOOSER;
		flat = moved;
		if (step.every((value) => Math.abs(value) < AT_REST)) break;
	}
	return flat;
}
