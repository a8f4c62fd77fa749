import { coordinateSum, offsetsOn } from '../grid/displaced';
import type { MovedFace, Moves } from '../project/moves-schema';
import type { SurveyedZone } from './match';

type Face = SurveyedZone['faces'][number];

/** Moves by less (mm) are none: files have as many decimals. */
const DECIMALS = 1e4;

/** How far the corners of cells are from where they were measured, and what that does to the cells. mm */
export interface CellsMeasured {
	/** The furthest corner of every cell; NaN where none was measured. */
	readonly away: Float64Array;
	/** By how much a side or a diagonal between measured corners is another one at most; NaN where there is none. */
	readonly change: Float64Array;
}

const far = (a: ArrayLike<number>, i: number, b: ArrayLike<number>, j: number) =>
	Math.hypot(a[3 * i]! - b[3 * j]!, a[3 * i + 1]! - b[3 * j + 1]!, a[3 * i + 2]! - b[3 * j + 2]!);

/**
 * What was measured, cell by cell.
 *
 * ```ts
 * const measured = new Int32Array(faceModel.grid.positions.length / 3).fill(-1);
 * const { away } = cellsMeasured(faceModel, measured, new Float64Array(0)); // NaN everywhere
 * ```
 * @param of the place of the point of every node, or -1 @param at points (flat x y z, mm)
 */
export function cellsMeasured({ cells, grid }: Face, of: Int32Array, at: Float64Array): CellsMeasured {
	const { positions } = grid;
	const away = new Float64Array(cells.count).fill(NaN);
	const change = new Float64Array(cells.count).fill(NaN);
	for (let c = 0; c < cells.count; c++)
		for (let i = cells.start[c]!; i < cells.start[c + 1]!; i++) {
			const node = cells.corners[i]!;
			const point = of[node]!;
			if (point < 0) continue;
			const way = far(positions, node, at, point);
			if (!(away[c]! >= way)) away[c] = way;
			for (let j = cells.start[c]!; j < i; j++) {
				const other = cells.corners[j]!;
				const otherPoint = of[other]!;
				if (otherPoint < 0) continue;
				const own = Math.abs(far(positions, node, positions, other) - far(at, point, at, otherPoint));
				if (!(change[c]! >= own)) change[c] = own;
			}
		}
	return { away, change };
}

/** Where the nodes of a zone go so that they stand where they were measured. */
export interface Fit {
	readonly faces: readonly MovedFace[];
	/** Nodes that go there, and how far at most (mm). */
	readonly moved: number;
	readonly furthest: number;
	/** How far the furthest of them stands from where it was measured (mm): 0 where nothing is left to be moved. */
	readonly ahead: number;
	/** Nodes that were measured and cannot go by themselves: patterns and trims make them between others, with which they go. */
	readonly following: number;
}

/**
 * Moves by which nodes stand where they were measured; those that were not stay.
 *
 * ```ts
 * const of = faceModel.grid.positions;
 * const fit = fitTo([faceModel], [new Int32Array(of.length / 3).fill(-1)], new Float64Array(0), null); // moves nothing
 * ```
 * @param of by face: the place of the point of every node, or -1 @param at points (flat x y z, mm)
 * @param before the clause that has moved nodes to where they were measured before; its moves are in those that come
 */
export function fitTo(
	faces: readonly Face[],
	of: readonly Int32Array[],
	at: Float64Array,
	before: Moves | null
): Fit {
	let [moved, furthest, ahead, following] = [0, 0, 0, 0];
	const found = faces.map(({ address, grid }, f): MovedFace => {
		const { columns, rows, across, up, positions } = grid;
		const own = columns * rows;
		const points = of[f]!;
		const were =
			(before && offsetsOn(address, grid, [{ ...before, muted: false }])) ?? new Float64Array(3 * own);
		const nodes: number[] = [];
		for (let node = 0; node < points.length; node++) {
			const point = points[node]!;
			if (node >= own) {
				if (point >= 0) following++;
				continue;
			}
			if (point >= 0) ahead = Math.max(ahead, far(positions, node, at, point));
			const way = [0, 1, 2].map((a) => {
				const more = point < 0 ? 0 : at[3 * point + a]! - positions[3 * node + a]!;
				return Math.round((were[3 * node + a]! + more) * DECIMALS) / DECIMALS;
			});
			if (way.every((value) => value === 0)) continue;
			nodes.push(Math.floor(node / columns) + 1, (node % columns) + 1, ...way);
			moved++;
			furthest = Math.max(furthest, Math.hypot(...way));
		}
		return {
			face: address,
			steps: [across.steps, up.steps],
			sum: coordinateSum(positions, own) - (before?.muted ? 0 : coordinateSum(were, own)),
			nodes
		};
	});
	return { faces: found, moved, furthest, ahead, following };
}
