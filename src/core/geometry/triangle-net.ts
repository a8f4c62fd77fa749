import { incircle } from 'robust-predicates';
import type { Place } from './polygon';

/** Triangles side by side. Side e runs from triangles[e] to the next corner of its triangle. */
export interface TriangleNet {
	/** Three corners for each triangle, counter-clockwise. */
	readonly triangles: Uint32Array;
	/** The same side of the triangle beyond; -1 where there is none. */
	readonly beyond: Int32Array;
	/** Sides that stay as they are: 1. */
	readonly held: Uint8Array;
}

/** The next side of the same triangle, and the one before. */
export const onward = (e: number) => (e % 3 === 2 ? e - 2 : e + 1);
const back = (e: number) => (e % 3 === 0 ? e + 2 : e - 1);

/**
 * Triangles side by side.
 *
 * ```ts
 * const net = triangleNet(Uint32Array.of(0, 1, 2, 0, 2, 3), [[0, 1], [1, 2], [2, 3], [3, 0]], 4);
 * ```
 * @param triangles three corners each, counter-clockwise
 * @param lines between corners, sides of triangles, that stay
 * @param count of all corners
 */
export function triangleNet(
	triangles: Uint32Array,
	lines: readonly (readonly [number, number])[],
	count: number
): TriangleNet {
	const sides = new Map<number, number>();
	const way = (a: number, b: number) => a * count + b;
	for (let e = 0; e < triangles.length; e++) sides.set(way(triangles[e]!, triangles[onward(e)]!), e);
	const beyond = new Int32Array(triangles.length);
	for (let e = 0; e < triangles.length; e++)
		beyond[e] = sides.get(way(triangles[onward(e)]!, triangles[e]!)) ?? -1;
	const held = new Uint8Array(triangles.length);
	for (const [a, b] of lines)
		for (const e of [sides.get(way(a, b)), sides.get(way(b, a))]) if (e !== undefined) held[e] = 1;
	return { triangles, beyond, held };
}

/**
 * Flip sides between two triangles, in place, until no corner lies within the circle through those of a triangle beside
 * it: the triangles are as near to equal-sided as the sides that stay let them be.
 * Source: C. L. Lawson, Software for C¹ surface interpolation, 1977; circles by adaptive predicates (J. R. Shewchuk, 1997).
 *
 * ```ts
 * const net = triangleNet(Uint32Array.of(0, 1, 2, 0, 2, 3), [], 4);
 * flipToDelaunay([[0, 0], [4, -1], [8, 0], [4, 1]], net); // net.triangles: 1 2 3 and 1 3 0
 * ```
 * @param places x y of every corner
 */
export function flipToDelaunay(places: readonly Place[], { triangles, beyond, held }: TriangleNet): void {
	const waiting: number[] = [];
	for (let e = 0; e < triangles.length; e++) if (held[e] === 0 && beyond[e]! > e) waiting.push(e);
	/** A side comes to lie against another, and is looked at again unless it stays. */
	const follow = (e: number, other: number, stays: number) => {
		beyond[e] = other;
		held[e] = stays;
		if (other >= 0) beyond[other] = e;
		if (other >= 0 && stays === 0) waiting.push(e);
	};
	for (let e = waiting.pop(); e !== undefined; e = waiting.pop()) {
		const f = beyond[e]!;
		if (f < 0 || held[e] === 1) continue;
		const [e1, e2, f1, f2] = [onward(e), back(e), onward(f), back(f)];
		const [a, b, c, d] = [triangles[e]!, triangles[e1]!, triangles[e2]!, triangles[f2]!];
		const [p, q, r, s] = [places[a]!, places[b]!, places[c]!, places[d]!];
		if (incircle(p[0], p[1], q[0], q[1], r[0], r[1], s[0], s[1]) <= 0) continue;
		const [toC, toA, toD, toB] = [beyond[e1]!, beyond[e2]!, beyond[f1]!, beyond[f2]!];
		const [heldC, heldA, heldD, heldB] = [held[e1]!, held[e2]!, held[f1]!, held[f2]!];
		// a b c and b a d become d c a and c d b.
		triangles[e] = d;
		triangles[e1] = c;
		triangles[e2] = a;
		triangles[f] = c;
		triangles[f1] = d;
		triangles[f2] = b;
		follow(e1, toA, heldA);
		follow(e2, toD, heldD);
		follow(f1, toB, heldB);
		follow(f2, toC, heldC);
	}
}
