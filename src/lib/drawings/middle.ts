import type { FaceView } from '$lib/worker/views';

/** The middle of the box round all nodes of some faces, in plan (mm). */
export function middleOf(faces: readonly Pick<FaceView, 'grid'>[]): [x: number, y: number] {
	let [left, right, near, far] = [Infinity, -Infinity, Infinity, -Infinity];
	for (const { grid } of faces)
		for (let k = 0; k < grid.positions.length; k += 3) {
			left = Math.min(left, grid.positions[k]!);
			right = Math.max(right, grid.positions[k]!);
			near = Math.min(near, grid.positions[k + 1]!);
			far = Math.max(far, grid.positions[k + 1]!);
		}
	return left > right ? [0, 0] : [(left + right) / 2, (near + far) / 2];
}
