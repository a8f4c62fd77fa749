import { turnedOver } from '../../geometry/triangulate';
import type { RawMesh } from './recipe';

/**
 * A sheet with a thickness: its vertices moved along the normals there by half of it to either side, its open edges
 * walled, all of it brought to the unit box again.
 * @param mesh open, in the unit box, its outside where its triangles run anticlockwise
 * @param sizes of the box the mesh was drawn in, in any unit: thickness is even there
 * @param thickness as a share of the largest size
 */
export function shellOf(
	{ vertices, triangles }: RawMesh,
	sizes: readonly number[],
	thickness: number
): RawMesh {
	const count = vertices.length / 3;
	const places = vertices.map((value, k) => value * sizes[k % 3]!);
	const normals = new Float64Array(vertices.length);
	for (let t = 0; t < triangles.length; t += 3) {
		const [p, q, r] = [triangles[t]! * 3, triangles[t + 1]! * 3, triangles[t + 2]! * 3];
		const u = [0, 1, 2].map((a) => places[q + a]! - places[p + a]!);
		const v = [0, 1, 2].map((a) => places[r + a]! - places[p + a]!);
		for (let a = 0; a < 3; a++) {
			const [b, c] = [(a + 1) % 3, (a + 2) % 3];
			const area = u[b]! * v[c]! - u[c]! * v[b]!;
			for (const at of [p, q, r]) normals[at + a]! += area;
		}
	}
	const half = (thickness * Math.max(...sizes)) / 2;
	const moved = (by: number) =>
		places.map((value, k) => {
			const at = k - (k % 3);
			const size = Math.hypot(normals[at]!, normals[at + 1]!, normals[at + 2]!) || 1;
			return value + (by * normals[k]!) / size;
		});
	const walls = openEdges(triangles).flatMap(([a, b]) => [a, a + count, b, b, a + count, b + count]);
	return {
		vertices: toUnitBox([...moved(half), ...moved(-half)]),
		triangles: [...triangles, ...turnedOver(triangles).map((k) => k + count), ...walls]
	};
}

/** Edges with a face on one side only, as that face runs. */
export function openEdges(triangles: readonly number[]): [number, number][] {
	const found = new Map<string, [number, number]>();
	for (let t = 0; t < triangles.length; t += 3)
		for (let k = 0; k < 3; k++) {
			const [a, b] = [triangles[t + k]!, triangles[t + ((k + 1) % 3)]!];
			if (!found.delete(`${b} ${a}`)) found.set(`${a} ${b}`, [a, b]);
		}
	return [...found.values()];
}

function toUnitBox(places: readonly number[]): number[] {
	const low = [Infinity, Infinity, Infinity];
	const high = [-Infinity, -Infinity, -Infinity];
	places.forEach((value, k) => {
		low[k % 3] = Math.min(low[k % 3]!, value);
		high[k % 3] = Math.max(high[k % 3]!, value);
	});
	return places.map((value, k) => (value - low[k % 3]!) / (high[k % 3]! - low[k % 3]! || 1));
}
