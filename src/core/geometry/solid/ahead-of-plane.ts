import { polygonArea } from '../polygon';
import { fillLoops, openRings } from '../triangulate';
import { cross, dot, pointAt, subtract, unit, type Vector } from '../vector';
import type { ClosedMesh } from './library';

/** What is no further off a plane (mm) is on it: meshes are kept in single precision. */
const ON = 0.01;

/** A plane that cuts a body: what lies ahead of it stays. */
export interface Plane {
	readonly at: Vector;
	/** Length 1. */
	readonly normal: Vector;
}

/** Triangles with the points that they were cut at. */
interface Split {
	readonly vertices: number[];
	readonly triangles: number[];
	/** Of every vertex, whether it is on the plane. */
	readonly on: boolean[];
}

/** The parts of triangles that lie ahead: what is across the plane is split at it, each side of a triangle once. */
function splitAhead({ vertices, triangles }: ClosedMesh, off: Float64Array): Split {
	const points = Array.from(vertices);
	const on = Array.from(off, (far) => far === 0);
	const ahead: number[] = [];
	const found = new Map<number, number>();
	const count = off.length;
	const between = (a: number, b: number): number => {
		const [low, high] = a < b ? [a, b] : [b, a];
		const known = found.get(low * count + high);
		if (known !== undefined) return known;
		const t = off[low]! / (off[low]! - off[high]!);
		const fresh = points.length / 3;
		for (let axis = 0; axis < 3; axis++) {
			const from = vertices[3 * low + axis]!;
			points.push(from + t * (vertices[3 * high + axis]! - from));
		}
		on.push(true);
		found.set(low * count + high, fresh);
		return fresh;
	};
	for (let k = 0; k < triangles.length; k += 3) {
		const ring: number[] = [];
		let some = false;
		for (let side = 0; side < 3; side++) {
			const a = triangles[k + side]!;
			const b = triangles[k + ((side + 1) % 3)]!;
			if (off[a]! >= 0) ring.push(a);
			if (off[a]! > 0) some = true;
			if (off[a]! * off[b]! < 0) ring.push(between(a, b));
		}
		// What lies in the plane is left to the cap, which knows on which side the body is.
		if (!some) continue;
		for (let m = 2; m < ring.length; m++) ahead.push(ring[0]!, ring[m - 1]!, ring[m]!);
	}
	return { vertices: points, triangles: ahead, on };
}

/** Triangles that close one outline and the openings in it; null where there is more than one outline. */
function capOf({ vertices, triangles, on }: Split, { at, normal }: Plane): number[] | null {
	// Seen from behind the plane, what is to be filled lies to the right of what is open.
	const loops = openRings(triangles).map((ring) => ring.reverse());
	if (loops.some((loop) => loop.some((corner) => !on[corner]))) return null;
	if (!loops.length) return [];
	const along: Vector = Math.abs(normal[0]) < 0.6 ? [1, 0, 0] : [0, 1, 0];
	const u = unit(cross(normal, along));
	const v = cross(u, normal);
	const flat = loops.map((loop) => {
		const places = loop.map((corner) => {
			const off = subtract(pointAt(vertices, corner), at);
			return [dot(off, u), dot(off, v)] as const;
		});
		return { loop, places, outer: polygonArea(places) > 0 };
	});
	const inOrder = [...flat.filter(({ outer }) => outer), ...flat.filter(({ outer }) => !outer)];
	if (!inOrder[0]!.outer || inOrder[1]?.outer) return null;
	const corners = inOrder.flatMap(({ loop }) => loop);
	const openings: number[] = [];
	let begun = 0;
	for (const { loop } of inOrder) {
		if (begun) openings.push(begun);
		begun += loop.length;
	}
	const filled = fillLoops(Float64Array.from(inOrder.flatMap(({ places }) => places.flat())), openings);
	return filled && filled.map((k) => corners[k]!);
}

/** The mesh without the vertices that no triangle has. */
function withoutUnused(vertices: readonly number[], triangles: readonly number[]): ClosedMesh {
	const place = new Map<number, number>();
	const points: number[] = [];
	const renamed = triangles.map((corner) => {
		const known = place.get(corner);
		if (known !== undefined) return known;
		const fresh = place.size;
		place.set(corner, fresh);
		points.push(vertices[3 * corner]!, vertices[3 * corner + 1]!, vertices[3 * corner + 2]!);
		return fresh;
	});
	return { vertices: points, triangles: renamed };
}

/**
 * What of a closed mesh lies ahead of a plane, closed again on it: the quick way for bodies that one outline cuts,
 * openings in it or not, as nearly every bar is. The mesh itself where nothing is behind, one without triangles where
 * nothing is ahead; null where the plane cuts several outlines, or the mesh does not close: that is for the library of
 * solids.
 *
 * ```ts
 * const tetra = { vertices: [0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1], triangles: [0, 2, 1, 0, 1, 3, 1, 2, 3, 2, 0, 3] };
 * const upper = aheadOfPlane(tetra, { at: [0, 0, 0.5], normal: [0, 0, 1] });
 * ```
 */
export function aheadOfPlane(mesh: ClosedMesh, plane: Plane): ClosedMesh | null {
	const { vertices } = mesh;
	const { at, normal } = plane;
	const from = dot(at, normal);
	const off = new Float64Array(vertices.length / 3);
	let [least, most] = [0, 0];
	for (let k = 0; k < off.length; k++) {
		const far =
			vertices[3 * k]! * normal[0] +
			vertices[3 * k + 1]! * normal[1] +
			vertices[3 * k + 2]! * normal[2] -
			from;
		off[k] = Math.abs(far) <= ON ? 0 : far;
		least = Math.min(least, off[k]!);
		most = Math.max(most, off[k]!);
	}
	if (least === 0) return mesh;
	if (most === 0) return { vertices: [], triangles: [] };
	const split = splitAhead(mesh, off);
	const cap = capOf(split, plane);
	return cap && withoutUnused(split.vertices, [...split.triangles, ...cap]);
}
