import { Rooms } from './rooms';

/** Bars cut from stock lengths. */
export interface CutLengths {
	/** The stock length that each bar is cut from, counted from 0; -1 for bars that are longer than it. */
	readonly of: Int32Array;
	readonly count: number;
}

/** Lengths that differ by less (mm) are cut alike. */
const ALIKE = 0.05;
/** How many ways to fill one stock length are looked at. */
const MOST_LOOKS = 100;

/** Each bar, the longest first, into the first stock length that has room for it (first fit decreasing: Johnson 1973; from memory). */
function firstFit(lengths: Float64Array, order: Uint32Array, room: number, saw: number): CutLengths {
	const of = new Int32Array(lengths.length).fill(-1);
	const rooms = new Rooms(order.length, room);
	let count = 0;
	for (const bar of order) {
		of[bar] = rooms.take(lengths[bar]! + saw);
		count = Math.max(count, of[bar]! + 1);
	}
	return { of, count };
}

/** Each stock length as full as can be, beginning with the longest bar that is left (minimum bin slack: Gupta and Ho 1999; from memory). */
function fullest(lengths: Float64Array, order: Uint32Array, room: number, saw: number): CutLengths {
	const of = new Int32Array(lengths.length).fill(-1);
	/** Lengths by their place in the order, each once, with the bars that have them. */
	const sizes: number[] = [];
	const bars: number[][] = [];
	for (const bar of order) {
		const size = lengths[bar]! + saw;
		if (!sizes.length || sizes.at(-1)! - size > ALIKE) {
			sizes.push(size);
			bars.push([]);
		}
		bars.at(-1)!.push(bar);
	}
	let left = order.length;
	let first = 0;
	let count = 0;
	const taken: number[] = [];
	const used = new Uint32Array(sizes.length);
	let best: number[] = [];
	let least = Infinity;
	let looks = 0;
	/** Where to go on from a size of which no bar is left. */
	const next = Uint32Array.from({ length: sizes.length + 1 }, (_, k) => k);
	const withBars = (k: number) => {
		while (next[k] !== k) k = next[k] = next[next[k]!]!;
		return k;
	};
	/** The largest size, not before one, that there is room for. */
	const within = (from: number, rest: number) => {
		let [low, high] = [from, sizes.length];
		while (low < high) {
			const middle = (low + high) >> 1;
			if (sizes[middle]! > rest) low = middle + 1;
			else high = middle;
		}
		return low;
	};
	const fill = (from: number, rest: number) => {
		if (rest < least) {
			least = rest;
			best = taken.slice();
		}
		for (let k = withBars(within(from, rest)); k < sizes.length && least > ALIKE; k = withBars(k + 1)) {
			if (used[k] === bars[k]!.length) continue;
			if (++looks > MOST_LOOKS) return;
			used[k]!++;
			taken.push(k);
			fill(k, rest - sizes[k]!);
			taken.pop();
			used[k]!--;
		}
	};
	while (left > 0) {
		first = withBars(first);
		least = Infinity;
		looks = 0;
		used[first] = 1;
		taken.push(first);
		fill(first, room - sizes[first]!);
		taken.pop();
		used[first] = 0;
		for (const k of best) {
			of[bars[k]!.pop()!] = count;
			if (!bars[k]!.length) next[k] = k + 1;
		}
		left -= best.length;
		count++;
	}
	return { of, count };
}

/**
 * Cut bars from stock lengths: the better of two ways, never worse than first fit decreasing. Between two bars, and
 * after the last where something is left, the saw takes its width.
 *
 * ```ts
 * const { count } = cutLengths(Float64Array.of(2600, 2600, 780), 6000, 5); // 1
 * ```
 * @param lengths mm @param stock mm, above 0 @param saw width, mm
 */
export function cutLengths(lengths: Float64Array, stock: number, saw: number): CutLengths {
	// Exactly as long as the stock it needs no cut: the last one of a length costs none.
	const room = stock + saw;
	const order = Uint32Array.from(
		Array.from(lengths.keys())
			.filter((bar) => lengths[bar]! <= stock)
			.sort((a, b) => lengths[b]! - lengths[a]! || a - b)
	);
	const one = firstFit(lengths, order, room, saw);
	const least = order.reduce((sum, bar) => sum + lengths[bar]! + saw, 0) / room;
	if (one.count < least + 1) return one;
	const other = fullest(lengths, order, room, saw);
	return other.count < one.count ? other : one;
}
