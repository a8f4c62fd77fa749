import type { FaceView } from '$lib/worker/views';

/** Edge lengths of a cell in turn to the whole millimetre, as a name for what is alike. */
export function shapeName({ cells, grid: { positions } }: FaceView, c: number): string {
	const nodes = Array.from(cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!));
	const lengths = nodes.map((a, k) => {
		const b = nodes[(k + 1) % nodes.length]!;
		return Math.round(
			Math.hypot(...[0, 1, 2].map((axis) => positions[3 * a + axis]! - positions[3 * b + axis]!))
		);
	});
	const turns = lengths.map((_, k) => [...lengths.slice(k), ...lengths.slice(0, k)].join(' '));
	return turns.sort()[0] ?? '';
}

/** The cells of a face that have a shape. */
export const cellsOfShape = (face: FaceView, name: string): number[] =>
	Array.from({ length: face.cells.count }, (_, c) => c).filter((c) => shapeName(face, c) === name);
