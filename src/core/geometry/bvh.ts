/**
 * Triangles in boxes within boxes, so that a ray is tried against few of them. Flat arrays, for very many rays.
 * mm.
 */
export interface Bvh {
	/** Of every box: low x y z, then high. */
	readonly boxes: Float32Array;
	/** Of every box: its first triangle, or the number of the second of the two boxes in it; the first follows it. */
	readonly first: Uint32Array;
	/** Of every box: how many triangles lie in it, 0 where it holds boxes. */
	readonly count: Uint32Array;
	/** Corner, side, side of every triangle, in the order of the boxes. */
	readonly triangles: Float64Array;
}

const FEW = 4;
const BINS = 12;

/** Boxes are kept in single precision: this much wider, so that nothing lies outside by rounding (share of size). */
const ROUNDING = 1e-6;

/**
 * Box triangles in, parted where the surface of the two halves, times what is in them, is least.
 *
 * ```ts
 * const bvh = makeBvh(Float64Array.of(0, 0, 0, 1000, 0, 0, 0, 1000, 0), Uint32Array.of(0, 1, 2));
 * ```
 * @param points flat x y z (mm) @param index three points for every triangle
 * @param few a box of no more triangles than this is not parted
 */
export function makeBvh(points: Float64Array, index: Uint32Array, few = FEW): Bvh {
	const count = index.length / 3;
	const low = new Float64Array(3 * count).fill(Infinity);
	const high = new Float64Array(3 * count).fill(-Infinity);
	const middle = new Float64Array(3 * count);
	for (let t = 0; t < count; t++)
		for (let a = 0; a < 3; a++) {
			const o = 3 * t + a;
			for (let k = 0; k < 3; k++) {
				const value = points[3 * index[3 * t + k]! + a]!;
				low[o] = Math.min(low[o]!, value);
				high[o] = Math.max(high[o]!, value);
			}
			middle[o] = (low[o]! + high[o]!) / 2;
		}
	const order = Uint32Array.from({ length: count }, (_, t) => t);
	const boxes = new Float32Array(6 * Math.max(1, 2 * count));
	const first = new Uint32Array(boxes.length / 6);
	const held = new Uint32Array(boxes.length / 6);
	let nodes = 0;

	function part(from: number, to: number): void {
		const node = nodes++;
		for (let a = 0; a < 3; a++) {
			let [least, most] = [Infinity, -Infinity];
			for (let k = from; k < to; k++) {
				least = Math.min(least, low[3 * order[k]! + a]!);
				most = Math.max(most, high[3 * order[k]! + a]!);
			}
			const slack = ROUNDING * Math.max(1, Math.abs(least), Math.abs(most));
			boxes[6 * node + a] = least - slack;
			boxes[6 * node + 3 + a] = most + slack;
		}
		const at = to - from > few ? partingPlace(from, to) : from;
		if (at <= from || at >= to) {
			first[node] = from;
			held[node] = to - from;
			return;
		}
		part(from, at);
		first[node] = nodes;
		part(at, to);
	}

	/** Puts the triangles in two halves. @returns where the second begins; `from` when they are better left together */
	function partingPlace(from: number, to: number): number {
		const best = bestParting(order, from, to, low, high, middle);
		if (!best) return from;
		let a = from;
		for (let k = from; k < to; k++) {
			const t = order[k]!;
			if (middle[3 * t + best.axis]! >= best.at) continue;
			order[k] = order[a]!;
			order[a++] = t;
		}
		return a;
	}

	if (count) part(0, count);
	const triangles = new Float64Array(9 * count);
	order.forEach((t, k) => {
		for (let a = 0; a < 3; a++) {
			const corner = points[3 * index[3 * t]! + a]!;
			triangles[9 * k + a] = corner;
			triangles[9 * k + 3 + a] = points[3 * index[3 * t + 1]! + a]! - corner;
			triangles[9 * k + 6 + a] = points[3 * index[3 * t + 2]! + a]! - corner;
		}
	});
	return {
		boxes: boxes.slice(0, 6 * nodes),
		first: first.slice(0, nodes),
		count: held.slice(0, nodes),
		triangles
	};
}

