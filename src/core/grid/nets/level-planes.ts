import { evaluateGrid, evaluateRows, type Surface } from '../../geometry/surface';
import { distance, pointAt, scale, type Vector } from '../../geometry/vector';
import { refuse } from '../../units/problem';
import type { Belt } from '../belt';
import type { NodeNet, Spread } from '../node-grid';
import { NO_DIRECTION } from '../../geometry/tolerance';

/** Places looked at along every course and up every bay line. */
const ACROSS = 256;
const UP = 128;
const ROUNDS = 60;
/** mm */
const SAME_HEIGHT = 1e-6;
const EXACT = 1e-9;

/** A plane meets a line up at a place, or runs out over its foot or its head. */
type Meeting = 'meets' | 'foot' | 'head';

/** Heights of a surface along a direction (mm), and where its lines up cross planes of one height. */
class Heights {
	private readonly vs: Float64Array;

	constructor(
		private readonly surface: Surface,
		private readonly up: Vector
	) {
		const { knotsV } = surface;
		this.vs = Float64Array.from(
			{ length: UP + 1 },
			(_, k) => knotsV[0]! + (k / UP) * (knotsV.at(-1)! - knotsV[0]!)
		);
	}

	private of(points: Float64Array): Float64Array {
		const [x, y, z] = this.up;
		return Float64Array.from(
			{ length: points.length / 3 },
			(_, k) => x * points[3 * k]! + y * points[3 * k + 1]! + z * points[3 * k + 2]!
		);
	}

	/** Heights of places, one for each u and v. */
	at(us: Float64Array, vs: Float64Array): Float64Array {
		return this.of(evaluateRows(this.surface, us, 1, vs).points);
	}

	/** Heights up many lines: of line i at i + row * us.length. */
	lines(us: Float64Array): Float64Array {
		return this.of(evaluateGrid(this.surface, us, this.vs).points);
	}

	/**
	 * Where lines up come to a height first.
	 * @param heights of these lines, from `lines`
	 */
	crossings(
		us: Float64Array,
		heights: Float64Array,
		height: number
	): { v: Float64Array; meeting: Meeting[] } {
		const n = us.length;
		const [low, high] = [new Float64Array(n), new Float64Array(n)];
		/** What the ends of every bracket weigh: how far they are below the height, and above it (mm). */
		const [under, over] = [new Float64Array(n), new Float64Array(n)];
		const v = new Float64Array(n);
		const open = new Uint8Array(n);
		const meeting = Array.from(us, (_, i): Meeting => {
			const z = (k: number) => heights[k * n + i]! - height;
			let k = 0;
			while (k <= UP && z(k) < 0) k++;
			const to = Math.min(UP, k);
			v[i] = this.vs[to]!;
			if (k === 0 || k > UP) return Math.abs(z(to)) <= SAME_HEIGHT ? 'meets' : k === 0 ? 'foot' : 'head';
			[low[i], high[i], under[i], over[i], open[i]] = [this.vs[k - 1]!, v[i]!, -z(k - 1), z(k), 1];
			return 'meets';
		});
		// False position, all lines at once in long rows; an end that stays again counts half, so that both come in.
		const stayed = new Int8Array(n);
		for (let round = 0; round < ROUNDS && open.includes(1); round++) {
			for (let i = 0; i < n; i++)
				if (open[i]) v[i] = low[i]! + ((high[i]! - low[i]!) * under[i]!) / (under[i]! + over[i]!);
			const z = this.at(us, v);
			for (let i = 0; i < n; i++) {
				if (!open[i]) continue;
				const off = z[i]! - height;
				const way = off < 0 ? -1 : 1;
				if (Math.abs(off) <= EXACT || v[i]! <= low[i]! || v[i]! >= high[i]!) open[i] = 0;
				if (way < 0) [low[i], under[i]] = [v[i]!, -off];
				else [high[i], over[i]] = [v[i]!, off];
				if (stayed[i] === way) {
					if (way < 0) over[i]! /= 2;
					else under[i]! /= 2;
				}
				stayed[i] = way;
			}
		}
		return { v, meeting };
	}
}

