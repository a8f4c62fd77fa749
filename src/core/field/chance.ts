/**
 * A number from 0 to below 1 that a place draws: always the same for its address and a seed, whatever else comes and
 * goes. Bits are spread as in the finaliser of MurmurHash3 (public domain), from memory.
 */
function spread(h: number): number {
	h = Math.imul(h ^ (h >>> 16), 0x85ebca6b);
	h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35);
	return h ^ (h >>> 16);
}

/** Of the letters of a text (FNV-1a). */
function hashOfText(text: string): number {
	let h = 0x811c9dc5;
	for (let k = 0; k < text.length; k++) h = Math.imul(h ^ text.charCodeAt(k), 0x01000193);
	return h;
}

/**
 * Draws of the places of one face.
 *
 * ```ts
 * const draw = chanceOf('gull.skin', 7);
 * const isChosen = draw(3, 12, 1) < 0.25;
 * ```
 */
export function chanceOf(face: string, seed: number): (course: number, bay: number, slot: number) => number {
	const base = spread(hashOfText(face) ^ Math.imul(Math.round(seed), 0x9e3779b1));
	return (course, bay, slot) => {
		const h = spread(spread(spread(base ^ course) ^ bay) ^ slot);
		return (h >>> 0) / 2 ** 32;
	};
}
