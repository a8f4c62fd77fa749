import type { Stock } from './stock';

/** One topology for all instances, and every vertex of every instance, written out. */
export interface Made {
	readonly is: 'made';
	/** x y z (mm from the run's origin), instance after instance. */
	readonly positions: Float32Array;
	readonly verticesEach: number;
	/** Of one instance, by vertex within it; outward. */
	readonly triangles: readonly number[];
}

/** Values of a map: x y z of its eight vectors, each with a fourth value that is nought. */
export const MAP = 32;

/**
 * One mesh of the unit box, and for each instance the frame that places it: a trilinear map, of which a turned,
 * moved and scaled copy is the simple case. A vertex x y z comes to lie at the sum of 1, x, y, z, xy, yz, xz, xyz
 * times the map's vectors (mm from the run's origin).
 */
export interface Placed {
	readonly is: 'placed';
	readonly unit: Float32Array;
	/** Of the unit mesh, outward; of a mirrored instance they run the other way. */
	readonly triangles: readonly number[];
	/** `MAP` values for each instance. */
	readonly maps: Float32Array;
	/** 1 where the map turns left to right. */
	readonly mirrored: Uint8Array;
}

/** Every instance has a small mesh of its own. */
export interface Own {
	readonly is: 'own';
	/** x y z (mm from the run's origin), instance after instance. */
	readonly positions: Float32Array;
	/** Where the vertices of each begin, and where the last ones end. */
	readonly firstVertex: Uint32Array;
	/** By vertex within the instance; outward. */
	readonly triangles: Uint32Array;
	/** Where the triangles' corners of each begin, and where the last ones end. */
	readonly firstCorner: Uint32Array;
}

export type ElementShape = Made | Placed | Own;

/** All instances of one element: its quantities and its mesh. */
export interface ElementTable {
	readonly element: number;
	readonly count: number;
	/** The row (piece) each instance belongs to, and its turn when the element is in a repeated group. */
	readonly row: Uint32Array;
	readonly turn: Uint32Array;
	/** mm³, mm², mm. */
	readonly volume: Float64Array;
	readonly area: Float64Array;
	readonly length: Float64Array;
	/** What each is cut from, a column for each size (mm); null where it has no name in the trade. */
	readonly stock: Stock<Float64Array> | null;
	readonly shape: ElementShape;
}

const instances = new WeakMap<ElementTable, Map<number, number[]>>();
/**
 * Instances of an element by the row of their piece.
 *
 * ```ts
 * const ofPiece = instancesOf(table).get(3) ?? [];
 * ```
 */
export function instancesOf(table: ElementTable): Map<number, number[]> {
	let byRow = instances.get(table);
	if (!byRow) {
		byRow = new Map();
		for (let k = 0; k < table.count; k++) {
			const list = byRow.get(table.row[k]!);
			if (list) list.push(k);
			else byRow.set(table.row[k]!, [k]);
		}
		instances.set(table, byRow);
	}
	return byRow;
}
