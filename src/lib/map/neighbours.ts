import { NO_CELL } from '$core/pattern/edges';
import type { FaceView } from '$lib/worker/views';
import type { FlatLayout } from './layout';

export type Way = 'left' | 'right' | 'up' | 'down';
const ways: Record<Way, readonly [number, number]> = {
	left: [-1, 0],
	right: [1, 0],
	up: [0, 1],
	down: [0, -1]
};

function middle(face: FaceView, layout: FlatLayout, c: number): [number, number] {
	const from = face.cells.start[c]!;
	const to = face.cells.start[c + 1]!;
	let x = 0;
	let y = 0;
	for (let k = from; k < to; k++) {
		x += layout.points[2 * k]!;
		y += layout.points[2 * k + 1]!;
	}
	return [x / (to - from), y / (to - from)];
}

/** The neighbour over an edge, or over a corner, that lies best in a direction on the flat map. */
export function neighbour(face: FaceView, layout: FlatLayout, c: number, way: Way): number | null {
	const { edges, cells } = face;
	const corners = new Set(cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!));
	const near = new Set<number>();
	for (let e = 0; e < edges.count; e++)
		if (corners.has(edges.from[e]!) || corners.has(edges.to[e]!))
			for (const cell of [edges.left[e]!, edges.right[e]!])
				if (cell !== NO_CELL && cell !== c) near.add(cell);
	const [x, y] = middle(face, layout, c);
	const [dx, dy] = ways[way];
	let best: number | null = null;
	let most = 0.5;
	for (const cell of near) {
		const [nx, ny] = middle(face, layout, cell);
		const size = Math.hypot(nx - x, ny - y);
		const along = size ? ((nx - x) * dx + (ny - y) * dy) / size : 0;
		if (along > most) {
			most = along;
			best = cell;
		}
	}
	return best;
}
