/**
 * Clipping a convex cell by closed curves whose kept side lies to their left, in the plane of the lattice.
 * What runs exactly along a cell's side counts as within it; pieces without area are dropped.
 */

export type Place = readonly [x: number, y: number];

/** A corner of a piece: of the cell, of a curve, or where a curve crosses a side of the cell. */
export type Corner =
	| { readonly is: 'cell'; readonly corner: number }
	| { readonly is: 'curve'; readonly curve: number; readonly k: number }
	| {
			readonly is: 'crossing';
			readonly curve: number;
			readonly k: number;
			readonly side: number;
			readonly at: Place;
	  };

export interface ClippedCell {
	/** Corners of each piece, counter-clockwise. */
	readonly pieces: readonly { readonly corners: readonly Corner[]; readonly area: number }[];
	/** Curves that lie wholly within the cell. */
	readonly within: readonly number[];
	/** No curve comes into the cell. */
	readonly untouched: boolean;
}

/** Lengths in the lattice that count as nothing: a millionth of a step and less. */
const NOTHING = 1e-9;
/** Pieces with less of the cell's area are what rounding leaves. */
const LEAST_SHARE = 1e-10;

const side = (a: Place, b: Place, p: Place) => (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]);
const distance = (a: Place, b: Place) => Math.hypot(a[0] - b[0], a[1] - b[1]);

export function polygonArea(points: readonly Place[]): number {
	let sum = 0;
	points.forEach((p, k) => {
		const q = points[(k + 1) % points.length]!;
		sum += p[0] * q[1] - q[0] * p[1];
	});
	return sum / 2;
}

export interface Box {
	readonly low: Place;
	readonly high: Place;
}

export function boxOf(places: readonly Place[]): Box {
	let [left, low, right, high] = [Infinity, Infinity, -Infinity, -Infinity];
	for (const [x, y] of places) {
		if (x < left) left = x;
		if (x > right) right = x;
		if (y < low) low = y;
		if (y > high) high = y;
	}
	return { low: [left, low], high: [right, high] };
}

export const areApart = (a: Box, b: Box): boolean =>
	a.high[0] < b.low[0] || b.high[0] < a.low[0] || a.high[1] < b.low[1] || b.high[1] < a.low[1];

interface Stretch {
	readonly corners: { readonly corner: Corner; readonly at: Place }[];
	/** Places on the cell's rim: side number plus the share of it. */
	from: number;
	to: number;
}

/** Where a point of the rim lies on it. */
function rimPlace(cell: readonly Place[], p: Place): number {
	let best = 0;
	let least = Infinity;
	cell.forEach((a, k) => {
		const b = cell[(k + 1) % cell.length]!;
		const size = distance(a, b);
		const along = ((p[0] - a[0]) * (b[0] - a[0]) + (p[1] - a[1]) * (b[1] - a[1])) / (size * size);
		const share = Math.min(1, Math.max(0, along));
		const far = distance(p, [a[0] + share * (b[0] - a[0]), a[1] + share * (b[1] - a[1])]);
		if (far < least - NOTHING) {
			least = far;
			best = (k + share) % cell.length;
		}
	});
	return best;
}

/** The part of a segment within the cell, as shares of it, and the sides it comes in and goes out by. */
function within(cell: readonly Place[], p: Place, q: Place) {
	let from = 0;
	let to = 1;
	let inBy = -1;
	let outBy = -1;
	for (let k = 0; k < cell.length; k++) {
		const a = cell[k]!;
		const b = cell[(k + 1) % cell.length]!;
		const size = distance(a, b);
		const flat = (value: number) => (Math.abs(value) < NOTHING * size ? 0 : value);
		const dp = flat(side(a, b, p));
		const dq = flat(side(a, b, q));
		if (dp < 0 && dq < 0) return null;
		if (dp < 0) {
			const t = dp / (dp - dq);
			if (t > from) [from, inBy] = [t, k];
		} else if (dq < 0) {
			const t = dp / (dp - dq);
			if (t < to) [to, outBy] = [t, k];
		}
	}
	return from < to ? { from, to, inBy, outBy } : null;
}

