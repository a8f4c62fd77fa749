import type { Place } from '../geometry/polygon';
import type { NodeGrid } from '../grid/node-grid';
import type { Cells } from '../pattern/cells';
import { NO_CELL, edgeDirections, type Edges } from '../pattern/edges';
import { cellMiddle, placesOf } from '../pattern/trim-cells';
import { rimSides, type RimSide } from '../project/line-kinds';

/** Stands for a line within its face. */
export const INNER = rimSides.length;
const numberOf = (side: RimSide) => rimSides.indexOf(side);
const ALONG_TRIM = edgeDirections.indexOf('trim');

/** A face with its lines. */
export interface FaceWithLines {
	readonly cells: Cells;
	readonly edges: Edges;
	readonly grid: Pick<NodeGrid, 'columns' | 'rows' | 'across' | 'up' | 'poles' | 'extraI' | 'extraJ'>;
	/** Edges that are one with an edge of another face are not 0. */
	readonly sharedEdges: Uint8Array | null;
}

/**
 * Which rim every line lies on, as its number among `rimSides`. The cell beside it says on which side of the face it
 * is: a line with its cell above it lies at the foot.
 *
 * ```ts
 * const sides = rimSidesOf(faceModel);
 * const isAtFoot = sides[0] === rimSides.indexOf('foot');
 * ```
 */
export function rimSidesOf({ cells, edges, grid, sharedEdges }: FaceWithLines): Uint8Array {
	const sides = new Uint8Array(edges.count).fill(INNER);
	for (let e = 0; e < edges.count; e++) {
		if (sharedEdges?.[e]) sides[e] = numberOf('face');
		else if (edges.direction[e] === ALONG_TRIM) sides[e] = numberOf('trim');
		else if (edges.right[e] === NO_CELL && edges.left[e] !== NO_CELL)
			sides[e] = numberOf(sideOf(grid, cells, edges, e));
	}
	return sides;
}

/**
 * Which rims every node lies on: those of the lines that end there, one bit for each of `rimSides`. At a corner of the
 * face a node lies on two of them.
 *
 * ```ts
 * const isAtFoot = (nodeSidesOf(faceModel, 20)[0]! & (1 << rimSides.indexOf('foot'))) !== 0;
 * ```
 * @param count of nodes
 */
export function nodeSidesOf(face: FaceWithLines, count: number): Uint8Array {
	const sides = new Uint8Array(count);
	const { from, to } = face.edges;
	rimSidesOf(face).forEach((side, e) => {
		if (side === INNER) return;
		sides[from[e]!]! |= 1 << side;
		sides[to[e]!]! |= 1 << side;
	});
	return sides;
}

/**
 * The side that a line with one cell lies on: away from the cell's middle, in the grid laid flat. An upright lies on the
 * left or on the right, a level line at the foot or at the head, whatever the shape of its cell.
 */
function sideOf(
	grid: FaceWithLines['grid'],
	cells: Cells,
	{ from, to, left, direction }: Edges,
	e: number
): RimSide {
	const c = left[e]!;
	const [[aI, aJ], [bI, bJ]] = placesOf(grid, cells, c, Uint32Array.of(from[e]!, to[e]!)) as [Place, Place];
	const [i, j] = cellMiddle(grid, cells, c);
	const [right, up] = [i - (aI + bI) / 2, j - (aJ + bJ) / 2];
	const along = edgeDirections[direction[e]!]!;
	const isLevel = along === 'course' || (along !== 'bay' && Math.abs(up) >= Math.abs(right));
	if (isLevel) return up > 0 ? 'foot' : 'head';
	return right > 0 ? 'left' : 'right';
}
