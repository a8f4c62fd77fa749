import type { PointRegisters, Register } from './builder';
import { turnedOver } from '../geometry/triangulate';
import { openEdges } from './block/shell';
import type { LookedCap, Sheet, Solid, Vectors } from './values';

type Points = readonly PointRegisters[];
/** mm³, mm², mm */
export interface Quantities {
	readonly volume: Register;
	readonly area: Register;
	readonly length: Register;
}

const sides = (n: number, below: number, above: number, outward: boolean) =>
	Array.from({ length: n }, (_, k) => {
		const a = below + k;
		const b = below + ((k + 1) % n);
		const c = above + ((k + 1) % n);
		const d = above + k;
		return outward ? [a, b, c, a, c, d] : [a, c, b, a, d, c];
	}).flat();

/** Triangles of a ring of n, as a fan from its first corner. */
export const fanOf = (n: number): number[] =>
	Array.from({ length: n - 2 }, (_, k) => [0, k + 1, k + 2]).flat();

/**
 * Foot and head with walls between them: closed, whatever their shape.
 * @param foot, head n points each, counter-clockwise seen from the head
 * @param cap triangles of the head by its corners
 */
export function prism(foot: Points, head: Points, quantities: Quantities, cap = fanOf(foot.length)): Solid {
	const n = foot.length;
	return {
		vertices: [...foot, ...head],
		triangles: [...turnedOver(cap), ...cap.map((k) => k + n), ...sides(n, 0, n, true)],
		caps: [],
		...quantities
	};
}

/** A turn to the right by more than this (mm²) is a re-entrant corner. */
const RE_ENTRANT = -1;

/** Where a ring has a re-entrant corner, seen along its normal; null for three corners. */
export function isReEntrant(v: Vectors, ring: Points, normal: PointRegisters): Register | null {
	const { b } = v;
	const n = ring.length;
	if (n < 4) return null;
	const edges = ring.map((p, k) => v.subtract(ring[(k + 1) % n]!, p));
	const turns = edges.map((edge, k) => v.dot(v.cross(edges[(k + n - 1) % n]!, edge), normal));
	return b.apply(
		'less',
		turns.reduce((p, q) => b.apply('min', p, q)),
		b.constant(RE_ENTRANT)
	);
}

/** What a plate is made over: a ring, with openings in it that run the same way round. */
export interface Outline {
	readonly ring: Points;
	readonly openings: readonly Points[];
	/** Where its face cannot be a plain fan; null for nowhere. Not asked where there are openings. */
	readonly reEntrant: Register | null;
	/** The flag of pieces that cannot be made, since openings reach out of it or meet. */
	readonly crossed: number | null;
}

/** A ring that needs no look: bars and facets are convex. */
export const convex = (ring: Points): Outline => ({ ring, openings: [], reEntrant: null, crossed: null });

/**
 * A plate swept along `normal` from `behind` to `before` (mm).
 * Its volume is exact: a ring's vector area is that of every face over it.
 */
export function plate(
	v: Vectors,
	outline: Outline,
	normal: PointRegisters,
	behind: Register,
	before: Register
): Solid {
	const points = [outline.ring, ...outline.openings].flat();
	const ways = points.map(() => normal);
	const swept = swelled(v, outline, ways, behind, before);
	const face = faceOf(v, outline);
	return { ...swept, volume: v.b.multiply(v.dot(face, normal), v.b.subtract(before, behind)) };
}

/** Parts of a distance (mm²) that keep a corner of an opening from lying on one of the ring. */
const APART = 1e-6;

/**
 * A plate whose corners move each along a direction of its own, from `behind` to `before` (mm along it); corners of
 * openings move by the mean of the ring's, the nearer the more. Plates that share corners and directions
 * meet without a gap. Its volume is exact where its faces are flat.
 * @param ways unit directions, one for each corner of the ring
 */
export function mitredPlate(
	v: Vectors,
	outline: Outline,
	ways: Points,
	behind: Register,
	before: Register
): Solid {
	const { b } = v;
	const { ring, openings } = outline;
	const wayAt = (p: PointRegisters): PointRegisters => {
		const near = ring.map((corner) => {
			const off = v.subtract(p, corner);
			return b.divide(b.constant(1), b.add(v.dot(off, off), b.constant(APART)));
		});
		// The mean of the ring's, so that it ends where their face does.
		const sum = ways.map((way, k) => v.scale(way, near[k]!)).reduce((one, other) => v.add(one, other));
		return v.scale(sum, b.divide(b.constant(1), b.sum(near)));
	};
	const all = [...ways, ...openings.flat().map(wayAt)];
	const swept = swelled(v, outline, all, behind, before);
	let from = 0;
	const volumes = [ring, ...openings].map((loop) => {
		const own = all.slice(from, (from += loop.length));
		const moved = (by: Register) => loop.map((p, k) => v.along(p, own[k]!, by));
		const none = b.constant(0);
		const body = prism(moved(behind), moved(before), { volume: none, area: none, length: none });
		return meshVolume(v, body.vertices, body.triangles);
	});
	return { ...swept, volume: volumes.reduce((whole, opening) => b.subtract(whole, opening)) };
}

