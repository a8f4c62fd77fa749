import { Ink, type View } from './drawing';

/** A long view of which a stretch in the middle is left out. */
export interface Shortened extends View {
	/** Where something is left out: what stands to the left of the first and to the right of the second is drawn. */
	readonly breaks: readonly [number, number] | null;
}

/**
 * A view no wider than so much: of one that is wider the middle is left out, and its ends come nearer to each other.
 * Texts and fills are left out where there are any.
 * @param width mm of the model @param gap between what is left of both ends (mm of the model)
 */
export function shortened({ inked, bounds }: View, width: number, gap: number): Shortened {
	const [left, foot, right, head] = bounds;
	if (right - left <= width) return { inked, bounds, breaks: null };
	const keep = (width - gap) / 2;
	const nearer = right - left - width;
	const ink = new Ink();
	for (const { layer, lines } of inked)
		for (let k = 0; k < lines.length; k += 4) {
			const [ax, ay, bx, by] = [lines[k]!, lines[k + 1]!, lines[k + 2]!, lines[k + 3]!];
			for (const [from, to, off] of [
				[left, left + keep, 0],
				[right - keep, right, nearer]
			] as const) {
				// The part of the line between two uprights.
				const at = (x: number) => (x - ax) / (bx - ax);
				const [s, e] = ax === bx ? [0, 1] : ax < bx ? [at(from), at(to)] : [at(to), at(from)];
				const [first, last] = [Math.max(0, s), Math.min(1, e)];
				if (first >= last || (ax === bx && (ax < from || ax > to))) continue;
				ink.line(
					layer,
					ax + first * (bx - ax) - off,
					ay + first * (by - ay),
					ax + last * (bx - ax) - off,
					ay + last * (by - ay)
				);
			}
		}
	return {
		inked: ink.done(),
		bounds: [left, foot, left + width, head],
		breaks: [left + keep, left + keep + gap]
	};
}
