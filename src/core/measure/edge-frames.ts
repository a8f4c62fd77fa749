import { NO_CELL, type Edges } from '../pattern/edges';
import { NO_DIRECTION } from '../geometry/tolerance';

/**
 * The mean of the neighbouring cells' normals, and the angle between them.
 *
 * ```ts
 * const { normal, fold } = edgeFrames(edges, cellNormals);
 * ```
 */
export function edgeFrames(
	edges: Edges,
	normals: Float64Array
): { normal: Float64Array; fold: Float64Array } {
	const normal = new Float64Array(3 * edges.count);
	const fold = new Float64Array(edges.count);
	for (let e = 0; e < edges.count; e++) {
		const l = 3 * edges.left[e]!;
		const r = edges.right[e] === NO_CELL ? l : 3 * edges.right[e]!;
		const ax = normals[l]!;
		const ay = normals[l + 1]!;
		const az = normals[l + 2]!;
		const bx = normals[r]!;
		const by = normals[r + 1]!;
		const bz = normals[r + 2]!;
		const size = Math.sqrt((ax + bx) ** 2 + (ay + by) ** 2 + (az + bz) ** 2);
		// Two cells folded flat against each other have no mean: the first one's normal stands.
		const mean = size > NO_DIRECTION;
		normal[3 * e] = mean ? (ax + bx) / size : ax;
		normal[3 * e + 1] = mean ? (ay + by) / size : ay;
		normal[3 * e + 2] = mean ? (az + bz) / size : az;
		fold[e] = l === r ? 0 : Math.acos(Math.min(1, Math.max(-1, ax * bx + ay * by + az * bz)));
	}
	return { normal, fold };
}
