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
	room: number;
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
	// Shelves that are full are passed over.
	let open = 0;
	for (const k of order) {
		let s = open;
		while (s < shelves.length && shelves[s]!.room < across(k)) s++;
		if (s === shelves.length) shelves.push({ height: up(k), room: wide, sheet: -1, y: 0 });
		const shelf = shelves[s]!;
		x[k] = wide - shelf.room;
		shelf.room -= across(k) + gap;
		shelfOf[k] = s;
		while (open < shelves.length && shelves[open]!.room < gap) open++;
	}
	const rooms: number[] = [];
	for (const shelf of shelves) {
		let sheet = rooms.findIndex((room) => room >= shelf.height);
		if (sheet < 0) sheet = rooms.push(high) - 1;
		shelf.sheet = sheet;
		shelf.y = high - rooms[sheet]!;
		rooms[sheet]! -= shelf.height + gap;
	}
	for (const k of order) {
		of[k] = shelves[shelfOf[k]!]!.sheet;
		y[k] = shelves[shelfOf[k]!]!.y;
	}
	return { of, x, y, turned, count: rooms.length };
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
