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

const NONE = new Uint32Array(0);
/** Which instances of an element belong to which row (piece), in their order. */
class InstancesByRow {
	/** Where those of each row begin in the list, and where the last ones end. */
	private readonly first: Uint32Array;
	private readonly list: Uint32Array;

	constructor(row: Uint32Array) {
		let rows = 0;
		for (let k = 0; k < row.length; k++) rows = Math.max(rows, row[k]! + 1);
		this.first = new Uint32Array(rows + 1);
		this.list = new Uint32Array(row.length);
		for (let k = 0; k < row.length; k++) this.first[row[k]! + 1]!++;
		for (let r = 0; r < rows; r++) this.first[r + 1]! += this.first[r]!;
		const next = this.first.slice(0, rows);
		for (let k = 0; k < row.length; k++) this.list[next[row[k]!]!++] = k;
	}

	of(row: number): Uint32Array {
		return this.has(row) ? this.list.subarray(this.first[row], this.first[row + 1]) : NONE;
	}

	has(row: number): boolean {
		return row + 1 < this.first.length && this.first[row]! < this.first[row + 1]!;
	}
}

const instances = new WeakMap<ElementTable, InstancesByRow>();
/**
 * Instances of an element by the row of their piece.
 *
 * ```ts
 * const ofPiece = instancesOf(table).of(3);
 * ```
 */
export function instancesOf(table: ElementTable): InstancesByRow {
	let byRow = instances.get(table);
	if (!byRow) instances.set(table, (byRow = new InstancesByRow(table.row)));
	return byRow;
}
