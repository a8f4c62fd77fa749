import { chainKnots, type BezierChain } from '../geometry/path';
import { splineControl } from '../geometry/spline';
import type { Surface } from '../geometry/surface';
import { transpose, turnOutside } from '../geometry/surface';
import type { Tuple } from '../geometry/tuple';

/** Patches made of rows of weighted control points. */

/** Straight lines from row to row. */
export function straightPatch(
	rows: readonly (readonly Tuple[])[],
	breaks: readonly number[],
	heights: readonly number[]
): Surface {
	return {
		degreeU: 3,
		degreeV: 1,
		knotsU: chainKnots(breaks),
		knotsV: Float64Array.from([0, ...heights, 1]),
		countU: rows[0]!.length,
		countV: rows.length,
		net: Float64Array.from(rows.flat(2))
	};
}

/** A cubic spline through the rows, column by column. */
export function smoothPatch(
	rows: readonly (readonly Tuple[])[],
	breaks: readonly number[],
	heights: readonly number[]
): Surface {
	const columns = rows[0]!.map((_, i) =>
		splineControl(
			rows.map((row) => row[i]!),
			heights,
			false
		)
	);
	const net = columns[0]!.flatMap((_, j) => columns.flatMap((column) => column[j]!));
	return {
		degreeU: 3,
		degreeV: 3,
		knotsU: chainKnots(breaks),
		knotsV: chainKnots(heights),
		countU: columns.length,
		countV: columns[0]!.length,
		net: Float64Array.from(net)
	};
}

/** A strip between two chains with the same breaks. */
export function strip(foot: BezierChain, head: BezierChain): Surface {
	return straightPatch([foot.points, head.points], foot.breaks, [0, 1]);
}

/** The surface looked at with its corners counted on by so many quarter turns; outside stays. */
export function quarterTurned(surface: Surface, turns: number): Surface {
	let result = surface;
	// Running across the other way turns the outside round; across and up changing places turns it back.
	for (let k = 0; k < turns; k++) result = transpose(turnOutside(result));
	return result;
}
