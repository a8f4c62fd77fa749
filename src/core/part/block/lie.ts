/** How a block lies in the space it fills. */
export interface Lie {
	/** Quarter turns about the outward axis, 0 to 3: its first corner comes to the space's second. */
	readonly turns: number;
	/** Turned over about the axis across: its outside comes inside, its head to the foot. */
	readonly flip: boolean;
	/** Left and right exchanged. */
	readonly mirror: boolean;
}

type Place = readonly [number, number, number];

/**
 * Where a place of the unit box comes to be: mirrored first, then turned over, then by quarter turns.
 *
 * ```ts
 * laidPlace([0, 0, 1], { turns: 1, flip: false, mirror: false }); // a quarter turn on
 * ```
 */
export function laidPlace([x, y, z]: Place, { turns, flip, mirror }: Lie): Place {
	let across = mirror ? 1 - x : x;
	let up = flip ? 1 - y : y;
	for (let n = 0; n < turns; n++) [across, up] = [1 - up, across];
	return [across, up, flip ? 1 - z : z];
}

/** Corners of the unit box, the inside first, both rounds counter-clockwise from the low left. */
const CORNERS: readonly Place[] = [0, 1].flatMap((z) => [
	[0, 0, z],
	[1, 0, z],
	[1, 1, z],
	[0, 1, z]
]) as Place[];

/** Which corner of its space each corner of a block comes to lie in. */
export function cornersLaid(lie: Lie): Uint8Array {
	return Uint8Array.from(CORNERS, (corner) => {
		const [x, y, z] = laidPlace(corner, lie);
		return CORNERS.findIndex(([a, b, c]) => a === x && b === y && c === z);
	});
}

/** Every way to lie, by the number that `wayOf` gives it. */
export const WAYS: readonly Lie[] = Array.from({ length: 16 }, (_, way) => ({
	turns: way % 4,
	flip: (way & 4) !== 0,
	mirror: (way & 8) !== 0
}));

/** @param turns quarter turns, any number; what is none gives none */
export const wayOf = (turns: number, flip: boolean, mirror: boolean): number =>
	(((Math.round(turns) % 4) + 4) % 4) + (flip ? 4 : 0) + (mirror ? 8 : 0);
