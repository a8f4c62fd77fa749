import type { ShapeView } from '$lib/worker/views';
import * as THREE from 'three';

/** A face's samples as triangles, two for each step. */
export function shapeGeometry(shape: ShapeView): THREE.BufferGeometry {
	const { columns, rows } = shape;
	const index = new Uint32Array(6 * (columns - 1) * (rows - 1));
	let o = 0;
	for (let j = 0; j + 1 < rows; j++)
		for (let i = 0; i + 1 < columns; i++) {
			const a = j * columns + i;
			const c = a + columns;
			for (const node of [a, a + 1, c + 1, a, c + 1, c]) index[o++] = node;
		}
	const geometry = new THREE.BufferGeometry();
	geometry.setAttribute('position', new THREE.BufferAttribute(shape.positions, 3));
	geometry.setAttribute('normal', new THREE.BufferAttribute(shape.normals, 3));
	geometry.setAttribute(
		'color',
		new THREE.BufferAttribute(new Float32Array(shape.positions.length).fill(1), 3)
	);
	geometry.setIndex(new THREE.BufferAttribute(index, 1));
	return geometry;
}

/** Line segments along the surface's own lines and its rims. */
export function shapeLines({ columns, rows, positions, linesAcross, linesUp }: ShapeView): Float32Array {
	const segments: number[] = [];
	const put = (a: number, b: number) => {
		for (const node of [a, b]) for (let k = 0; k < 3; k++) segments.push(positions[3 * node + k]!);
	};
	for (const i of linesAcross) for (let j = 0; j + 1 < rows; j++) put(j * columns + i, (j + 1) * columns + i);
	for (const j of linesUp) for (let i = 0; i + 1 < columns; i++) put(j * columns + i, j * columns + i + 1);
	return Float32Array.from(segments);
}

/** Only the rims: the first and last lines of both directions. */
export function shapeRims(shape: ShapeView): Float32Array {
	return shapeLines({ ...shape, linesAcross: [0, shape.columns - 1], linesUp: [0, shape.rows - 1] });
}

/** Where the triangles of a face meet an upright or level plane: segments, mm from the face's origin. */
export function cutSegments(shape: ShapeView, axis: 0 | 1 | 2, at: number): Float32Array {
	const { columns, rows, positions, origin } = shape;
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
	for (let j = 0; j + 1 < rows; j++)
		for (let i = 0; i + 1 < columns; i++) {
			const a = j * columns + i;
			triangle(a, a + 1, a + columns + 1);
			triangle(a, a + columns + 1, a + columns);
		}
	return Float32Array.from(segments);
}
