import {
	add,
	distance,
	dot,
	cross,
	length,
	scale,
	subtract,
	centreOf,
	pointAt,
	type Vector
} from '../../src/core/geometry/vector';
import type { Cells } from '../../src/core/pattern/cells';

/** The yardstick: the same measures with an object per cell and vectors as arrays, as one would first write it. */
export function measureNaively(cells: Cells, positions: Float64Array) {
	return Array.from({ length: cells.count }, (_, c) => {
		const corners = [...cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!)].map((node) =>
			pointAt(positions, node)
		);
		const centre = centreOf(corners);
		const next = (k: number) => corners[(k + 1) % corners.length]!;
		const before = (k: number) => corners[(k + corners.length - 1) % corners.length]!;
		const edges = corners.map((p, k) => distance(p, next(k)));
		const sum = corners.reduce<Vector>(
			(total, p, k) => add(total, cross(subtract(p, centre), subtract(next(k), centre))),
			[0, 0, 0]
		);
		const fans = corners.map((p, k) => cross(subtract(p, centre), subtract(next(k), centre)));
		const angles = corners.map((p, k) => {
			const a = subtract(before(k), p);
			const b = subtract(next(k), p);
			const angle = Math.acos(Math.min(1, Math.max(-1, dot(a, b) / (length(a) * length(b)))));
			return dot(cross(b, a), sum) < 0 ? 2 * Math.PI - angle : angle;
		});
		const diagonals =
			corners.length === 4
				? cross(subtract(corners[2]!, corners[0]!), subtract(corners[3]!, corners[1]!))
				: null;
		return {
			area: fans.map(length).reduce((a, b) => a + b, 0) / 2,
			perimeter: edges.reduce((a, b) => a + b, 0),
			longestEdge: Math.max(...edges),
			shortestEdge: Math.min(...edges),
			smallestAngle: Math.min(...angles),
			largestAngle: Math.max(...angles),
			warp:
				diagonals && length(diagonals) > 0
					? Math.abs(dot(subtract(corners[1]!, corners[0]!), diagonals)) / length(diagonals)
					: 0,
			centre,
			normal: scale(sum, 1 / (length(sum) || 1))
		};
	});
}
