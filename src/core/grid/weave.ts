import { NO_DIRECTION } from '../geometry/tolerance';
import { add, length, mix, scale, type Vector } from '../geometry/vector';
import { crossingsOf, isEnd, roundOf } from './strand-crossings';
import type { Strand } from './turned-copies';

/** What comes before and after one of those on a strand that is no end of it. */
function besides<One>(list: readonly One[], k: number, strand: Strand): readonly One[] {
	const { closed } = roundOf(strand);
	const at = [k - 1, k + 1].map((n) => (closed ? (n + list.length) % list.length : n));
	return at.flatMap((n) => (n === k ? [] : (list[n] ?? [])));
}

/** Strands that have been led over and under one another. */
export interface Woven {
	readonly strands: readonly Strand[];
	readonly crossings: number;
	/** Crossings where a strand cannot be over and under in turn. */
	readonly outOfTurn: number;
}

/**
 * Lead strands over and under one another where they cross, each in turn: by so much outward and inward. Strands that
 * lie on a face that is no ring, or a ring, can always be; the first crossing of the first strand is over.
 *
 * ```ts
 * const strand = { points: [pointAt(grid.positions, 0), pointAt(grid.positions, 8)], normals: [pointAt(grid.normals, 0), pointAt(grid.normals, 8)] };
 * const { strands, crossings } = woven([strand, mirroredStrand(strand, [0, 0])], 40);
 * ```
 * @param by mm, from the face
 */
export function woven(strands: readonly Strand[], by: number): Woven {
	if (!by) return { strands, crossings: 0, outOfTurn: 0 };
	const crossings = crossingsOf(strands);
	const along = strands.map((): { crossing: number; at: number }[] => []);
	crossings.forEach(({ one, other, at, otherAt }, crossing) => {
		along[one]!.push({ crossing, at });
		along[other]!.push({ crossing, at: otherAt });
	});
	for (const list of along) list.sort((a, b) => a.at - b.at);
	// 1 where the first of two strands is over, -1 where it is under, 0 where that is not said yet.
	const over = new Int8Array(crossings.length);
	const isOver = (crossing: number, strand: number) =>
		crossings[crossing]!.one === strand ? over[crossing]! : -over[crossing]!;
	const next = along.map((list) => new Map(list.map(({ crossing }, k) => [crossing, k])));
	let outOfTurn = 0;
	for (let start = 0; start < crossings.length; start++) {
		if (over[start]) continue;
		over[start] = 1;
		const open = [start];
		for (let crossing = open.pop(); crossing !== undefined; crossing = open.pop())
			for (const strand of [crossings[crossing]!.one, crossings[crossing]!.other]) {
				const k = next[strand]!.get(crossing)!;
				for (const beside of besides(along[strand]!, k, strands[strand]!)) {
					const wanted = -isOver(crossing, strand);
					if (!over[beside.crossing]) {
						over[beside.crossing] = crossings[beside.crossing]!.one === strand ? wanted : -wanted;
						open.push(beside.crossing);
					} else if (isOver(beside.crossing, strand) !== wanted) outOfTurn++;
				}
			}
	}
	return {
		strands: strands.map((strand, s) =>
			led(
				strand,
				along[s]!.map(({ crossing, at }) => ({ at, by: by * isOver(crossing, s) }))
			)
		),
		crossings: crossings.length,
		// Each is met from both of its neighbours.
		outOfTurn: Math.ceil(outOfTurn / 2)
	};
}

/** A strand is back on the face so many pieces beside a crossing, or half way to the next one or to its end. */
const REACH = 1;
/** A point of a strand so near to a crossing (in pieces) gives way to it: a tube through both would have a kink. */
const GIVES_WAY = 0.3;

/** A place of a strand, counted in its pieces, and how far it is led off the face there (mm). */
interface Led {
	readonly at: number;
	readonly by: number;
}

/**
 * How far a strand is off the face (mm) at one of its own points, between the crossings that it is led by.
 * @param place counted in its pieces @param last how many there are
 */
function offAt(place: number, places: readonly Led[], last: number): number {
	const after = places.findIndex(({ at }) => at > place);
	const next = after < 0 ? places.length : after;
	const near = (k: number, beside: number, ends: number) => {
		const one = places[k];
		if (!one) return 0;
		const reach = Math.min(REACH, places[beside] ? Math.abs(one.at - places[beside]!.at) / 2 : ends);
		const share = Math.abs(one.at - place) / reach;
		return share < 1 ? (one.by * (1 + Math.cos(Math.PI * share))) / 2 : 0;
	};
	return (
		near(next - 1, next, last - (places[next - 1]?.at ?? 0)) + near(next, next - 1, places[next]?.at ?? 0)
	);
}

/** A strand through its own points and the places where it is led off the face. @param places in their order */
function led(strand: Strand, places: readonly Led[]): Strand {
	const { points, normals } = strand;
	const round = roundOf(strand);
	const { pieces, closed } = round;
	// What goes round comes by each of its crossings a round before, and a round after.
	const turns = closed ? [-pieces, 0, pieces] : [0];
	const all = turns.flatMap((turn) => places.map(({ at, by }) => ({ at: turn + at, by })));
	const found: { at: number; point: Vector; normal: Vector }[] = [];
	const unit = (n: Vector): Vector => {
		const size = length(n);
		return size > NO_DIRECTION ? scale(n, 1 / size) : [0, 0, 1];
	};
	const at = (place: number, by: number) => {
		const k = Math.min(points.length - 2, Math.floor(place));
		const share = place - k;
		const normal = unit(mix(normals[k]!, normals[k + 1]!, share));
		found.push({ at: place, point: add(mix(points[k]!, points[k + 1]!, share), scale(normal, by)), normal });
	};
	const givesWay = (k: number) => all.some((one) => Math.abs(one.at - k) < GIVES_WAY);
	for (let k = 0; k < (closed ? pieces : pieces + 1); k++)
		if (isEnd(k, round) || !givesWay(k)) at(k, offAt(k, all, pieces));
	for (const one of places) at(one.at, one.by);
	found.sort((a, b) => a.at - b.at);
	if (closed) found.push(found[0]!);
	return { points: found.map(({ point }) => point), normals: found.map(({ normal }) => normal) };
}
