import { NO_DIRECTION } from '../geometry/tolerance';
import { add, distance, length, mix, scale, type Vector } from '../geometry/vector';
import type { Strand } from './turned-copies';

/** Strands cross where they come nearer than this share of the shorter of their pieces there. */
const NEAR = 0.1;
/** A crossing at an end of a strand is none: they meet there. Pieces of it. */
const AT_END = 0.02;
/**
 * Beside a point of a strand its two pieces may both seem to pass the crossing by, since they are chords of a curved
 * face: it may lie beyond their ends by so many pieces.
 */
const BEYOND = 0.05;

/** Where two strands cross: places along each, counted in its pieces. */
interface Crossing {
	readonly one: number;
	readonly other: number;
	readonly at: number;
	readonly otherAt: number;
}

/** How many pieces a strand has, and whether it comes back to its first point: then its ends are none. */
const roundOf = ({ points }: Strand) => {
	const pieces = points.length - 1;
	return { pieces, closed: pieces > 2 && distance(points[0]!, points[pieces]!) === 0 };
};
type Round = ReturnType<typeof roundOf>;

/** How far two places on a strand lie apart along it, in pieces. */
const apart = (a: number, b: number, { pieces, closed }: Round) => {
	const off = Math.abs(a - b);
	return closed ? Math.min(off, pieces - off) : off;
};
const isEnd = (at: number, { pieces, closed }: Round) => !closed && (at < AT_END || at > pieces - AT_END);

/** The pieces of all strands as flat numbers, and boxes round them. */
function piecesOf(strands: readonly Strand[]) {
	const first: number[] = [0];
	for (const { points } of strands) first.push(first.at(-1)! + points.length - 1);
	const count = first.at(-1)!;
	const ends = new Float64Array(6 * count);
	const low = new Float64Array(3 * count);
	const high = new Float64Array(3 * count);
	const size = new Float64Array(count);
	strands.forEach(({ points }, s) => {
		for (let k = 0; k + 1 < points.length; k++) {
			const piece = first[s]! + k;
			const [a, b] = [points[k]!, points[k + 1]!];
			size[piece] = Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);
			for (let n = 0; n < 3; n++) {
				ends[6 * piece + n] = a[n]!;
				ends[6 * piece + 3 + n] = b[n]!;
				low[3 * piece + n] = Math.min(a[n]!, b[n]!) - NEAR * size[piece]!;
				high[3 * piece + n] = Math.max(a[n]!, b[n]!) + NEAR * size[piece]!;
			}
		}
	});
	return { first, ends, low, high, size };
}

/** Shares along the straight lines through two pieces where they are nearest, and how near. */
function nearest(ends: Float64Array, p: number, q: number): readonly [number, number, number] {
	const [a, b] = [6 * p, 6 * q];
	let [uu, uv, vv, uw, vw] = [0, 0, 0, 0, 0];
	for (let n = 0; n < 3; n++) {
		const u = ends[a + 3 + n]! - ends[a + n]!;
		const v = ends[b + 3 + n]! - ends[b + n]!;
		const w = ends[a + n]! - ends[b + n]!;
		uu += u * u;
		uv += u * v;
		vv += v * v;
		uw += u * w;
		vw += v * w;
	}
	const det = uu * vv - uv * uv;
	// Pieces that run alongside one another do not cross.
	if (!(det > 1e-6 * uu * vv)) return [0, 0, Infinity];
	const s = (uv * vw - vv * uw) / det;
	const t = (uu * vw - uv * uw) / det;
	let gap = 0;
	for (let n = 0; n < 3; n++) {
		const off =
			ends[a + n]! +
			s * (ends[a + 3 + n]! - ends[a + n]!) -
			ends[b + n]! -
			t * (ends[b + 3 + n]! - ends[b + n]!);
		gap += off * off;
	}
	return [s, t, Math.sqrt(gap)];
}

/** By how much a place lies beyond the ends of a piece, in pieces. */
const beyond = (share: number) => Math.max(-share, share - 1, 0);
const held = (share: number) => Math.min(1, Math.max(0, share));

function crossingsOf(strands: readonly Strand[]): Crossing[] {
	const { first, ends, low, high, size } = piecesOf(strands);
	const rounds = strands.map(roundOf);
	const found: Crossing[] = [];
	for (let one = 0; one < strands.length; one++)
		for (let other = one + 1; other < strands.length; other++) {
			const here: (Crossing & { readonly off: number })[] = [];
			const [round, otherRound] = [rounds[one]!, rounds[other]!];
			for (let p = first[one]!; p < first[one + 1]!; p++)
				for (let q = first[other]!; q < first[other + 1]!; q++) {
					if (low[3 * p]! > high[3 * q]! || low[3 * q]! > high[3 * p]!) continue;
					if (low[3 * p + 1]! > high[3 * q + 1]! || low[3 * q + 1]! > high[3 * p + 1]!) continue;
					if (low[3 * p + 2]! > high[3 * q + 2]! || low[3 * q + 2]! > high[3 * p + 2]!) continue;
					const [s, t, gap] = nearest(ends, p, q);
					const off = Math.max(beyond(s), beyond(t));
					if (off > BEYOND || gap > NEAR * Math.min(size[p]!, size[q]!)) continue;
					const [at, otherAt] = [p - first[one]! + held(s), q - first[other]! + held(t)];
					if (isEnd(at, round) || isEnd(otherAt, otherRound)) continue;
					const crossing = { one, other, at, otherAt, off };
					// Beside a point each of up to four pairs of pieces finds it: the one that holds it is right.
					const isSame = (c: Crossing) =>
						apart(c.at, at, round) <= 2 * BEYOND && apart(c.otherAt, otherAt, otherRound) <= 2 * BEYOND;
					const known = here.findIndex(isSame);
					if (known < 0) here.push(crossing);
					else if (off < here[known]!.off) here[known] = crossing;
				}
			found.push(...here);
		}
	return found;
}

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
const GIVES_WAY = 0.1;

interface Led {
	readonly at: number;
	readonly by: number;
}

/** How far a strand is off the face at one of its own points, between the crossings that it is led by. */
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
