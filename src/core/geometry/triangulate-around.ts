import cdt2d from 'cdt2d';
import { side, type Place } from './polygon';

/** A loop of corners by their numbers, the last joined to the first. */
export type Loop = readonly number[];

/** The place of the next corner of the same triangle. */
const onward = (k: number) => (k % 3 === 2 ? k - 2 : k + 1);

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
	const held = [outline, ...openings].flatMap((loop) =>
		loop.map((corner, k) => [corner, loop[(k + 1) % loop.length]!] as const)
	);
	const net = cdt2d(places, held).flatMap(([a, b, c]) =>
		side(places[a]!, places[b]!, places[c]!) > 0 ? [a, b, c] : [a, c, b]
	);
	// What lies to the left of the outline is reached without going over any loop.
	const way = (a: number, b: number) => a * places.length + b;
	const walls = new Set(held.flatMap(([a, b]) => [way(a, b), way(b, a)]));
	const triangleOf = new Map<number, number>();
	for (let k = 0; k < net.length; k++) triangleOf.set(way(net[k]!, net[onward(k)]!), Math.floor(k / 3));
	const first = triangleOf.get(way(outline[0]!, outline[1]!));
	const reached = new Set(first === undefined ? [] : [first]);
	for (const t of reached)
		for (let k = 3 * t; k < 3 * t + 3; k++) {
			const [a, b] = [net[k]!, net[onward(k)]!];
			const beyond = triangleOf.get(way(b, a));
			if (beyond !== undefined && !walls.has(way(a, b))) reached.add(beyond);
		}
	return [...reached].sort((a, b) => a - b).flatMap((t) => net.slice(3 * t, 3 * t + 3));
}
