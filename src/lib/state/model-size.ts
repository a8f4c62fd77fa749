import type { ElementShape } from '$core/part/element-table';
import { triangleCount } from '$core/part/places';
import type { ModelView } from './model.svelte';

/** What a model takes. */
export interface ModelSize {
	readonly triangles: number;
	readonly bytes: number;
}

const bytesIn = (columns: readonly (ArrayBufferView | undefined)[]) =>
	columns.reduce((sum, column) => sum + (column?.byteLength ?? 0), 0);

function columnsOf(shape: ElementShape): readonly ArrayBufferView[] {
	switch (shape.is) {
		case 'made':
			return [shape.positions];
		case 'placed':
			return [shape.unit, shape.maps, shape.mirrored];
		case 'own':
			return [shape.positions, shape.triangles, shape.firstVertex, shape.firstCorner];
	}
}

/** What the pieces, cells and nodes of a model take in the page. */
export function modelSize({ zones }: Pick<ModelView, 'zones'>): ModelSize {
	let [triangles, bytes] = [0, 0];
	for (const { faces, groups } of zones) {
		for (const { cells, edges, grid, measures } of faces)
			bytes += bytesIn([
				cells.start,
				cells.corners,
				cells.share,
				edges.from,
				edges.to,
				edges.left,
				edges.right,
				grid.positions,
				grid.normals,
				...Object.values(measures)
			]);
		for (const { sites, mass, elements } of groups) {
			bytes += bytesIn([sites, mass]);
			for (const { shape, count, row } of elements) {
				triangles += triangleCount({ shape, count });
				bytes += bytesIn([row, ...columnsOf(shape)]);
			}
		}
	}
	return { triangles, bytes };
}
