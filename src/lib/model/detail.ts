import type { Manner } from './renderer';

/**
 * So many triangles of pieces are drawn at a time: what is farther is drawn plainly. Both are guesses, for machines where
 * the processor draws and for those with a graphics card.
 */
export const MOST_TRIANGLES: Readonly<Record<Manner, number>> = { plain: 2e6, light: 2e6, full: 10e6 };

/** Pieces that are drawn in detail or plainly together. */
export interface Chunk {
	readonly triangles: number;
	readonly inView: boolean;
	/** From the eye to what is nearest of it. */
	readonly away: number;
}

/**
 * Which chunks are drawn in detail: what is in view before what is not, the nearest first, for as long as there is room.
 * The nearest always is.
 */
export function inDetail(chunks: readonly Chunk[], most: number): boolean[] {
	const order = chunks.map((_, k) => k);
	order.sort(
		(a, b) => Number(chunks[b]!.inView) - Number(chunks[a]!.inView) || chunks[a]!.away - chunks[b]!.away
	);
	const detailed = chunks.map(() => false);
	let left = most;
	for (const [n, k] of order.entries()) {
		left -= chunks[k]!.triangles;
		if (left < 0 && n > 0) break;
		detailed[k] = true;
	}
	return detailed;
}
