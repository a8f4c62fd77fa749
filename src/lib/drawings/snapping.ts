import type { HeldPoint } from '$core/drawing/laid-sheet';

/** Left, foot, right, head (mm of paper). */
type Box = readonly [number, number, number, number];
/** x1 y1 x2 y2 (mm of paper) */
type Line = readonly [number, number, number, number];

/** What is nearer (mm of paper) is meant. */
const NEAR = 2;
/** Points are taken from so far (mm of paper). */
const REACH = 6;

/** The sides and the middle of a box, along an axis. */
const placesOf = (box: Box, axis: 0 | 1) => [box[axis], (box[axis] + box[axis + 2]!) / 2, box[axis + 2]!];

/** The least way that brings a side or the middle of a box in line with one of another. */
function inLine(
	box: Box,
	others: readonly Box[],
	axis: 0 | 1
): { by: number; at: number; other: Box } | null {
	let best: { by: number; at: number; other: Box } | null = null;
	for (const other of others)
		for (const [k, at] of placesOf(other, axis).entries()) {
			// Like with like: feet with feet, middles with middles.
			const by = at - placesOf(box, axis)[k]!;
			if (Math.abs(by) <= NEAR && (!best || Math.abs(by) < Math.abs(best.by))) best = { by, at, other };
		}
	return best;
}

/** How far a box that is dragged moves, in line with others where it nearly is; and the lines that show it. */
export function besideOthers(
	box: Box,
	by: readonly [number, number],
	others: readonly Box[]
): { by: readonly [number, number]; lines: readonly Line[] } {
	const moved: Box = [box[0] + by[0], box[1] + by[1], box[2] + by[0], box[3] + by[1]];
	const [x, y] = [inLine(moved, others, 0), inLine(moved, others, 1)];
	const lines: Line[] = [];
	if (x) lines.push([x.at, Math.min(moved[1], x.other[1]), x.at, Math.max(moved[3], x.other[3])]);
	if (y) lines.push([Math.min(moved[0], y.other[0]), y.at, Math.max(moved[2], y.other[2]), y.at]);
	return { by: [by[0] + (x?.by ?? 0), by[1] + (y?.by ?? 0)], lines };
}

/** The point nearest to a place, of one view or of all; of points in one place the one nearest to the eye. */
export function nearestPoint(
	points: ReadonlyMap<string, readonly HeldPoint[]>,
	[x, y]: readonly [number, number],
	only: string | null
): { readonly view: string; readonly point: HeldPoint } | null {
	let best: { readonly view: string; readonly point: HeldPoint } | null = null;
	let least = REACH;
	for (const [view, list] of points) {
		if (only && view !== only) continue;
		for (const point of list) {
			const far = Math.hypot(point.at[0] - x, point.at[1] - y);
			// Points are in the order of their depth: a later one has to be nearer by more than rounding.
			if (far < least - 1e-6) [least, best] = [far, { view, point }];
		}
	}
	return best;
}
