/**
 * The volume within a closed mesh (of its unit, cubed), whose triangles run anticlockwise seen from outside.
 *
 * ```ts
 * const corner = volumeWithin([0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1], [0, 2, 1, 0, 1, 3, 1, 2, 3, 2, 0, 3]); // 1/6
 * ```
 */
export function volumeWithin(positions: ArrayLike<number>, triangles: ArrayLike<number>): number {
	let sum = 0;
	// From its first vertex, so that nothing is lost far from the origin.
	const [ox, oy, oz] = [positions[0]!, positions[1]!, positions[2]!];
	for (let t = 0; t < triangles.length; t += 3) {
		const [a, b, c] = [3 * triangles[t]!, 3 * triangles[t + 1]!, 3 * triangles[t + 2]!];
		const [ax, ay, az] = [positions[a]! - ox, positions[a + 1]! - oy, positions[a + 2]! - oz];
		const [bx, by, bz] = [positions[b]! - ox, positions[b + 1]! - oy, positions[b + 2]! - oz];
		const [cx, cy, cz] = [positions[c]! - ox, positions[c + 1]! - oy, positions[c + 2]! - oz];
		sum += ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx);
	}
	return sum / 6;
}
