import type { FaceView } from '$lib/worker/views';

/** A face laid out flat by true lengths: x mm across, y mm up, y counted from the foot. */
export interface FlatLayout {
	/** Corners of cell c at 2 * start[c]. */
	readonly points: Float64Array;
	readonly left: number;
	readonly right: number;
	readonly height: number;
}

/** The value at a place between two of a list. */
function between(values: Float64Array, k: number): number {
	const from = Math.floor(k);
	const rest = k - from;
	return rest === 0
		? values[from]!
		: values[from]! + rest * ((values[from + 1] ?? values[0]!) - values[from]!);
}

/** Bay and course of a node, from 0; those of trims lie between lines. */
function placeOf({ columns, rows, trimI, trimJ }: FaceView, node: number): [number, number] {
	const own = columns * rows;
	if (node >= own) return [trimI[node - own]!, trimJ[node - own]!];
	return [node % columns, Math.floor(node / columns)];
}

/** Shares beyond 0..1 go on round a ring. */
function shareAt(fractions: Float64Array, steps: number, k: number): number {
	const turns = Math.floor(k / steps);
	const rest = k - turns * steps;
	return turns + between(fractions, rest);
}

/**
 * Every course line is drawn at its own true length about a common middle, courses at their height on the
 * belt line. Cells over the seam of a ring are kept whole.
 */
export function flatLayout(face: FaceView): FlatLayout {
	const { cells, columns, rows, across, up, courseLengths } = face;
	const points = new Float64Array(2 * cells.corners.length);
	let left = 0;
	let right = 0;
	for (let c = 0; c < cells.count; c++) {
		const homeI = cells.bay[c]! - 1;
		const homeJ = cells.course[c]! - 1;
		for (let k = cells.start[c]!; k < cells.start[c + 1]!; k++) {
			const node = cells.corners[k]!;
			let [i, j] = placeOf(face, node);
			const row = j;
			if (across.closed) {
				if (i - homeI > columns / 2) i -= columns;
				if (homeI - i > columns / 2) i += columns;
			}
			if (up.closed) {
				if (j - homeJ > rows / 2) j -= rows;
				if (homeJ - j > rows / 2) j += rows;
			}
			const x = (shareAt(across.division.fractions, across.steps, i) - 0.5) * between(courseLengths, row);
			points[2 * k] = x;
			points[2 * k + 1] = shareAt(up.division.fractions, up.steps, j) * up.lengths.belt;
			left = Math.min(left, x);
			right = Math.max(right, x);
		}
	}
	return { points, left, right, height: up.lengths.belt };
}
