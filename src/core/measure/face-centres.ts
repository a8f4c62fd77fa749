import { Lattice } from '../grid/lattice';
import type { NodeGrid } from '../grid/node-grid';
import type { Surface } from '../geometry/surface';
import type { Cells } from '../pattern/cells';
import { placesOf } from '../pattern/trim-cells';

/**
 * The point of the face in the middle of every cell (mm, x y z): where the mean of its corners lies on the grid,
 * rather than on the chords between them.
 */
export function centresOnFace(surface: Surface, grid: NodeGrid, cells: Cells): Float64Array {
	const lattice = new Lattice(grid, surface);
	const centres = new Float64Array(3 * cells.count);
	for (let c = 0; c < cells.count; c++) {
		const places = placesOf(grid, cells, c, cells.corners.subarray(cells.start[c]!, cells.start[c + 1]!));
		let [i, j] = [0, 0];
		for (const [x, y] of places) {
			i += x / places.length;
			j += y / places.length;
		}
		centres.set(lattice.evaluate(...lattice.parameters(i, j)).point, 3 * c);
	}
	return centres;
}
