import { Lattice } from '../grid/lattice';
import type { NodeGrid } from '../grid/node-grid';
import { nearestFrom } from '../geometry/nearest';
import type { Surface } from '../geometry/surface';
import { pointAt } from '../geometry/vector';
import type { Cells } from '../pattern/cells';
import { cellMiddle } from '../pattern/trim-cells';

/**
 * The point of the face in the middle of every cell (mm, x y z): the one nearest to the mean of its corners, which
 * itself lies on the chords between them.
 *
 * ```ts
 * const centres = centresOnFace(surface, grid, cells, means);
 * ```
 * @param means of the corners (mm, x y z)
 */
export function centresOnFace(
	surface: Surface,
	grid: NodeGrid,
	cells: Cells,
	means: Float64Array
): Float64Array {
	const lattice = new Lattice(grid, surface);
	const centres = new Float64Array(3 * cells.count);
	for (let c = 0; c < cells.count; c++) {
		const start = lattice.parameters(...cellMiddle(grid, cells, c));
		const { u, v } = nearestFrom(surface, pointAt(means, c), start, grid.across.closed);
		centres.set(lattice.evaluate(u, v).point, 3 * c);
	}
	return centres;
}
