import { flattened, isConvexRing, triangulate } from '$core/geometry/triangulate';
import { outlineOf } from '$core/pattern/cells';
import type { FaceView } from '$lib/worker/views';
import * as THREE from 'three';

/** The plain cells of a face as triangles, in mm from `origin`. */
export interface CellTriangles {
	readonly geometry: THREE.BufferGeometry;
	/** The cell each triangle belongs to. */
	readonly cell: Uint32Array;
	readonly origin: readonly [number, number, number];
}

/** Triangles of every cell; colours are filled in by `colourCells`. */
export function cellTriangles(face: FaceView): CellTriangles {
	const { cells, grid } = face;
	const { positions } = grid;
	const { start, nodes: rims } = outlineOf(cells);
	const { pierced } = cells;
	const around = new Map(
		Array.from(pierced?.cells ?? [], (c, k) => [
			c,
			pierced!.triangles.subarray(pierced!.firstCorner[k]!, pierced!.firstCorner[k + 1]!)
		])
	);
	let triangles = rims.length - 2 * cells.count;
	for (const [c, found] of around) triangles += found.length / 3 - (start[c + 1]! - start[c]! - 2);
	const origin = [0, 1, 2].map((k) => Math.round(positions[k] ?? 0)) as [number, number, number];
	const points = new Float32Array(9 * triangles);
	const cell = new Uint32Array(triangles);
	let o = 0;
	const put = (node: number) => {
		for (let a = 0; a < 3; a++) points[o++] = positions[3 * node + a]! - origin[a]!;
	};
	for (let c = 0, t = 0; c < cells.count; c++) {
		const own = around.size ? around.get(c) : undefined;
		const [from, to] = [start[c]!, start[c + 1]!];
		if (!own && (to - from === 3 || isConvexRing(positions, rims, from, to))) {
			for (let k = from + 2; k < to; k++) {
				cell[t++] = c;
				put(rims[from]!);
				put(rims[k - 1]!);
				put(rims[k]!);
			}
			continue;
		}
		const nodes = rims.subarray(from, to);
		const found = own ?? triangulate(flattened(positions, nodes));
		for (let k = 0; k < found.length; k += 3) {
			cell[t++] = c;
			for (let n = k; n < k + 3; n++) put(own ? own[n]! : nodes[found[n]!]!);
		}
	}
	const geometry = new THREE.BufferGeometry();
	geometry.setAttribute('position', new THREE.BufferAttribute(points, 3));
	geometry.setAttribute('color', new THREE.BufferAttribute(new Float32Array(9 * triangles), 3));
	return { geometry, cell, origin };
}

export function colourCells(
	{ geometry, cell }: CellTriangles,
	palette: readonly string[],
	of: Uint8Array
): void {
	const linear = palette.map((css) => new THREE.Color(css).toArray());
	const attribute = geometry.getAttribute('color') as THREE.BufferAttribute;
	const colours = attribute.array as Float32Array;
	for (let t = 0, o = 0; t < cell.length; t++) {
		const [r, g, b] = linear[of[cell[t]!]!]!;
		for (let n = 0; n < 3; n++) {
			colours[o++] = r!;
			colours[o++] = g!;
			colours[o++] = b!;
		}
	}
	attribute.needsUpdate = true;
}

/** The pattern's lines, each once, in mm from `origin`. */
export function lineSegments(
	face: FaceView,
	origin: readonly number[],
	wanted?: readonly number[]
): Float32Array {
	const { edges, grid } = face;
	const { positions } = grid;
	const count = wanted?.length ?? edges.count;
	const points = new Float32Array(6 * count);
	for (let k = 0, o = 0; k < count; k++) {
		const e = wanted ? wanted[k]! : k;
		for (const node of [edges.from[e]!, edges.to[e]!])
			for (let a = 0; a < 3; a++) points[o++] = positions[3 * node + a]! - origin[a]!;
	}
	return points;
}
