import { siteSetOf } from '../cladding/sites';
import type { FaceModel } from '../cladding/model';
import type { PieceGroup } from '../cladding/pieces';

/** Places nearer than this (mm) are one node, also where two faces or a grid and a web have it each for themselves. */
const ONE_NODE = 1;

/**
 * The nodes that a piece runs to, x y z (mm): of a bar its ends and what lies between, of a connector its own. Pieces
 * on cells run to none.
 */
export function endsOf({ over, sites, bars }: PieceGroup, face: FaceModel, row: number): Float64Array {
	if (over === 'cell') return NONE;
	const set = siteSetOf(face, over);
	const nodes = (bars?.[row] ?? [sites[row]!]).flatMap((site) => Array.from(set.nodes(site)));
	return Float64Array.from(
		nodes.flatMap((node) => [...face.grid.positions.subarray(3 * node, 3 * node + 3)])
	);
}
const NONE = new Float64Array();

/**
 * Whether two pieces meet at a node: what they have in common there is their joint.
 *
 * ```ts
 * meetAtNode(Float64Array.of(0, 0, 0, 900, 0, 0), Float64Array.of(900, 0, 0)); // true
 * ```
 */
export function meetAtNode(one: Float64Array, other: Float64Array): boolean {
	for (let k = 0; k < one.length; k += 3)
		for (let n = 0; n < other.length; n += 3) {
			const [x, y, z] = [one[k]! - other[n]!, one[k + 1]! - other[n + 1]!, one[k + 2]! - other[n + 2]!];
			if (x * x + y * y + z * z < ONE_NODE * ONE_NODE) return true;
		}
	return false;
}
