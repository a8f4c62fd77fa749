import { NO_CELL } from '$core/pattern/edges';
import type { FaceView } from '$lib/worker/views';
import type { FlatLayout } from '$core/measure/flat-layout';
import { middleOfCell } from './map-sheets';

export type Way = 'left' | 'right' | 'up' | 'down';
const ways: Record<Way, readonly [number, number]> = {
	left: [-1, 0],
	right: [1, 0],
	up: [0, 1],
	down: [0, -1]
};

/** The neighbour over an edge, or over a corner, that lies best in a direction on the flat map. */
export function neighbour(face: FaceView, layout: FlatLayout, c: number, way: Way): number | null {
	const { edges, cells } = face;
	const corners = new Set(cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!));
	const near = new Set<number>();
	for (let e = 0; e < edges.count; e++)
		if (corners.has(edges.from[e]!) || corners.has(edges.to[e]!))
			for (const cell of [edges.left[e]!, edges.right[e]!])
				if (cell !== NO_CELL && cell !== c) near.add(cell);
	const { x, y } = middleOfCell({ face, layout }, c);
	const [dx, dy] = ways[way];
	let best: number | null = null;
	let most = 0.5;
	for (const cell of near) {
		const { x: nx, y: ny } = middleOfCell({ face, layout }, cell);
		const size = Math.hypot(nx - x, ny - y);
		const along = size ? ((nx - x) * dx + (ny - y) * dy) / size : 0;
		if (along > most) {
			most = along;
			best = cell;
		}
	}
	return best;
}
