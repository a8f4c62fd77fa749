import { anchorPoints } from '../cladding/anchor-points';
import type { FaceModel } from '../cladding/model';
import type { PieceGroup } from '../cladding/pieces';

/** The points that the pieces of a group hang on: piece after piece, each in its order. */
export interface AnchorTable {
	readonly row: Uint32Array;
	/** Counts the points of a piece from 1. */
	readonly count: Uint32Array;
	/** Of the grid. */
	readonly node: Uint32Array;
	/** 1 for that of the second grid, behind the node. */
	readonly isBehind: Uint8Array;
	/** mm, three for each */
	readonly at: Float64Array;
}

export function anchorTable(face: FaceModel, group: PieceGroup): AnchorTable {
	const points = Array.from(group.sites, (_, row) => anchorPoints(face, group, row));
	const total = points.reduce((sum, { length }) => sum + length, 0);
	const [row, count, node] = [0, 0, 0].map(() => new Uint32Array(total)) as [
		Uint32Array,
		Uint32Array,
		Uint32Array
	];
	const isBehind = new Uint8Array(total);
	const at = new Float64Array(3 * total);
	let n = 0;
	for (let r = 0; r < points.length; r++)
		for (const [k, point] of points[r]!.entries()) {
			row[n] = r;
			count[n] = k + 1;
			node[n] = point.node;
			isBehind[n] = Number(point.isBehind);
			at.set(point.at, 3 * n++);
		}
	return { row, count, node, isBehind, at };
}