/** The stretches of one curve within the cell; the whole of it as `'all'`. */
function stretchesOf(cell: readonly Place[], curve: readonly Place[], index: number): Stretch[] | 'all' {
	const n = curve.length;
	const found: (Stretch & { endsOnCorner: boolean; startsAt: number })[] = [];
	for (let k = 0; k < n; k++) {
		const [p, q] = [curve[k]!, curve[(k + 1) % n]!];
		const part = within(cell, p, q);
		if (!part) continue;
		const on = (t: number): Place => [p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])];
		const corner = (t: number, by: number) => {
			if (t === 0 || distance(on(t), p) < NOTHING)
				return { corner: { is: 'curve' as const, curve: index, k }, at: p };
			if (t === 1 || distance(on(t), q) < NOTHING)
				return { corner: { is: 'curve' as const, curve: index, k: (k + 1) % n }, at: q };
			return { corner: { is: 'crossing' as const, curve: index, k, side: by, at: on(t) }, at: on(t) };
		};
		const [start, end] = [corner(part.from, part.inBy), corner(part.to, part.outBy)];
		if (distance(start.at, end.at) < NOTHING) continue;
		const last = found.at(-1);
		const goesOn =
			last?.endsOnCorner && part.from === 0 && distance(last.corners.at(-1)!.at, start.at) < NOTHING;
		if (goesOn) last.corners.push(end);
		else
			found.push({
				corners: [start, end],
				from: 0,
				to: 0,
				endsOnCorner: false,
				startsAt: part.from === 0 ? k : -1
			});
		found.at(-1)!.endsOnCorner = part.to === 1;
	}
	const [first, last] = [found[0], found.at(-1)];
	// The curve's own start may lie within a stretch.
	if (
		first &&
		last?.endsOnCorner &&
		first.startsAt === 0 &&
		distance(last.corners.at(-1)!.at, first.corners[0]!.at) < NOTHING
	) {
		if (found.length === 1) return 'all';
		last.corners.push(...first.corners.slice(1));
		last.endsOnCorner = first.endsOnCorner;
		found.shift();
	}
	for (const one of found) {
		one.from = rimPlace(cell, one.corners[0]!.at);
		one.to = rimPlace(cell, one.corners.at(-1)!.at);
	}
	return found;
}

/** @param cell convex, counter-clockwise @param curves none of them crossing another */
export function clipConvex(cell: readonly Place[], curves: readonly (readonly Place[])[]): ClippedCell {
	const stretches: Stretch[] = [];
	const whole: number[] = [];
	curves.forEach((curve, index) => {
		const found = stretchesOf(cell, curve, index);
		if (found === 'all') whole.push(index);
		else stretches.push(...found);
	});
	if (stretches.length === 0) return { pieces: [], within: whole, untouched: whole.length === 0 };

	const n = cell.length;
	const pieces: { corners: Corner[]; area: number }[] = [];
	const unused = new Set(stretches);
	const ahead = (from: number, to: number) => {
		const way = (((to - from) % n) + n) % n;
		return way > n - NOTHING ? 0 : way;
	};
	for (const start of stretches) {
		if (!unused.delete(start)) continue;
		const corners = start.corners.map((one) => one.corner);
		const places = start.corners.map((one) => one.at);
		let at = start.to;
		for (;;) {
			// On along the rim, counter-clockwise, to where a curve comes in next.
			let next = start;
			for (const one of unused) if (ahead(at, one.from) < ahead(at, next.from)) next = one;
			const way = ahead(at, next.from);
			for (let k = Math.floor(at) + 1; k - at < way - NOTHING; k++) {
				corners.push({ is: 'cell', corner: k % n });
				places.push(cell[k % n]!);
			}
			if (next === start) break;
			unused.delete(next);
			corners.push(...next.corners.map((one) => one.corner));
			places.push(...next.corners.map((one) => one.at));
			at = next.to;
		}
		const area = polygonArea(places);
		if (area > LEAST_SHARE * polygonArea(cell)) pieces.push({ corners, area });
	}
	return { pieces, within: whole, untouched: false };
}
