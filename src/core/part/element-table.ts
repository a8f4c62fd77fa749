import type { Stock } from './stock';

/** Every vertex of every instance: x y z (mm from the run's origin), instance after instance. */
export interface Written {
	readonly is: 'written';
	readonly positions: Float32Array;
}

/** Values of a map: x y z of its eight vectors, each with a fourth value that is nought. */
export const MAP = 32;

/**
 * One mesh of the unit box, and for each instance the trilinear map that fits it: a vertex x y z comes to lie
 * at the sum of 1, x, y, z, xy, yz, xz, xyz times the map's vectors (mm from the run's origin).
 */
export interface Fitted {
	readonly is: 'fitted';
	readonly unit: Float32Array;
	/** `MAP` values for each instance. */
	readonly maps: Float32Array;
}

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
	readonly vertices: Written | Fitted;
	readonly verticesEach: number;
	/** Triangles of one instance, by vertex within it; outward. */
	readonly triangles: readonly number[];
}

const instances = new WeakMap<ElementTable, Map<number, number[]>>();
/** Instances of an element by the row of their piece. */
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
