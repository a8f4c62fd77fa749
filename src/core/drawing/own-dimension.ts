import type { Place } from '../geometry/polygon';
import type { OwnDimension } from '../project/own-sheet-schema';
import type { Ink } from './drawing';

/** Of ticks, of what lines reach past each other, and of the text (mm of paper). */
const [TICK, PAST, TEXT] = [1.2, 1.5, 2.2];

/** Where the line of a dimension lies: its two ends and the way to its left. */
export interface DimensionLine {
	readonly from: Place;
	readonly to: Place;
	readonly left: Place;
}

/**
 * The line of a dimension between two places of the paper.
 *
 * ```ts
 * dimensionLine([0, 0], [30, 40], 'across', -5); // from 0 -5 to 30 -5
 * ```
 * @param off how far to the left of the way it is measured (mm)
 */
export function dimensionLine(a: Place, b: Place, way: OwnDimension['way'], off: number): DimensionLine {
	const size = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
	const along = { along: [(b[0] - a[0]) / size, (b[1] - a[1]) / size], across: [1, 0], up: [0, 1] }[way] as [
		number,
		number
	];
	const left: Place = [-along[1], along[0]];
	const from: Place = [a[0] + off * left[0], a[1] + off * left[1]];
	const far = (b[0] - from[0]) * along[0] + (b[1] - from[1]) * along[1];
	return { from, to: [from[0] + far * along[0], from[1] + far * along[1]], left };
}

/**
 * A dimension: its line, what leads to it, ticks and how long it is.
 * @param a its first place on the paper @param b its second @param mm what it measures
 */
export function drawDimension(
	ink: Ink,
	a: Place,
	b: Place,
	{ way, off }: Pick<OwnDimension, 'way' | 'off'>,
	mm: number
): void {
	const { from, to, left } = dimensionLine(a, b, way, off);
	ink.line('dimensions', ...from, ...to);
	for (const [at, end] of [
		[a, from],
		[b, to]
	] as const) {
		const far = Math.hypot(end[0] - at[0], end[1] - at[1]);
		if (far > 1e-6) {
			const [ux, uy] = [(end[0] - at[0]) / far, (end[1] - at[1]) / far];
			ink.line('dimensions', at[0] + ux, at[1] + uy, end[0] + PAST * ux, end[1] + PAST * uy);
		}
		ink.line('dimensions', end[0] - TICK / 2, end[1] - TICK / 2, end[0] + TICK / 2, end[1] + TICK / 2);
	}
	let turn = Math.atan2(to[1] - from[1], to[0] - from[0]);
	let above = 0.8;
	if (turn > Math.PI / 2 + 1e-6 || turn <= -Math.PI / 2 + 1e-6) {
		turn += turn > 0 ? -Math.PI : Math.PI;
		above = -0.8;
	}
	// Left of the line's own way, which is not the way it is measured where its ends are the other way round.
	const back = (to[0] - from[0]) * left[1] - (to[1] - from[1]) * left[0] < 0 ? -1 : 1;
	const up = above * back;
	ink.text(
		'dimensions',
		(from[0] + to[0]) / 2 + up * left[0],
		(from[1] + to[1]) / 2 + up * left[1],
		TEXT,
		mm.toFixed(0),
		{ from: 'middle', turn }
	);
}