/** Half the surface of a box; 0 for an empty one. */
function surface(box: Float64Array, o: number): number {
	const x = box[o + 3]! - box[o]!;
	const y = box[o + 4]! - box[o + 1]!;
	const z = box[o + 5]! - box[o + 2]!;
	return x < 0 ? 0 : x * y + y * z + z * x;
}
/** Make a box so large that it holds another. */
function widen(
	box: Float64Array,
	o: number,
	low: Float64Array,
	lowAt: number,
	high: Float64Array,
	highAt: number
): void {
	for (let a = 0; a < 3; a++) {
		if (low[lowAt + a]! < box[o + a]!) box[o + a] = low[lowAt + a]!;
		if (high[highAt + a]! > box[o + 3 + a]!) box[o + 3 + a] = high[highAt + a]!;
	}
}
const emptied = (boxes: Float64Array) => {
	for (let k = 0; k < boxes.length; k++) boxes[k] = k % 6 < 3 ? Infinity : -Infinity;
};
const counts = new Uint32Array(BINS);
const ofBins = new Float64Array(6 * BINS);
/** Box of a bin and all after it. */
const after = new Float64Array(6 * BINS);
const before = new Float64Array(6);

/** The axis and place at which triangles are best parted, of some evenly spaced ones. */
function bestParting(
	order: Uint32Array,
	from: number,
	to: number,
	low: Float64Array,
	high: Float64Array,
	middle: Float64Array
): { axis: number; at: number } | null {
	let best: { axis: number; at: number } | null = null;
	let least = Infinity;
	for (let axis = 0; axis < 3; axis++) {
		let start = Infinity;
		let end = -Infinity;
		for (let k = from; k < to; k++) {
			const value = middle[3 * order[k]! + axis]!;
			if (value < start) start = value;
			if (value > end) end = value;
		}
		if (!(end > start)) continue;
		counts.fill(0);
		emptied(ofBins);
		const share = BINS / (end - start);
		for (let k = from; k < to; k++) {
			const t = order[k]!;
			const bin = Math.min(BINS - 1, Math.floor((middle[3 * t + axis]! - start) * share));
			counts[bin]!++;
			widen(ofBins, 6 * bin, low, 3 * t, high, 3 * t);
		}
		emptied(after);
		for (let b = BINS - 1; b > 0; b--) {
			widen(after, 6 * b, ofBins, 6 * b, ofBins, 6 * b + 3);
			if (b + 1 < BINS) widen(after, 6 * b, after, 6 * b + 6, after, 6 * b + 9);
		}
		emptied(before);
		let left = 0;
		for (let b = 1; b < BINS; b++) {
			widen(before, 0, ofBins, 6 * b - 6, ofBins, 6 * b - 3);
			left += counts[b - 1]!;
			const right = to - from - left;
			const cost = left * surface(before, 0) + right * surface(after, 6 * b);
			if (left === 0 || right === 0 || cost >= least) continue;
			least = cost;
			best = { axis, at: start + b / share };
		}
	}
	return best;
}

const stack = new Int32Array(96);
const NONE = -1;

/** How far along a line, in shares of its step, a triangle lies; NONE where it does not (Möller and Trumbore, 1997). */
function shareOn(
	triangles: Float64Array,
	t: number,
	x: number,
	y: number,
	z: number,
	dx: number,
	dy: number,
	dz: number
): number {
	const o = 9 * t;
	const ux = triangles[o + 3]!;
	const uy = triangles[o + 4]!;
	const uz = triangles[o + 5]!;
	const vx = triangles[o + 6]!;
	const vy = triangles[o + 7]!;
	const vz = triangles[o + 8]!;
	const px = dy * vz - dz * vy;
	const py = dz * vx - dx * vz;
	const pz = dx * vy - dy * vx;
	const size = ux * px + uy * py + uz * pz;
	if (size === 0) return NONE;
	const sx = x - triangles[o]!;
	const sy = y - triangles[o + 1]!;
	const sz = z - triangles[o + 2]!;
	const u = (sx * px + sy * py + sz * pz) / size;
	if (!(u >= 0 && u <= 1)) return NONE;
	const qx = sy * uz - sz * uy;
	const qy = sz * ux - sx * uz;
	const qz = sx * uy - sy * ux;
	const v = (dx * qx + dy * qy + dz * qz) / size;
	if (!(v >= 0 && u + v <= 1)) return NONE;
	return (vx * qx + vy * qy + vz * qz) / size;
}