/**
 * Course lines where level planes, or others of one direction, cut the face, bays by even true length along each of
 * them. Where a plane runs out over the foot or the head, its nodes lie on that rim: one for all rows of a column.
 * @throws ProblemError when the face does not rise
 */
export function levelPlaneNet(
	surface: Surface,
	{ across, up }: { across: Spread; up: Spread },
	belts: { up: Belt },
	direction: Vector,
	at: string
): NodeNet {
	const size = Math.hypot(...direction);
	if (!(size > NO_DIRECTION))
		refuse(`${at}/planes`, 'the direction of the planes is nothing; give it a length');
	const heights = new Heights(surface, scale(direction, 1 / size));
	const { knotsU, knotsV } = surface;
	const columns = across.steps + (across.closed ? 0 : 1);
	const rows = up.steps + 1;
	const lines = Float64Array.from(belts.up.parameters(up.division.fractions));
	const wanted = heights.at(new Float64Array(rows).fill((knotsU[0]! + knotsU.at(-1)!) / 2), lines);
	for (let j = 1; j < rows; j++)
		if (!(wanted[j]! > wanted[j - 1]! + SAME_HEIGHT) || up.closed)
			refuse(
				`${at}/along`,
				'the planes need a face that rises through them all the way from its foot to its head; turn them, or choose another way to measure'
			);
	const us = Float64Array.from(
		{ length: ACROSS + 1 },
		(_, k) => knotsU[0]! + (k / ACROSS) * (knotsU.at(-1)! - knotsU[0]!)
	);
	const sampled = heights.lines(us);
	const u = new Float64Array(columns * rows);
	const v = new Float64Array(columns * rows);
	const rims = { foot: new Uint32Array(columns), head: new Uint32Array(columns).fill(rows - 1) };
	for (let j = 0; j < rows; j++) {
		const end = j === 0 ? knotsV[0]! : j === rows - 1 ? knotsV.at(-1)! : null;
		const line = end === null ? heights.crossings(us, sampled, wanted[j]!).v : us.map(() => end);
		const row = evenly(evaluateRows(surface, us, 1, line).points, us, across.division.fractions, columns);
		u.set(row, j * columns);
		if (end !== null) {
			v.fill(end, j * columns, (j + 1) * columns);
			continue;
		}
		const found = heights.crossings(row, heights.lines(row), wanted[j]!);
		v.set(found.v, j * columns);
		found.meeting.forEach((way, i) => {
			// Rows come from the foot up: the last one at the foot, the first one at the head.
			if (way === 'foot') rims.foot[i] = j;
			else if (way === 'head') rims.head[i] = Math.min(rims.head[i]!, j);
		});
	}
	const isWhole = rims.foot.every((row) => row === 0) && rims.head.every((row) => row === rows - 1);
	return { columns, rows, u, v, absent: null, rims: isWhole ? null : rims, open: false };
}

/** Parameters at shares of the length of a line, which is given by points. */
function evenly(
	points: Float64Array,
	us: Float64Array,
	shares: ArrayLike<number>,
	count: number
): Float64Array {
	const upTo = new Float64Array(us.length);
	for (let k = 1; k < us.length; k++)
		upTo[k] = upTo[k - 1]! + distance(pointAt(points, k - 1), pointAt(points, k));
	const found = new Float64Array(count);
	for (let i = 0, k = 0; i < count; i++) {
		const length = shares[i]! * upTo.at(-1)!;
		while (k < us.length - 2 && upTo[k + 1]! < length) k++;
		const step = upTo[k + 1]! - upTo[k]!;
		const share = step > 0 ? (length - upTo[k]!) / step : 0;
		found[i] = us[k]! + share * (us[k + 1]! - us[k]!);
	}
	return found;
}
