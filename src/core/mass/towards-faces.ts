import { distance, length, mix, unit, type Vector } from '../geometry/vector';
import type { Face } from './face';
import { pointsOn, type SurfaceLine } from './rim-lines';
import { nearestOnFace } from './trim/project';

/** A straight piece of a line is followed on the faces in so many. */
const IN_A_PIECE = 48;

/** A line with points put in between its corners. */
function dense({ points, closed }: SurfaceLine): Vector[] {
	const pieces = closed ? points.length : points.length - 1;
	const found = Array.from({ length: pieces * IN_A_PIECE }, (_, k) => {
		const piece = Math.floor(k / IN_A_PIECE);
		return mix(points[piece]!, points[(piece + 1) % points.length]!, (k % IN_A_PIECE) / IN_A_PIECE);
	});
	return closed ? found : [...found, points.at(-1)!];
}

/**
 * A line led towards faces: each of its points moved by a share of the way to the nearest place of them, and what is
 * outside turned as far. A share of 0 leaves it as it is, 1 lays it on the faces.
 *
 * ```ts
 * const line = { points: [[0, 0, 9000], [9000, 0, 9000]], normals: [[0, 0, 1], [0, 0, 1]], closed: false } as const;
 * const half = towardsFaces(line, [face], 0.5);
 * ```
 */
export function towardsFaces(line: SurfaceLine, faces: readonly Face[], share: number): SurfaceLine {
	if (share === 0 || !faces.length) return line;
	const points = dense(line);
	const onFaces = faces.map((face) => pointsOn(face, nearestOnFace(face, points)));
	const nearest = points.map((point, k) => {
		const away = onFaces.map((one) => distance(point, one.points[k]!));
		return onFaces[away.indexOf(Math.min(...away))]!;
	});
	// Free of the face what stands on a line stands upright; on the way it turns with it.
	const UP: Vector = [0, 0, 1];
	return {
		points: points.map((point, k) => mix(point, nearest[k]!.points[k]!, share)),
		normals: nearest.map(({ normals }, k) => {
			const between = mix(UP, normals[k]!, share);
			return length(between) > 1e-6 ? unit(between) : normals[k]!;
		}),
		closed: line.closed
	};
}
