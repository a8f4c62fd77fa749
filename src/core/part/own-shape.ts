import type { ClosedMesh } from '../geometry/solid/library';
import type { Own } from './element-table';
import { bufferOf } from './shared-memory';

/**
 * Meshes one after the other, each that of its own instance.
 *
 * ```ts
 * const shape = ownShape([{ vertices: [0, 0, 0, 1, 0, 0, 0, 1, 0], triangles: [0, 1, 2] }]);
 * ```
 */
export function ownShape(meshes: readonly ClosedMesh[]): Own {
	const starts = (sizeOf: (mesh: ClosedMesh) => number) => {
		const first = new Uint32Array(meshes.length + 1);
		for (const [n, mesh] of meshes.entries()) first[n + 1] = first[n]! + sizeOf(mesh);
		return first;
	};
	const firstVertex = starts(({ vertices }) => vertices.length / 3);
	const firstCorner = starts(({ triangles }) => triangles.length);
	const positions = new Float32Array(bufferOf(12 * firstVertex[meshes.length]!));
	const corners = new Uint32Array(bufferOf(4 * firstCorner[meshes.length]!));
	for (const [n, { vertices, triangles }] of meshes.entries()) {
		positions.set(vertices, 3 * firstVertex[n]!);
		corners.set(triangles, firstCorner[n]!);
	}
	return { is: 'own', positions, firstVertex, triangles: corners, firstCorner };
}
