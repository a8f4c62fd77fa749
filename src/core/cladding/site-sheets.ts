import { movedIn } from '../geometry/jointed';
import { flattened, openSides, triangulate, turnedOver } from '../geometry/triangulate';
import { pointAt } from '../geometry/vector';
import type { SheetOf, SiteSheet } from '../part/sheet/site-sheet';
import { outlineOf, type Cells } from '../pattern/cells';
import type { CladFace } from './given-columns';
import type { Lie } from './lie';

/** The nodes of what is left of a pierced cell, three for each triangle; null for one without openings. */
function trianglesAround({ pierced }: Cells, c: number): Uint32Array | null {
	const k = pierced ? pierced.cells.indexOf(c) : -1;
	return k < 0 ? null : pierced!.triangles.subarray(pierced!.firstCorner[k]!, pierced!.firstCorner[k + 1]!);
}

/** The rim of triangles that a node is on, counter-clockwise as they are. */
function rimOf(triangles: Uint32Array, first: number): Uint32Array {
	const next = new Map(openSides(triangles));
	const rim = [first];
	for (let node = next.get(first); node !== undefined && node !== first; node = next.get(node))
		rim.push(node);
	return Uint32Array.from(rim);
}

/** The surface of a cell as it follows its face, its rim moved in by half the joint of the zone. */
function siteSheet({ cells, grid, joint }: CladFace, c: number): SiteSheet {
	const { positions } = grid;
	const { start, nodes } = outlineOf(cells);
	const outline = nodes.subarray(start[c]!, start[c + 1]!);
	const found = trianglesAround(cells, c);
	const ring = found ? rimOf(found, outline[0]!) : outline;
	const rim = ring.length;
	// At a pole a rim may come by one node twice.
	const all = Array.from(ring);
	const local = new Map(all.map((node, k) => [node, k]));
	for (const node of found ?? []) if (!local.has(node)) local.set(node, all.push(node) - 1);
	const points = new Float64Array(3 * all.length);
	const normals = new Float64Array(3 * all.length);
	for (const [k, node] of all.entries()) {
		points.set(positions.subarray(3 * node, 3 * node + 3), 3 * k);
		normals.set(grid.normals.subarray(3 * node, 3 * node + 3), 3 * k);
	}
	if (joint > 0)
		for (let k = 0; k < rim; k++) {
			const at = (n: number) => pointAt(positions, ring[(n + rim) % rim]!);
			points.set(movedIn(at(k - 1), at(k), at(k + 1), pointAt(normals, k), joint / 2), 3 * k);
		}
	const triangles = found
		? Uint32Array.from(found, (node) => local.get(node)!)
		: triangulate(flattened(positions, ring));
	return { points, normals, rim, triangles };
}

/** The same as a part that lies so takes it: turned inside out, or the mirror image of its cell. */
function lyingSheet({ flip, mirror }: Lie, middle: number, sheet: SiteSheet): SiteSheet {
	if (!flip && !mirror) return sheet;
	const { rim } = sheet;
	// Seen from the other side, or in a mirror, its rim runs the other way round; both at once leave it as it was.
	const reversed = flip !== mirror;
	const placeOf = (k: number) => (reversed && k < rim ? rim - 1 - k : k);
	const points = new Float64Array(sheet.points.length);
	const normals = new Float64Array(sheet.normals.length);
	for (let k = 0; k < points.length / 3; k++)
		for (let a = 0; a < 3; a++) {
			const from = 3 * k + a;
			const to = 3 * placeOf(k) + a;
			const aside = mirror && a === 0;
			points[to] = aside ? 2 * middle - sheet.points[from]! : sheet.points[from]!;
			normals[to] = sheet.normals[from]! * (flip ? -1 : 1) * (aside ? -1 : 1);
		}
	const triangles = Array.from(sheet.triangles, placeOf);
	return { points, normals, rim, triangles: reversed ? turnedOver(triangles) : triangles };
}

/**
 * The surfaces of cells for the sheets that fill them.
 *
 * ```ts
 * const sheetOf = siteSheets(faceModel, sites, AS_DRAWN);
 * ```
 */
export const siteSheets =
	(face: CladFace, sites: Uint32Array, lie: Lie): SheetOf =>
	(row) =>
		lyingSheet(lie, face.origin[0], siteSheet(face, sites[row]!));
