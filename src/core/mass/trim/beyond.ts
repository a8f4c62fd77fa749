import { isWithin, shareWithin, type Box, type Place } from '../../geometry/polygon';
import type { TrimCurve, TrimmedFace } from './trim';

/** Curves run so far beyond a rim, in shares of the parameters, that they cut it for sure. */
export const BEYOND = 1e-3;

/** The whole of a face in shares of its parameters. */
export const WHOLE: Box = { low: [0, 0], high: [1, 1] };

/** From the parameters of a face to shares of them, and back. */
export function sharesOf({ surface }: TrimmedFace): { to: (p: Place) => Place; from: (p: Place) => Place } {
	const [u, v] = [surface.knotsU, surface.knotsV];
	const size = [u.at(-1)! - u[0]!, v.at(-1)! - v[0]!] as const;
	return {
		to: (p) => [(p[0] - u[0]!) / size[0], (p[1] - v[0]!) / size[1]],
		from: (p) => [u[0]! + p[0] * size[0], v[0]! + p[1] * size[1]]
	};
}

/** How far round a box a place on its rim lies, anticlockwise from its first corner: 0 up to 4. */
function roundAt({ low, high }: Box, [x, y]: Place): number {
	const [s, t] = [(x - low[0]) / (high[0] - low[0]), (y - low[1]) / (high[1] - low[1])];
	if (y <= low[1]) return s;
	if (x >= high[0]) return 1 + t;
	return y >= high[1] ? 3 - s : 4 - t;
}

/**
 * A line that parts a box closed round outside it, so that the box's first corner lies within. An end that lies in
 * the box goes on straight until it has left it.
 */
export function closedOutside(line: readonly Place[], box: Box): Place[] {
	const size = Math.max(box.high[0] - box.low[0], box.high[1] - box.low[1]);
	const around: Box = {
		low: [box.low[0] - size, box.low[1] - size],
		high: [box.high[0] + size, box.high[1] + size]
	};
	/** The way from an end of the line to the rim of the box around. */
	const out = (end: Place, before: Place): Place[] => {
		const way = [end[0] - before[0], end[1] - before[1]] as const;
		const far = (3 * size) / (Math.hypot(...way) || 1);
		const straight: Place = [end[0] + far * way[0], end[1] + far * way[1]];
		const share = shareWithin(end, straight, box);
		const left: Place =
			share && share[0] === 0
				? [end[0] + share[1] * (straight[0] - end[0]), end[1] + share[1] * (straight[1] - end[1])]
				: end;
		const [x, y] = left;
		const off = [box.low[1] - y, x - box.high[0], y - box.high[1], box.low[0] - x];
		const side = off.indexOf(Math.max(...off));
		const rim: Place[] = [
			[x, around.low[1]],
			[around.high[0], y],
			[x, around.high[1]],
			[around.low[0], y]
		];
		return left === end ? [rim[side]!] : [left, rim[side]!];
	};
	const head = out(line.at(-1)!, line.at(-2)!);
	const foot = out(line[0]!, line[1]!).reverse();
	const { low, high } = around;
	const corners: Place[] = [
		[low[0], low[1]],
		[high[0], low[1]],
		[high[0], high[1]],
		[low[0], high[1]]
	];
	const from = roundAt(around, head.at(-1)!);
	const way = (((roundAt(around, foot[0]!) - from) % 4) + 4) % 4;
	const ahead = (step: 1 | -1) => {
		const far = (k: number) => (((step * (k - from)) % 4) + 4) % 4;
		const end = step === 1 ? way : 4 - way;
		return [0, 1, 2, 3]
			.filter((k) => far(k) < end)
			.sort((a, b) => far(a) - far(b))
			.map((k) => corners[k]!);
	};
	const closed = (step: 1 | -1) => [...line, ...head, ...ahead(step), ...foot];
	const inside: Place = [box.low[0] + 1e-6 * size, box.low[1] + 1e-6 * size];
	const left = closed(1);
	return isWithin(left, inside) ? left : closed(-1);
}

/** What lies on one side of a line across or up; the curve comes back along the line. */
function cutAt(curve: TrimCurve, axis: 0 | 1, limit: number, side: 1 | -1, period: number): TrimCurve {
	const { run, sharp } = curve;
	const places: Place[] = [];
	const corners: boolean[] = [];
	const turn = run === 'round' ? Math.sign(curve.places.at(-1)![0] - curve.places[0]![0]) * period : 0;
	curve.places.forEach((p, k) => {
		const [x, y] = curve.places[k + 1] ?? curve.places[0]!;
		const q: Place = k + 1 < curve.places.length ? [x, y] : [x + turn, y];
		const [a, b] = [side * (limit - p[axis]), side * (limit - q[axis])];
		if (a >= 0) {
			places.push(p);
			corners.push(sharp[k]!);
		}
		if (a > 0 !== b > 0 && a !== 0 && b !== 0) {
			const t = a / (a - b);
			places.push([p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])]);
			corners.push(false);
		}
	});
	return { places, run, sharp: corners };
}

/**
 * A curve of an outline that runs far beyond the rims brought back to run a little beyond them; null when none of
 * it lies on the face. @param period of the ring, 0 for a face that is none
 */
export function withinReach(face: TrimmedFace, curve: TrimCurve, period: number): TrimCurve | null {
	const { knotsU, knotsV } = face.surface;
	const [low, high] = [
		[knotsU[0]!, knotsV[0]!],
		[knotsU.at(-1)!, knotsV.at(-1)!]
	] as const;
	const box: Box = period ? { low: [-Infinity, low[1]], high: [Infinity, high[1]] } : { low, high };
	const { places } = curve;
	const meets = places.some((p, k) => shareWithin(p, places[(k + 1) % places.length]!, box) !== null);
	if (!meets) return null;
	let left = curve;
	for (const axis of period ? ([1] as const) : ([0, 1] as const)) {
		const beyond = BEYOND * (high[axis] - low[axis]);
		left = cutAt(left, axis, high[axis] + beyond, 1, period);
		left = cutAt(left, axis, low[axis] - beyond, -1, period);
	}
	return left.places.length < 3 ? null : left;
}
