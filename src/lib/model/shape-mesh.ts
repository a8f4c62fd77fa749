import type { ShapeView } from '$lib/worker/views';
import * as THREE from 'three';

/** A face's samples as triangles. */
export function shapeGeometry(shape: ShapeView): THREE.BufferGeometry {
	const geometry = new THREE.BufferGeometry();
	geometry.setAttribute('position', new THREE.BufferAttribute(shape.positions, 3));
	geometry.setAttribute('normal', new THREE.BufferAttribute(shape.normals, 3));
	geometry.setAttribute(
		'color',
		new THREE.BufferAttribute(new Float32Array(shape.positions.length).fill(1), 3)
	);
	geometry.setIndex(new THREE.BufferAttribute(shape.triangles, 1));
	return geometry;
}

/** Line segments along the surface's own lines, where something is left of the face beside them. */
export function shapeLines({
	columns,
	rows,
	positions,
	linesAcross,
	linesUp,
	triangles
}: ShapeView): Float32Array {
	const used = new Uint8Array(positions.length / 3);
	for (const node of triangles) used[node] = 1;
	const segments: number[] = [];
	const put = (a: number, b: number) => {
		if (!used[a] || !used[b]) return;
		for (const node of [a, b]) for (let k = 0; k < 3; k++) segments.push(positions[3 * node + k]!);
	};
	for (const i of linesAcross) for (let j = 0; j + 1 < rows; j++) put(j * columns + i, (j + 1) * columns + i);
	for (const j of linesUp) for (let i = 0; i + 1 < columns; i++) put(j * columns + i, j * columns + i + 1);
	return Float32Array.from(segments);
}

/** The rims: the first and last lines of both directions, and the trims. */
export function shapeRims(shape: ShapeView): Float32Array {
	const own = shapeLines({ ...shape, linesAcross: [0, shape.columns - 1], linesUp: [0, shape.rows - 1] });
	const all = new Float32Array(own.length + shape.trimLines.length);
	all.set(own);
	all.set(shape.trimLines, own.length);
	return all;
}

/** Where the triangles of a face meet an upright or level plane: segments, mm from the face's origin. */
export function cutSegments(shape: ShapeView, axis: 0 | 1 | 2, at: number): Float32Array {
	const { triangles, positions, origin } = shape;
	const level = at - origin[axis];
	const segments: number[] = [];
	const crossing = (a: number, b: number): number[] | null => {
		const [p, q] = [positions[3 * a + axis]! - level, positions[3 * b + axis]! - level];
		if (p < 0 === q < 0) return null;
		const t = p / (p - q);
		return [0, 1, 2].map((k) => positions[3 * a + k]! + t * (positions[3 * b + k]! - positions[3 * a + k]!));
	};
	const triangle = (a: number, b: number, c: number) => {
		const points = [crossing(a, b), crossing(b, c), crossing(c, a)].filter((one) => one !== null);
		if (points.length === 2) segments.push(...points[0]!, ...points[1]!);
	};
	for (let k = 0; k < triangles.length; k += 3) triangle(triangles[k]!, triangles[k + 1]!, triangles[k + 2]!);
	return Float32Array.from(segments);
}
