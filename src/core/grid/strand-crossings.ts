import { distance } from '../geometry/vector';
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
export const roundOf = ({ points }: Strand) => {
	const pieces = points.length - 1;
	return { pieces, closed: pieces > 2 && distance(points[0]!, points[pieces]!) === 0 };
};
type Round = ReturnType<typeof roundOf>;

/** How far two places on a strand lie apart along it, in pieces. */
const apart = (a: number, b: number, { pieces, closed }: Round) => {
	const off = Math.abs(a - b);
	return closed ? Math.min(off, pieces - off) : off;
};
/** Whether a place on a strand lies at an end of it. */
export const isEnd = (at: number, { pieces, closed }: Round) =>
	!closed && (at < AT_END || at > pieces - AT_END);

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

/**
 * The crossings of strands with one another, each once, wherever their points lie.
 * @param strands points in mm @returns strands by number, places counted in their pieces
 */
export function crossingsOf(strands: readonly Strand[]): Crossing[] {
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
