import { pointAt, type Vector } from '../geometry/vector';
import { jointedCorner } from './given-columns';
import { cornerTaken } from './lie';
import type { FaceModel } from './model';
import type { PieceGroup } from './pieces';
import { siteSetOf } from './sites';

/** A point that a piece hangs on. */
export interface AnchorPoint {
	/** Of the grid. */
	readonly node: number;
	/** It is that of the second grid, behind the node. */
	readonly isBehind: boolean;
	/** Where the piece begins (mm): off the node by the joint, where the zone has one. */
	readonly at: Vector;
}

/** Corners of the cell in the order that the part counts them in; of one that a trim has cut, in the cell's own. */
function cornersOf(face: FaceModel, { corners, lie }: PieceGroup, cell: number): number[] {
	const count = face.cells.start[cell + 1]! - face.cells.start[cell]!;
	return Array.from({ length: count }, (_, k) => (count === corners ? cornerTaken(lie, corners, k) : k));
}

/** The nodes of the bar that stands in the place of its first line. */
function endsOf({ edges: { from, to } }: FaceModel, bar: readonly number[]): number[] {
	return [from[bar[0]!]!, to[bar.at(-1)!]!];
}

/**
 * The points that a piece hangs on, in the order its part counts them: round the cell, from end to end, along the chain.
 * Of what fills the space between two grids, those in front and then those behind.
 *
 * ```ts
 * const [first] = anchorPoints(faceModel, group.group, 0); // { node, isBehind: false, at }
 * ```
 */
export function anchorPoints(face: FaceModel, group: PieceGroup, row: number): AnchorPoint[] {
	const { over, bars, sites, ready } = group;
	const site = sites[row]!;
	const { positions } = face.grid;
	const onGrid = (node: number): AnchorPoint => ({ node, isBehind: false, at: pointAt(positions, node) });
	if (over === 'line' && bars) return endsOf(face, bars[row]!).map(onGrid);
	if (over !== 'cell') return Array.from(siteSetOf(face, over).nodes(site), onGrid);
	const corners = cornersOf(face, group, site);
	const nodeOf = (corner: number) => face.cells.corners[face.cells.start[site]! + corner]!;
	const front = corners.map((corner): AnchorPoint => {
		const node = nodeOf(corner);
		return face.joint > 0 ? { node, isBehind: false, at: jointedCorner(face, site, corner) } : onGrid(node);
	});
	if (ready.part.anchor.kind !== 'double ring' || !face.layer) return front;
	const { positions: far } = face.layer;
	// Where a trim cuts there are nodes without one behind them.
	const behind = front.filter(({ node }) => 3 * node < far.length);
	return [...front, ...behind.map(({ node }) => ({ node, isBehind: true, at: pointAt(far, node) }))];
}
