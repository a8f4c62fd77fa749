import { evaluateGrid, type Surface, type SurfaceSamples } from '../geometry/surface';
import { NO_DIRECTION } from '../geometry/tolerance';
import { add, length, pointAt, unit, type Vector } from '../geometry/vector';
import { middleOf } from './belt';

/** Of nodes, where the parameters are theirs. */
interface Places {
	readonly u: Float64Array;
	readonly v: Float64Array;
}

/**
 * The normals of a face at the nodes of a net: of length 1, pointing outside, flat x y z.
 * @param samples at all nodes @param poles rows that are one point
 */
export function normalsOf(
	surface: Surface,
	samples: SurfaceSamples,
	places: Places,
	columns: number,
	poles: readonly number[]
): Float64Array {
	const normals = new Float64Array(samples.points.length);
	mendNormals(surface, places, normalise(samples, normals), normals);
	mendPoles(surface, places, columns, poles, normals);
	return normals;
}

/** @returns the samples that have none */
function normalise(samples: SurfaceSamples, normals: Float64Array): number[] {
	const { du, dv } = samples;
	const folded: number[] = [];
	for (let k = 0; k < normals.length; k += 3) {
		const x = du[k + 1]! * dv[k + 2]! - du[k + 2]! * dv[k + 1]!;
		const y = du[k + 2]! * dv[k]! - du[k]! * dv[k + 2]!;
		const z = du[k]! * dv[k + 1]! - du[k + 1]! * dv[k]!;
		const size = Math.sqrt(x * x + y * y + z * z);
		if (!(size > NO_DIRECTION)) {
			folded.push(k / 3);
			continue;
		}
		normals[k] = x / size;
		normals[k + 1] = y / size;
		normals[k + 2] = z / size;
	}
	return folded;
}

/** A parameter a little further inside a face: du × dv may vanish on a rim. */
const inside = (t: number, knots: Float64Array) => t + (middleOf(knots) - t) * 1e-4;

/** Where du × dv vanishes (a pinched corner), the normal a little further inside stands in. */
function mendNormals(
	surface: Surface,
	{ u, v }: Places,
	folded: readonly number[],
	normals: Float64Array
): void {
	for (const node of folded) {
		const at = [inside(u[node]!, surface.knotsU)];
		const up = [inside(v[node]!, surface.knotsV)];
		const one = new Float64Array(3);
		if (normalise(evaluateGrid(surface, at, up), one).length) one.set([0, 0, 1]);
		normals.set(one, 3 * node);
	}
}

/** At a pole a face has the mean of the normals all round it, whichever of its columns is asked. */
function mendPoles(
	surface: Surface,
	{ u, v }: Places,
	columns: number,
	poles: readonly number[],
	normals: Float64Array
): void {
	for (const row of poles) {
		const first = row * columns;
		const up = [inside(v[first]!, surface.knotsV)];
		const around = new Float64Array(3 * columns);
		const ofRow = u.subarray(first, first + columns);
		normalise(evaluateGrid(surface, ofRow, up), around);
		let sum: Vector = [0, 0, 0];
		for (let i = 0; i < columns; i++) sum = add(sum, pointAt(around, i));
		if (!(length(sum) > NO_DIRECTION)) continue;
		for (let i = 0; i < columns; i++) normals.set(unit(sum), 3 * (first + i));
	}
}
