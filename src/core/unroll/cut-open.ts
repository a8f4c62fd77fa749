import { openRings } from '../geometry/triangulate';
import { distance, pointAt } from '../geometry/vector';
import type { Side } from './outer-side';

/** Corners about which triangles make less or more than a full turn by more (rad) do not lie flat. */
const FULL_TURN = 1e-3;

/** Corners within a side that its triangles cannot lie flat about. */
export function peaksOf({ points, triangles }: Side): number[] {
	const turns = new Float64Array(points.length / 3);
	for (let k = 0; k < triangles.length; k++) {
		const t = k - (k % 3);
		const [a, b, c] = [k, t + ((k + 1) % 3), t + ((k + 2) % 3)].map((n) => pointAt(points, triangles[n]!));
		const [ab, ac, bc] = [distance(a!, b!), distance(a!, c!), distance(b!, c!)];
		const cos = ab * ac > 0 ? (ab * ab + ac * ac - bc * bc) / (2 * ab * ac) : 1;
		turns[triangles[k]!]! += Math.acos(Math.min(1, Math.max(-1, cos)));
	}
	const rim = new Set(openRings(triangles).flat());
	return [...turns.keys()].filter((k) => !rim.has(k) && Math.abs(turns[k]! - 2 * Math.PI) > FULL_TURN);
}

/** Corners that sides join, with how far they are apart. */
function neighboursOf({ points, triangles }: Side): Map<number, number>[] {
	const of = Array.from({ length: points.length / 3 }, () => new Map<number, number>());
	for (let k = 0; k < triangles.length; k++) {
		const [a, b] = [triangles[k]!, triangles[k % 3 === 2 ? k - 2 : k + 1]!];
		const far = distance(pointAt(points, a), pointAt(points, b));
		of[a]!.set(b, far);
		of[b]!.set(a, far);
	}
	return of;
}

/** The shortest way over sides from some corners to others (Dijkstra); null for none. */
function shortestWay(
	neighbours: readonly ReadonlyMap<number, number>[],
	from: readonly number[],
	to: ReadonlySet<number>
): number[] | null {
	const far = new Map(from.map((k) => [k, 0]));
	const before = new Map<number, number>();
	const open = new Set(from);
	while (open.size) {
		let next = -1;
		for (const k of open) if (next < 0 || far.get(k)! < far.get(next)!) next = k;
		open.delete(next);
		if (to.has(next)) {
			const way = [next];
			for (let k = before.get(next); k !== undefined; k = before.get(k)) way.push(k);
			return way;
		}
		for (const [k, step] of neighbours[next]!) {
			const length = far.get(next)! + step;
			if (length >= (far.get(k) ?? Infinity)) continue;
			far.set(k, length);
			before.set(k, next);
			open.add(k);
		}
	}
	return null;
}

/** The same triangles, parted along sides: every corner is as many as it falls into. */
function parted({ points, triangles }: Side, cuts: ReadonlySet<string>): Side {
	const sides = new Map<string, number>();
	// Corners of triangles that stay one, each known by the first of them.
	const first = Int32Array.from(triangles, (_, k) => k);
	const find = (k: number): number => (first[k] === k ? k : (first[k] = find(first[k]!)));
	const next = (k: number) => (k % 3 === 2 ? k - 2 : k + 1);
	for (let k = 0; k < triangles.length; k++) {
		const [a, b] = [triangles[k]!, triangles[next(k)]!];
		sides.set(`${a} ${b}`, k);
		const other = sides.get(`${b} ${a}`);
		if (other === undefined || cuts.has(`${a} ${b}`)) continue;
		first[find(k)] = find(next(other));
		first[find(next(k))] = find(other);
	}
	const numbers = new Map<number, number>();
	const places: number[] = [];
	const renamed = triangles.map((corner, k) => {
		const own = find(k);
		const known = numbers.get(own);
		if (known !== undefined) return known;
		numbers.set(own, numbers.size);
		places.push(...pointAt(points, corner));
		return numbers.size - 1;
	});
	return { points: Float64Array.from(places), triangles: renamed };
}

/** A side with cuts in it, and how many there are. */
export interface CutOpen {
	readonly side: Side;
	readonly cuts: number;
}

/**
 * Cut a side so that what does not lie flat can: from each peak, and from each rim within, the shortest way over sides to
 * the outer rim, or to another cut.
 * @param outer the corners of the outer rim
 */
export function cutOpen(
	side: Side,
	peaks: readonly number[],
	inner: readonly (readonly number[])[],
	outer: readonly number[]
): CutOpen {
	const neighbours = neighboursOf(side);
	const reached = new Set(outer);
	const cuts = new Set<string>();
	let count = 0;
	for (const from of [...inner, ...peaks.map((peak) => [peak])]) {
		if (from.some((corner) => reached.has(corner))) continue;
		const way = shortestWay(neighbours, from, reached);
		if (!way) continue;
		count++;
		way.forEach((a, k) => {
			reached.add(a);
			const b = way[k + 1];
			if (b !== undefined) cuts.add(`${a} ${b}`).add(`${b} ${a}`);
		});
		for (const corner of from) reached.add(corner);
	}
	return { side: parted(side, cuts), cuts: count };
}
