import cdt2d from 'cdt2d';
import { flipToDelaunay, onward, triangleNet } from './triangle-net';
import { side, type Place } from './polygon';

/** A loop of corners by their numbers, the last joined to the first. */
export type Loop = readonly number[];

/** Triangles of all places, with these lines among their sides; none where lines cross. */
function trianglesBetween(
	places: readonly Place[],
	lines: readonly [number, number][]
): [number, number, number][] {
	try {
		// The library could flip sides too, but reckons every circle exactly, whether it is near or not.
		return cdt2d(places, lines, { delaunay: false });
	} catch {
		// It has no answer where lines cross, and breaks on some of them.
		return [];
	}
}

/**
 * Triangles between an outline and openings in it, counter-clockwise, as near to equal-sided as the loops let them be
 * (a constrained Delaunay triangulation); places of no loop become corners too.
 *
 * ```ts
 * const triangles = triangulateAround([[0, 0], [4, 0], [4, 4], [0, 4], [1, 1], [2, 1], [2, 2]], [0, 1, 2, 3], [[4, 5, 6]]);
 * ```
 * @param places of which none is there twice
 * @param openings within the outline, apart from it and from each other
 * @returns numbers of places, three for each triangle; none where the outline meets itself or an opening
 */
export function triangulateAround(
	places: readonly Place[],
	outline: Loop,
	openings: readonly Loop[] = []
): number[] {
	const lines = [outline, ...openings].flatMap((loop) =>
		loop.map((corner, k): [number, number] => [corner, loop[(k + 1) % loop.length]!])
	);
	const found = trianglesBetween(places, lines);
	const area = found.reduce((sum, [a, b, c]) => sum + side(places[a]!, places[b]!, places[c]!), 0);
	const corners = Uint32Array.from(found.flatMap(([a, b, c]) => (area > 0 ? [a, b, c] : [a, c, b])));
	const net = triangleNet(corners, lines, places.length);
	flipToDelaunay(places, net);
	const { triangles, beyond, held } = net;
	// What lies to the left of the outline is reached without going over any loop.
	const first = triangles.findIndex((a, e) => a === outline[0] && triangles[onward(e)] === outline[1]);
	const reached = new Set(first < 0 ? [] : [Math.floor(first / 3)]);
	for (const t of reached)
		for (let e = 3 * t; e < 3 * t + 3; e++)
			if (beyond[e]! >= 0 && held[e] === 0) reached.add(Math.floor(beyond[e]! / 3));
	return [...reached].sort((a, b) => a - b).flatMap((t) => [...triangles.subarray(3 * t, 3 * t + 3)]);
}