/** No triangle lies on the ray. */
export const FREE = -1;

/**
 * Any triangle on a ray, whichever.
 *
 * ```ts
 * blockerOf(shadeOf([face]), 0, 0, 0, 0, 0, 1, FREE) !== FREE; // something lies above the origin
 * ```
 * @param guess a triangle that is tried first: what blocked the ray before often blocks the next
 * @returns its number in the order of the boxes, or FREE
 */
export function blockerOf(
	{ boxes, first, count, triangles }: Bvh,
	x: number,
	y: number,
	z: number,
	dx: number,
	dy: number,
	dz: number,
	guess: number
): number {
	if (guess !== FREE && shareOn(triangles, guess, x, y, z, dx, dy, dz) > 0) return guess;
	if (!count.length) return FREE;
	const ix = 1 / dx;
	const iy = 1 / dy;
	const iz = 1 / dz;
	// Which side of a box the ray comes to first.
	const nearX = ix < 0 ? 3 : 0;
	const nearY = iy < 0 ? 4 : 1;
	const nearZ = iz < 0 ? 5 : 2;
	let depth = 0;
	stack[depth++] = 0;
	while (depth > 0) {
		const node = stack[--depth]!;
		const o = 6 * node;
		let near = (boxes[o + nearX]! - x) * ix;
		let far = (boxes[o + 3 - nearX]! - x) * ix;
		const ny = (boxes[o + nearY]! - y) * iy;
		const fy = (boxes[o + 5 - nearY]! - y) * iy;
		const nz = (boxes[o + nearZ]! - z) * iz;
		const fz = (boxes[o + 7 - nearZ]! - z) * iz;
		if (ny > near) near = ny;
		if (fy < far) far = fy;
		if (nz > near) near = nz;
		if (fz < far) far = fz;
		// A ray along the side of a box gives no number here, which compares false: the box is entered.
		if (far < 0 || near > far) continue;
		const here = count[node]!;
		if (here === 0) {
			stack[depth++] = first[node]!;
			stack[depth++] = node + 1;
			continue;
		}
		for (let t = first[node]!; t < first[node]! + here; t++)
			if (shareOn(triangles, t, x, y, z, dx, dy, dz) > 0) return t;
	}
	return FREE;
}

/**
 * All triangles on a line from a point on: where they lie, in shares of the step.
 *
 * ```ts
 * const shares: number[] = [];
 * crossingsOf(shadeOf([face]), 0, 0, 0, 0, 0, 9000, 1, shares); // between the origin and 9 m above it
 * ```
 * @param upTo how far, in steps; Infinity for a ray @param shares takes them, in no order
 */
export function crossingsOf(
	{ boxes, first, count, triangles }: Bvh,
	x: number,
	y: number,
	z: number,
	dx: number,
	dy: number,
	dz: number,
	upTo: number,
	shares: number[]
): void {
	if (!count.length) return;
	const [ix, iy, iz] = [1 / dx, 1 / dy, 1 / dz];
	let depth = 0;
	stack[depth++] = 0;
	while (depth > 0) {
		const node = stack[--depth]!;
		const o = 6 * node;
		const ax = (boxes[o]! - x) * ix;
		const bx = (boxes[o + 3]! - x) * ix;
		const ay = (boxes[o + 1]! - y) * iy;
		const by = (boxes[o + 4]! - y) * iy;
		const az = (boxes[o + 2]! - z) * iz;
		const bz = (boxes[o + 5]! - z) * iz;
		const near = Math.max(Math.min(ax, bx), Math.min(ay, by), Math.min(az, bz));
		const far = Math.min(Math.max(ax, bx), Math.max(ay, by), Math.max(az, bz));
		// A line along the side of a box gives no number here, which compares false: the box is entered.
		if (far < 0 || near > upTo || near > far) continue;
		const here = count[node]!;
		if (here === 0) {
			stack[depth++] = first[node]!;
			stack[depth++] = node + 1;
			continue;
		}
		for (let t = first[node]!; t < first[node]! + here; t++) {
			const share = shareOn(triangles, t, x, y, z, dx, dy, dz);
			if (share >= 0 && share <= upTo) shares.push(share);
		}
	}
}
