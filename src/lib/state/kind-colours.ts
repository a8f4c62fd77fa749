import { interpolateRainbow } from 'd3-scale-chromatic';

/** So many kinds are told apart by their colours, those with most pieces; more would look alike. */
const COLOURED_KINDS = 36;
const PAPER = [247, 244, 236] as const;
/** How much of the paper shines through: colours that lie beside each other on the circle differ in depth. */
const PAPER_SHARES = [0.1, 0.36, 0.6] as const;

function softened(rgb: string, share: number): string {
	const parts = rgb.match(/\d+/g)!.map(Number);
	return `rgb(${parts.map((part, k) => Math.round(part + (PAPER[k]! - part) * share)).join(', ')})`;
}

/** Every hue once, those far from each other first; then again, paler and a little on. */
function colourOf(k: number): string {
	const hues = COLOURED_KINDS / PAPER_SHARES.length;
	const depth = Math.floor(k / hues);
	const hue = ((k * FAR_ON) % hues) + depth / PAPER_SHARES.length;
	return softened(interpolateRainbow(hue / hues), PAPER_SHARES[depth]!);
}
/** Has no factor in common with the number of hues, so that all of them come. */
const FAR_ON = 7;

/** What kinds share of which there are too many to be told apart. */
const MANY = '#8E9A92';
/** What kinds of one piece alone are painted in. */
export const ALONE = '#C9C2B2';
/** Of cells that nothing is put on. */
const BARE = '#F4F0E6';
export const kindPalette: readonly string[] = [
	...Array.from({ length: COLOURED_KINDS }, (_, k) => colourOf(k)),
	MANY,
	ALONE,
	BARE
];

/** The place of a kind in the palette. @param rank among those of pieces, the largest first; -1 of bare cells */
export function kindPlace(rank: number, size: number): number {
	if (rank < 0) return COLOURED_KINDS + 2;
	if (size === 1) return COLOURED_KINDS + 1;
	return Math.min(rank, COLOURED_KINDS);
}
