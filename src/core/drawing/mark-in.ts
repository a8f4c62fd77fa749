import { widthOfText, type Ink } from './drawing';

/** Of a mark: the largest and the least height of its letters (mm of paper), and what of its place it may take. */
const [LARGEST, LEAST] = [2.2, 0.9];
const [ACROSS, UP] = [0.85, 0.6];

/** How long the stretch of a line through a ring is that holds a place of it. @param k 0 across, 1 up */
function chord(
	ring: readonly (readonly [number, number])[],
	at: readonly [number, number],
	k: 0 | 1
): number {
	const other = k === 0 ? 1 : 0;
	let [low, high] = [-Infinity, Infinity];
	ring.forEach((p, n) => {
		const q = ring[(n + 1) % ring.length]!;
		if (p[other] > at[other] === q[other] > at[other]) return;
		const cut = p[k] + ((at[other] - p[other]) / (q[other] - p[other])) * (q[k] - p[k]);
		if (cut <= at[k]) low = Math.max(low, cut);
		else high = Math.min(high, cut);
	});
	const size = high - low;
	return Number.isFinite(size) ? size : 0;
}

/**
 * Write a mark in the middle of a ring, as large as it has room there.
 * @param ring mm of the model @param scale mm of paper to a mm of the model
 * @returns whether there is room for it
 */
export function markIn(
	ink: Ink,
	ring: readonly (readonly [number, number])[],
	mark: string,
	scale: number
): boolean {
	const sum = ring.reduce(([x, y], p) => [x + p[0], y + p[1]], [0, 0]);
	const middle = [sum[0] / ring.length, sum[1] / ring.length] as const;
	const size = Math.min(
		LARGEST,
		(ACROSS * chord(ring, middle, 0) * scale) / widthOfText(mark, 1),
		UP * chord(ring, middle, 1) * scale
	);
	if (size < LEAST) return false;
	ink.text('marks', middle[0], middle[1] - (0.35 * size) / scale, size, mark, { from: 'middle' });
	return true;
}
