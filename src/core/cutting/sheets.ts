import { Rooms } from './rooms';

/** Rectangles cut from stock sheets. Lists have one value for each of them; mm from a sheet's corner. */
export interface CutSheets {
	/** The sheet that each is cut from, counted from 0; -1 where it is larger than one. */
	readonly of: Int32Array;
	readonly x: Float64Array;
	readonly y: Float64Array;
	/** 1 where its long side lies across the sheet. */
	readonly turned: Uint8Array;
	readonly count: number;
}

/** Rectangles beside one another, from one side of the sheet to the other. */
interface Shelf {
	readonly height: number;
	/** How far it is filled. */
	filled: number;
	sheet: number;
	y: number;
}

/** @param isTurned which way each is laid */
function onShelves(
	width: Float64Array,
	height: Float64Array,
	[wide, high]: readonly [number, number],
	gap: number,
	isTurned: (k: number) => boolean
): CutSheets {
	const n = width.length;
	const of = new Int32Array(n).fill(-1);
	const [x, y] = [new Float64Array(n), new Float64Array(n)];
	const turned = Uint8Array.from(width, (_, k) => Number(isTurned(k)));
	const across = (k: number) => (turned[k] ? height[k]! : width[k]!);
	const up = (k: number) => (turned[k] ? width[k]! : height[k]!);
	const order = Array.from(width.keys())
		.filter((k) => across(k) <= wide && up(k) <= high)
		.sort((a, b) => up(b) - up(a) || across(b) - across(a) || a - b);
	const shelves: Shelf[] = [];
	const shelfOf = new Int32Array(n).fill(-1);
	// The last on a shelf, or on a sheet, needs no gap after it.
	const along = new Rooms(order.length, wide + gap);
	for (const k of order) {
		const s = along.take(across(k) + gap);
		if (s === shelves.length) shelves.push({ height: up(k), filled: 0, sheet: -1, y: 0 });
		const shelf = shelves[s]!;
		x[k] = shelf.filled;
		shelf.filled += across(k) + gap;
		shelfOf[k] = s;
	}
	const upwards = new Rooms(shelves.length, high + gap);
	const filled: number[] = [];
	for (const shelf of shelves) {
		shelf.sheet = upwards.take(shelf.height + gap);
		shelf.y = filled[shelf.sheet] ??= 0;
		filled[shelf.sheet]! += shelf.height + gap;
	}
	for (const k of order) {
		of[k] = shelves[shelfOf[k]!]!.sheet;
		y[k] = shelves[shelfOf[k]!]!.y;
	}
	return { of, x, y, turned, count: filled.length };
}

/**
 * Cut rectangles from stock sheets, on shelves, so that every cut goes from side to side (hybrid first fit: Chung, Garey
 * and Johnson 1982; from memory): the better of all lying along the sheet and all across it; what fits one way alone lies that way.
 *
 * ```ts
 * const { count } = cutSheets(Float64Array.of(1500, 1500), Float64Array.of(900, 900), [3000, 1500], 10);
 * ```
 * @param long sides, mm @param short sides, mm @param sheet its long and its short side (mm)
 * @param gap between two rectangles (mm)
 */
export function cutSheets(
	long: Float64Array,
	short: Float64Array,
	sheet: readonly [number, number],
	gap: number
): CutSheets {
	const fits = (across: number, up: number) => across <= sheet[0] && up <= sheet[1];
	const along = onShelves(long, short, sheet, gap, (k) => !fits(long[k]!, short[k]!));
	const across = onShelves(long, short, sheet, gap, (k) => fits(short[k]!, long[k]!));
	return across.count < along.count ? across : along;
}