/** The vector area of a ring without its openings. */
const faceOf = (v: Vectors, { ring, openings }: Outline) =>
	openings.reduce((whole, opening) => v.subtract(whole, v.vectorArea(opening)), v.vectorArea(ring));

/** A plate without its volume. @param ways the direction of every corner, those of openings after the ring's */
function swelled(
	v: Vectors,
	outline: Outline,
	ways: Points,
	behind: Register,
	before: Register
): Omit<Solid, 'volume'> {
	const { b } = v;
	const { ring, openings, reEntrant, crossed } = outline;
	const loops = [ring, ...openings];
	const points = loops.flat();
	const n = points.length;
	const starts = loops.map((_, k) => loops.slice(0, k).reduce((sum, loop) => sum + loop.length, 0));
	// Of the head; openings run clockwise in it.
	const numbers = loops.map((loop, k) => loop.map((_, i) => n + starts[k]! + i));
	const corners = numbers.flatMap((loop, k) => (k ? loop.toReversed() : loop));
	// Between openings there is no plain way.
	const near = openings.length ? [] : fanOf(ring.length).map((k) => corners[k]!);
	const far = turnedOver(near).map((vertex) => vertex - n);
	const walls = loops.flatMap((loop, k) => sides(loop.length, starts[k]!, n + starts[k]!, k === 0));
	const looked = openings.length > 0 || reEntrant !== null;
	return {
		vertices: [
			...points.map((p, k) => v.along(p, ways[k]!, behind)),
			...points.map((p, k) => v.along(p, ways[k]!, before))
		],
		triangles: [...near, ...far, ...walls],
		caps: looked
			? [
					{
						cap: { corners, openings: starts.slice(1), at: 0, plain: near.length + far.length, far: -n },
						when: openings.length ? null : reEntrant,
						crossed
					}
				]
			: [],
		area: v.length(faceOf(v, outline)),
		length: b.constant(0)
	};
}

/** The volume within a closed mesh, by the tetrahedra from its first vertex. */
export function meshVolume(v: Vectors, vertices: Points, triangles: readonly number[]): Register {
	const { b } = v;
	const from = vertices.map((p) => v.subtract(p, vertices[0]!));
	const parts: Register[] = [];
	for (let t = 0; t < triangles.length; t += 3) {
		const [p, q, r] = triangles.slice(t, t + 3) as [number, number, number];
		if (p && q && r) parts.push(v.dot(from[p]!, v.cross(from[q]!, from[r]!)));
	}
	return b.multiply(b.sum(parts), b.constant(1 / 6));
}

/** A closed mesh as a solid that is ordered by its area, or by none. */
export function meshSolid(
	v: Vectors,
	vertices: Points,
	triangles: readonly number[],
	area?: Register
): Solid {
	const none = v.b.constant(0);
	return {
		vertices,
		triangles,
		caps: [],
		volume: meshVolume(v, vertices, triangles),
		area: area ?? none,
		length: none
	};
}

export const trianglesOf = ({ facets }: Sheet): number[] =>
	facets.flatMap((facet) => fanOf(facet.length).map((k) => facet[k]!));

/** The sum of the sizes of its facets' vector areas: their areas, where they are flat. */
export function sheetArea(v: Vectors, { vertices, facets }: Sheet): Register {
	return v.b.sum(facets.map((facet) => v.length(v.vectorArea(facet.map((k) => vertices[k]!)))));
}

/** A sheet as it is drawn and ordered. */
export function sheetMesh(v: Vectors, sheet: Sheet, thickness: Register): Solid {
	const { b } = v;
	const area = sheetArea(v, sheet);
	let at = 0;
	const caps = sheet.facets.flatMap((corners): LookedCap[] => {
		const begin = at;
		at += 3 * (corners.length - 2);
		const ring = corners.map((k) => sheet.vertices[k]!);
		const when = corners.length > 4 ? isReEntrant(v, ring, v.normalOf(ring)) : null;
		return when === null
			? []
			: [{ cap: { corners, openings: [], at: begin, plain: at - begin, far: null }, when, crossed: null }];
	});
	return {
		vertices: sheet.vertices,
		triangles: trianglesOf(sheet),
		caps,
		volume: b.multiply(area, thickness),
		area,
		length: b.constant(0)
	};
}

/** A sheet with thickness: its vertices moved by one vector for the inside, by another for the outside. */
export function thickened(v: Vectors, sheet: Sheet, inside: PointRegisters, outside: PointRegisters): Solid {
	const n = sheet.vertices.length;
	const faces = trianglesOf(sheet);
	const vertices = [
		...sheet.vertices.map((p) => v.add(p, inside)),
		...sheet.vertices.map((p) => v.add(p, outside))
	];
	const walls = openEdges(faces).flatMap(([a, b]) => [a, b, b + n, a, b + n, a + n]);
	const triangles = [...turnedOver(faces), ...faces.map((k) => k + n), ...walls];
	return meshSolid(v, vertices, triangles, sheetArea(v, sheet));
}
