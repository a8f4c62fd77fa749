import { evaluateCurvature, principal } from '../geometry/curvature';
import type { Surface } from '../geometry/surface';
import { Lattice } from '../grid/lattice';
import type { NodeGrid } from '../grid/node-grid';
import type { Cells } from '../pattern/cells';
import { cellMiddle } from '../pattern/trim-cells';

/** How sharply the face bends at the middle of every cell. */
export interface CellCurvature {
	/** Radius the way it bends most, and square to it (mm). */
	readonly smallest: Float64Array;
	readonly largest: Float64Array;
}

/** A radius that is larger than this is as good as flat (mm). */
export const FLAT_RADIUS = 1e9;

const radius = (curvature: number) => Math.min(FLAT_RADIUS, 1 / Math.abs(curvature));

/**
 * Radii of curvature at the middle of each cell's corners, on the face itself.
 *
 * ```ts
 * const { smallest } = cellCurvature(surface, grid, cells);
 * ```
 */
export function cellCurvature(surface: Surface, grid: NodeGrid, cells: Cells): CellCurvature {
	const lattice = new Lattice(grid, surface);
	const smallest = new Float64Array(cells.count);
	const largest = new Float64Array(cells.count);
	for (let c = 0; c < cells.count; c++) {
		const [u, v] = lattice.parameters(...cellMiddle(grid, cells, c));
		const { gaussian, mean } = evaluateCurvature(surface, [u], [v]);
		const [one, other] = principal(gaussian[0]!, mean[0]!).map(radius) as [number, number];
		smallest[c] = Math.min(one, other);
		largest[c] = Math.max(one, other);
	}
	return { smallest, largest };
}
