import { latticeOf } from '../grid/lattice';
import type { NodeGrid } from '../grid/node-grid';
import type { Cells } from '../pattern/cells';

/** What is laid out of a face. */
interface LaidFace {
	readonly cells: Pick<Cells, 'count' | 'start' | 'corners' | 'bay' | 'course'>;
	readonly grid: Pick<NodeGrid, 'columns' | 'rows' | 'extraI' | 'extraJ' | 'courseLengths' | 'flat'> & {
		readonly across: Pick<NodeGrid['across'], 'closed'>;
		readonly up: Pick<NodeGrid['up'], 'closed' | 'lengths'>;
	};
}

/** A face laid out flat by true lengths: x mm across, y mm up, y counted from the foot. */
export interface FlatLayout {
	/** Corners of cell c at 2 * start[c]. */
	readonly points: Float64Array;
	readonly left: number;
	readonly right: number;
	readonly height: number;
}

/** The true length of the course line that a node lies on or beside (mm). @param course its own, from 0 */
function lengthAt({ rows, up, courseLengths }: LaidFace['grid'], course: number): number {
	// A trim may make nodes a rounding below the first line, and beyond the seam of a ring.
	const at = up.closed ? ((course % rows) + rows) % rows : Math.max(0, course);
	const from = Math.floor(at);
	const next = courseLengths[from + 1] ?? courseLengths[0]!;
	return courseLengths[from]! + (at - from) * (next - courseLengths[from]!);
}

/**
 * Every course line is drawn at its own true length about a common middle, courses at their height on the
 * belt line. Cells over the seam of a ring are kept whole.
 *
 * ```ts
 * const { points, height } = flatLayout(faceModel); // mm
 * ```
 */
export function flatLayout(face: LaidFace): FlatLayout {
	const { cells, grid } = face;
	const { columns, rows, across, up, flat } = grid;
	const points = new Float64Array(2 * cells.corners.length);
	let left = 0;
	let right = 0;
	const rounds = (at: number, home: number, count: number, closed: boolean) => {
		if (!closed) return 0;
		return at - home > count / 2 ? -1 : home - at > count / 2 ? 1 : 0;
	};
	for (let c = 0; c < cells.count; c++)
		for (let k = cells.start[c]!; k < cells.start[c + 1]!; k++) {
			const node = cells.corners[k]!;
			const [i, j] = latticeOf(grid, node);
			const turns = rounds(i, cells.bay[c]! - 1, columns, across.closed);
			const x = flat[2 * node]! + (turns ? turns * lengthAt(grid, j) : 0);
			points[2 * k] = x;
			points[2 * k + 1] =
				flat[2 * node + 1]! + rounds(j, cells.course[c]! - 1, rows, up.closed) * up.lengths.belt;
			left = Math.min(left, x);
			right = Math.max(right, x);
		}
	return { points, left, right, height: up.lengths.belt };
}
