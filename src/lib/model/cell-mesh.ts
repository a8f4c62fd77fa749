import type { FaceView } from '$lib/worker/views';
import * as THREE from 'three';

/** The plain cells of a face as triangles, in mm from `origin`. */
export interface CellTriangles {
	readonly geometry: THREE.BufferGeometry;
	/** The cell each triangle belongs to. */
	readonly cell: Uint32Array;
	readonly origin: readonly [number, number, number];
}

/** Triangles are a fan from corner 1; colours are filled in by `colourCells`. */
export function cellTriangles(face: FaceView): CellTriangles {
	const { cells, positions } = face;
	const triangles = cells.corners.length - 2 * cells.count;
	const origin = [0, 1, 2].map((k) => Math.round(positions[k] ?? 0)) as [number, number, number];
	const points = new Float32Array(9 * triangles);
	const cell = new Uint32Array(triangles);
	let t = 0;
	for (let c = 0; c < cells.count; c++) {
		const first = cells.start[c]!;
		for (let k = first + 1; k + 1 < cells.start[c + 1]!; k++, t++) {
			cell[t] = c;
			[first, k, k + 1].forEach((corner, n) => {
				const from = 3 * cells.corners[corner]!;
				for (let a = 0; a < 3; a++) points[9 * t + 3 * n + a] = positions[from + a]! - origin[a]!;
			});
		}
	}
	const geometry = new THREE.BufferGeometry();
	geometry.setAttribute('position', new THREE.BufferAttribute(points, 3));
	geometry.setAttribute('color', new THREE.BufferAttribute(new Float32Array(9 * triangles).fill(1), 3));
	geometry.computeVertexNormals();
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
	for (let t = 0; t < cell.length; t++) {
		const rgb = linear[of[cell[t]!]!]!;
		for (let n = 0; n < 3; n++) colours.set(rgb, 9 * t + 3 * n);
	}
	attribute.needsUpdate = true;
}

/** The pattern's lines, each once, in mm from `origin`. */
export function lineSegments(
	face: FaceView,
	origin: readonly number[],
	wanted?: readonly number[]
): Float32Array {
	const { edges, positions } = face;
	const list = wanted ?? Array.from({ length: edges.count }, (_, e) => e);
	const points = new Float32Array(6 * list.length);
	list.forEach((e, k) => {
		for (let a = 0; a < 3; a++) {
			points[6 * k + a] = positions[3 * edges.from[e]! + a]! - origin[a]!;
			points[6 * k + 3 + a] = positions[3 * edges.to[e]! + a]! - origin[a]!;
		}
	});
	return points;
}
