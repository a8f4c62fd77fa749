import type { PointRegisters, Register } from './builder';
import type { Sheet, Solid, Vectors } from './values';

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

/** The face between two rings of one plane, counter-clockwise when `outer` is. */
const between = (n: number, outer: number, inner: number, upward: boolean) => sides(n, outer, inner, upward);

/** Triangles of a ring of n, as a fan from its first corner. */
export const fanOf = (n: number): number[] =>
	Array.from({ length: n - 2 }, (_, k) => [0, k + 1, k + 2]).flat();

const turned = (triangles: readonly number[]) =>
	triangles.flatMap((_, t) => (t % 3 ? [] : [triangles[t]!, triangles[t + 2]!, triangles[t + 1]!]));

/**
 * Foot and head with walls between them: closed, whatever their shape.
 * @param foot, head n points each, counter-clockwise seen from the head
 * @param cap triangles of the head by its corners
 */
export function prism(foot: Points, head: Points, quantities: Quantities, cap = fanOf(foot.length)): Solid {
	const n = foot.length;
	return {
		vertices: [...foot, ...head],
		triangles: [...turned(cap), ...cap.map((k) => k + n), ...sides(n, 0, n, true)],
		...quantities
	};
}

/** A tube: an outer prism with an inner one taken out. */
export function tube(
	outer: { readonly foot: Points; readonly head: Points },
	inner: { readonly foot: Points; readonly head: Points },
	quantities: Quantities
): Solid {
	const n = outer.foot.length;
	return {
		vertices: [...outer.foot, ...outer.head, ...inner.foot, ...inner.head],
		triangles: [
			...sides(n, 0, n, true),
			...sides(n, 2 * n, 3 * n, false),
			...between(n, 0, 2 * n, false),
			...between(n, n, 3 * n, true)
		],
		...quantities
	};
}

/**
 * A plate over a ring, and round an opening in it, swept along `normal` from `behind` to `before` (mm).
 * Its volume is exact: a ring's vector area is that of every face over it.
 */
export function plate(
	v: Vectors,
	ring: Points,
	normal: PointRegisters,
	behind: Register,
	before: Register,
	opening: Points | null = null
): Solid {
	const { b } = v;
	const swept = (points: Points) => ({
		foot: points.map((p) => v.along(p, normal, behind)),
		head: points.map((p) => v.along(p, normal, before))
	});
	const whole = v.vectorArea(ring);
	const face = opening ? v.subtract(whole, v.vectorArea(opening)) : whole;
	const quantities = {
		volume: b.multiply(v.dot(face, normal), b.subtract(before, behind)),
		area: v.length(face),
		length: b.constant(0)
	};
	const outer = swept(ring);
	return opening ? tube(outer, swept(opening), quantities) : prism(outer.foot, outer.head, quantities);
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

/** Sides of triangles that no other one has the other way round. */
function rimOf(triangles: readonly number[]): [number, number][] {
	const found = new Map<string, [number, number]>();
	for (let t = 0; t < triangles.length; t += 3)
		for (let k = 0; k < 3; k++) {
			const [a, b] = [triangles[t + k]!, triangles[t + ((k + 1) % 3)]!];
			if (!found.delete(`${b} ${a}`)) found.set(`${a} ${b}`, [a, b]);
		}
	return [...found.values()];
}

/** A sheet with thickness: its vertices moved by one vector for the inside, by another for the outside. */
export function thickened(v: Vectors, sheet: Sheet, inside: PointRegisters, outside: PointRegisters): Solid {
	const n = sheet.vertices.length;
	const faces = trianglesOf(sheet);
	const vertices = [
		...sheet.vertices.map((p) => v.add(p, inside)),
		...sheet.vertices.map((p) => v.add(p, outside))
	];
	const walls = rimOf(faces).flatMap(([a, b]) => [a, b, b + n, a, b + n, a + n]);
	const triangles = [...turned(faces), ...faces.map((k) => k + n), ...walls];
	return meshSolid(v, vertices, triangles, sheetArea(v, sheet));
}
