/**
 * Area spanned by a ring of nodes (mm²).
 *
 * ```ts
 * ringArea([0, 1, 2], Float64Array.of(0, 0, 0, 1, 0, 0, 1, 1, 0)); // 0.5
 * ```
 * @param positions flat x y z of all nodes
 */
export function ringArea(nodes: ArrayLike<number>, positions: Float64Array): number {
	let [x, y, z] = [0, 0, 0];
	const o = 3 * nodes[0]!;
	for (let k = 1; k + 1 < nodes.length; k++) {
		const [a, b] = [3 * nodes[k]!, 3 * nodes[k + 1]!];
		const [ax, ay, az] = [0, 1, 2].map((n) => positions[a + n]! - positions[o + n]!) as [
			number,
			number,
			number
		];
		const [bx, by, bz] = [0, 1, 2].map((n) => positions[b + n]! - positions[o + n]!) as [
			number,
			number,
			number
		];
		x += ay * bz - az * by;
		y += az * bx - ax * bz;
		z += ax * by - ay * bx;
	}
	return Math.hypot(x, y, z) / 2;
}
