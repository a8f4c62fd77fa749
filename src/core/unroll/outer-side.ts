import { cross, dot, length, pointAt, scale, subtract, type Vector } from '../geometry/vector';
import type { ClosedMesh } from '../geometry/solid/library';

/** Two sides of a sheet look away from each other: by more than this they do not (cosine). */
const OPPOSITE = -0.9;
/** A sheet is nowhere thicker than so many times what it is cut from: corners are moved along their own normals. */
const THICKER = 1.5;

/** Edges that turn by less are none: 45° (cosine). */
const SMOOTH = Math.SQRT1_2;

/** Triangles with what is asked of each, in columns. */
interface Facets {
	readonly count: number;
	/** Corner, side, side (mm). */
	readonly at: Float64Array;
	/** x y z, length 1; none for those without area. */
	readonly normals: Float64Array;
	readonly areas: Float64Array;
}

function facetsOf({ vertices, triangles }: ClosedMesh): Facets {
	const count = triangles.length / 3;
	const at = new Float64Array(9 * count);
	const normals = new Float64Array(3 * count);
	const areas = new Float64Array(count);
	for (let t = 0; t < count; t++) {
		const a = pointAt(vertices, triangles[3 * t]!);
		const u = subtract(pointAt(vertices, triangles[3 * t + 1]!), a);
		const v = subtract(pointAt(vertices, triangles[3 * t + 2]!), a);
		const normal = cross(u, v);
		const size = length(normal);
		at.set([...a, ...u, ...v], 9 * t);
		areas[t] = size / 2;
		if (size > 0) normals.set(scale(normal, 1 / size), 3 * t);
	}
	return { count, at, normals, areas };
}

/** Whether another triangle of a body, which looks the other way, lies behind the middle of one, no further than `deep` (mm). */
function isBacked({ at, normals, areas }: Facets, body: readonly number[], t: number, deep: number): boolean {
	if (!(areas[t]! > 0)) return false;
	const o = 9 * t;
	const nx = normals[3 * t]!;
	const ny = normals[3 * t + 1]!;
	const nz = normals[3 * t + 2]!;
	const x = at[o]! + (at[o + 3]! + at[o + 6]!) / 3;
	const y = at[o + 1]! + (at[o + 4]! + at[o + 7]!) / 3;
	const z = at[o + 2]! + (at[o + 5]! + at[o + 8]!) / 3;
	for (const s of body) {
		const cos = nx * normals[3 * s]! + ny * normals[3 * s + 1]! + nz * normals[3 * s + 2]!;
		if (!(cos < OPPOSITE)) continue;
		const k = 9 * s;
		const sx = x - at[k]!;
		const sy = y - at[k + 1]!;
		const sz = z - at[k + 2]!;
		// How far behind its plane is, along the normal of the one that is asked for.
		const far = (sx * normals[3 * s]! + sy * normals[3 * s + 1]! + sz * normals[3 * s + 2]!) / cos;
		if (!(far > 0 && far <= deep)) continue;
		const px = sx - far * nx;
		const py = sy - far * ny;
		const pz = sz - far * nz;
		const [ux, uy, uz] = [at[k + 3]!, at[k + 4]!, at[k + 5]!];
		const [vx, vy, vz] = [at[k + 6]!, at[k + 7]!, at[k + 8]!];
		const uu = ux * ux + uy * uy + uz * uz;
		const uv = ux * vx + uy * vy + uz * vz;
		const vv = vx * vx + vy * vy + vz * vz;
		const pu = px * ux + py * uy + pz * uz;
		const pv = px * vx + py * vy + pz * vz;
		const size = uu * vv - uv * uv;
		const along = (vv * pu - uv * pv) / size;
		const aside = (uu * pv - uv * pu) / size;
		if (along >= -WITHIN && aside >= -WITHIN && along + aside <= 1 + WITHIN) return true;
	}
	return false;
}
/** On the side of two triangles is in both. */
const WITHIN = 1e-6;

/**
 * Parts of a list of triangles that are joined by sides.
 * @param of the triangles asked for @param goesOn whether two that share a side are of one part
 */
function joinedParts(
	triangles: ArrayLike<number>,
	of: readonly number[],
	goesOn: (t: number, other: number) => boolean = () => true
): number[][] {
	const sides = new Map<string, number[]>();
	const names = (t: number) =>
		[0, 1, 2].map((k) => {
			const [a, b] = [triangles[3 * t + k]!, triangles[3 * t + ((k + 1) % 3)]!];
			return a < b ? `${a} ${b}` : `${b} ${a}`;
		});
	for (const t of of)
		for (const name of names(t)) {
			const list = sides.get(name);
			if (list) list.push(t);
			else sides.set(name, [t]);
		}
	const met = new Set<number>();
	const parts: number[][] = [];
	for (const start of of) {
		if (met.has(start)) continue;
		met.add(start);
		const part = [start];
		for (let k = 0; k < part.length; k++)
			for (const name of names(part[k]!))
				for (const other of sides.get(name)!)
					if (!met.has(other) && goesOn(part[k]!, other)) {
						met.add(other);
						part.push(other);
					}
		parts.push(part);
	}
	return parts;
}

/** One side of a sheet. */
export interface Side {
	/** x y z (mm). */
	readonly points: Float64Array;
	/** By point, as they are seen from outside the sheet. */
	readonly triangles: readonly number[];
}

/**
 * The side of each body of a sheet that looks more outward: what lies over the other side, without the rims between.
 * None for bodies that are no sheets of that thickness.
 *
 * ```ts
 * const [side] = outerSides({ vertices: [0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1], triangles: [0, 2, 1, 0, 1, 3, 1, 2, 3, 2, 0, 3] }, 4, [0, -1, 0]); // none: a tetrahedron
 * ```
 * @param thickness mm @param outward of any length
 */
export function outerSides(mesh: ClosedMesh, thickness: number, outward: Vector): Side[] {
	const facets = facetsOf(mesh);
	const { normals, areas } = facets;
	const { vertices, triangles } = mesh;
	const all = Array.from({ length: facets.count }, (_, t) => t);
	const isSmooth = (t: number, other: number) => dot(pointAt(normals, t), pointAt(normals, other)) > SMOOTH;
	const looks = (part: readonly number[]) =>
		part.reduce((sum, t) => sum + areas[t]! * dot(pointAt(normals, t), outward), 0);
	return joinedParts(triangles, all).flatMap((body) => {
		const covered = body.filter((t) => isBacked(facets, body, t, THICKER * thickness));
		let sides = joinedParts(triangles, covered);
		// As narrow as it is thick its rims are covered too: they are told from its sides by their edges.
		if (sides.length === 1) sides = joinedParts(triangles, covered, isSmooth);
		if (sides.length < 2) return [];
		const largest = sides
			.map((side) => ({ side, area: side.reduce((sum, t) => sum + areas[t]!, 0) }))
			.sort((a, b) => b.area - a.area)
			.slice(0, 2);
		const [one, other] = largest.map(({ side }) => side) as [number[], number[]];
		const side = looks(one) >= looks(other) ? one : other;
		const numbers = new Map<number, number>();
		const own = side.flatMap((t) =>
			[0, 1, 2].map((k) => {
				const corner = triangles[3 * t + k]!;
				const known = numbers.get(corner) ?? numbers.size;
				numbers.set(corner, known);
				return known;
			})
		);
		const points = Float64Array.from([...numbers.keys()].flatMap((corner) => pointAt(vertices, corner)));
		return [{ points, triangles: own }];
	});
}
