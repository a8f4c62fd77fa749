import { crosses, isWithin, polygonArea, type Place } from '../polygon';

/** A corner of a ring: anything with a place. */
interface At {
	readonly at: Place;
}

/** A straight way from a corner of a piece to a corner of a hole within it. */
interface Bridge {
	readonly piece: number;
	readonly hole: number;
	readonly size: number;
}

const crossesRing = (a: Place, b: Place, ring: readonly At[]) =>
	ring.some(({ at }, k) => crosses(a, b, at, ring[(k + 1) % ring.length]!.at));

/** Ways that run within the piece and through no hole, shortest first. */
function bridges(piece: readonly At[], hole: readonly At[], holes: readonly (readonly At[])[]): Bridge[] {
	const rim = piece.map(({ at }) => at);
	const found: Bridge[] = [];
	piece.forEach(({ at: a }, p) =>
		hole.forEach(({ at: b }, h) => {
			const middle: Place = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
			if (!isWithin(rim, middle) || crossesRing(a, b, piece)) return;
			if (
				holes.some(
					(ring) =>
						crossesRing(a, b, ring) ||
						isWithin(
							ring.map(({ at }) => at),
							middle
						)
				)
			)
				return;
			found.push({ piece: p, hole: h, size: Math.hypot(a[0] - b[0], a[1] - b[1]) });
		})
	);
	return found.sort((one, other) => one.size - other.size);
}

const run = <T>(ring: readonly T[], from: number, to: number): T[] =>
	from <= to ? ring.slice(from, to + 1) : [...ring.slice(from), ...ring.slice(0, to + 1)];

/** A piece cut in two along a pair of bridges to a hole. */
function split<T extends At>(
	piece: readonly T[],
	hole: readonly T[],
	holes: readonly (readonly T[])[]
): T[][] {
	const ways = bridges(piece, hole, holes);
	const [one] = ways;
	const n = piece.length;
	// The second way starts as far round the piece from the first as there is one.
	const apart = (way: Bridge) => Math.min((way.piece - one!.piece + n) % n, (one!.piece - way.piece + n) % n);
	let other: Bridge | undefined;
	for (const way of ways) {
		if (way.piece === one!.piece || way.hole === one!.hole) continue;
		const place = (bridge: Bridge) => [piece[bridge.piece]!.at, hole[bridge.hole]!.at] as const;
		if (crosses(...place(one!), ...place(way))) continue;
		if (!other || apart(way) > apart(other)) other = way;
	}
	if (!one || !other) return [[...piece]];
	return [
		[...run(piece, one.piece, other.piece), ...run(hole, other.hole, one.hole)],
		[...run(piece, other.piece, one.piece), ...run(hole, one.hole, other.hole)]
	];
}

/**
 * Which of some pieces a hole lies in: of those within one another the smallest.
 *
 * ```ts
 * const owner = pieceAround([outer], inner); // the outline that it lies in
 * ```
 */
export function pieceAround<R extends readonly At[]>(pieces: readonly R[], hole: R): R | undefined {
	const size = (piece: R) => polygonArea(piece.map(({ at }) => at));
	return pieces
		.filter((piece) =>
			isWithin(
				piece.map(({ at }) => at),
				hole[0]!.at
			)
		)
		.sort((a, b) => size(a) - size(b))[0];
}

/**
 * Pieces without holes: each piece that a hole lies in is cut in two through it.
 * @param pieces simple, counter-clockwise @param holes clockwise, none in another
 */
export function aroundHoles<T extends At>(
	pieces: readonly (readonly T[])[],
	holes: readonly (readonly T[])[]
): (readonly T[])[] {
	let left = [...pieces];
	for (const hole of holes) {
		const around = pieceAround(left, hole);
		if (!around) continue;
		left = left.flatMap((piece) => (piece === around ? split(piece, hole, holes) : [piece]));
	}
	return left;
}
