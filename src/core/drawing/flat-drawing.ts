import { boxOf, type Place } from '../geometry/polygon';
import { inDegrees } from '../units/scale';
import { Ink, widthOfText } from './drawing';
import { diameterOf, sizesOf, type FlatView } from './flat-views';
import { scaleAtWhich, type Room } from './sheet';

/** Of what is written at a pattern, and of the lines under it (mm of paper). */
const [TEXT, CAPTION, CAPTION_LINE] = [2.4, 2.2, 3.5];
/** Edges are this far from their lengths (mm of paper). */
const OFF = 3.2;
/** Around a pattern (mm of paper): room for its lengths. */
const MARGIN = 2 * OFF + 1;
/** Outlines of more corners have no lengths and angles: what is curved is as large as its caption says. */
const CORNERS = 12;
/** Where there are more openings, they have no lengths. */
const OPENINGS = 3;
/** An edge of less (mm of paper) has no angles at its ends: they would lie on each other. */
const SHORT = 14;
/** Of dashes of folds, and of what is left out between (mm of paper). */
const DASH: readonly [number, number] = [3, 1.2];

/** A text reads from the left, or from below. */
function readable(turn: number): number {
	if (turn > Math.PI / 2 + 1e-6) return turn - Math.PI;
	return turn <= -Math.PI / 2 + 1e-6 ? turn + Math.PI : turn;
}

/** A text along an edge, outside of a ring that runs anticlockwise: to the right of its edges. */
function along(ink: Ink, layer: 'dimensions' | 'folds', a: Place, b: Place, off: number, text: string): void {
	const size = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
	const turn = readable(Math.atan2(b[1] - a[1], b[0] - a[0]));
	const down = 0.35 * TEXT;
	ink.text(
		layer,
		(a[0] + b[0]) / 2 + ((b[1] - a[1]) / size) * off + Math.sin(turn) * down,
		(a[1] + b[1]) / 2 - ((b[0] - a[0]) / size) * off - Math.cos(turn) * down,
		TEXT,
		text,
		{ from: 'middle', turn }
	);
}

/** Lengths of the edges of a ring on paper, where they have room. */
function inkLengths(ink: Ink, ring: readonly Place[], lengths: readonly number[]): void {
	if (ring.length > CORNERS) return;
	ring.forEach((a, k) => {
		const b = ring[(k + 1) % ring.length]!;
		const text = lengths[k]!.toFixed(1);
		if (Math.hypot(b[0] - a[0], b[1] - a[1]) > 0.8 * widthOfText(text, TEXT))
			along(ink, 'dimensions', a, b, OFF, text);
	});
}

/**
 * Which way from a corner there is most room within: half way between two of its edges and of the folds that end there.
 * @returns rad
 */
function wayInto(
	corner: Place,
	next: Place,
	angle: number,
	folds: readonly (readonly [Place, Place])[]
): number {
	const first = Math.atan2(next[1] - corner[1], next[0] - corner[0]);
	const ways = folds.flatMap(([a, b]) =>
		[
			[a, b],
			[b, a]
		].flatMap(([at, to]) => {
			if (Math.hypot(at![0] - corner[0], at![1] - corner[1]) > 0.05) return [];
			const turn = Math.atan2(to![1] - corner[1], to![0] - corner[0]) - first;
			return [(turn + 4 * Math.PI) % (2 * Math.PI)];
		})
	);
	const sorted = [0, ...ways.sort((a, b) => a - b), angle];
	let [widest, way] = [-1, 0];
	for (let k = 1; k < sorted.length; k++) {
		const gap = sorted[k]! - sorted[k - 1]!;
		if (gap > widest) [widest, way] = [gap, (sorted[k]! + sorted[k - 1]!) / 2];
	}
	return first + way;
}

/** Angles at the corners of a ring on paper, within it. */
function inkAngles(
	ink: Ink,
	ring: readonly Place[],
	angles: readonly number[],
	folds: readonly (readonly [Place, Place])[]
): void {
	const n = ring.length;
	if (n > CORNERS) return;
	ring.forEach((corner, k) => {
		const [x, y] = corner;
		const next = ring[(k + 1) % n]!;
		const edges = [next, ring[(k + n - 1) % n]!].map(([px, py]) => Math.hypot(px - x, py - y));
		if (Math.min(...edges) < SHORT) return;
		const way = wayInto(corner, next, angles[k]!, folds);
		const inward = Math.min(INTO, 0.4 * Math.min(...edges));
		ink.text(
			'dimensions',
			x + inward * Math.cos(way),
			y + inward * Math.sin(way) - 0.35 * TEXT,
			TEXT,
			`${inDegrees(angles[k]!).toFixed(1)}°`,
			{ from: 'middle' }
		);
	});
}
/** Angles stand so far within their corners (mm of paper). */
const INTO = 9;

/** One of them, with its lower left corner at a place of the paper, and what is said of it under it. */
function inkFlat(ink: Ink, view: FlatView, scale: number, left: number, foot: number): void {
	const { low } = boxOf(view.outline);
	const on = ([x, y]: Place): Place => [left + (x - low[0]) * scale, foot + (y - low[1]) * scale];
	const outline = view.outline.map(on);
	ink.ring('outline', outline);
	inkLengths(ink, outline, view.lengths);
	const folds = view.folds.map(({ from, to }) => [on(from), on(to)] as const);
	if (!view.isSquare) inkAngles(ink, outline, view.angles, folds);
	const isSized = view.openings.length <= OPENINGS;
	for (const opening of view.openings) {
		const ring = opening.map(on);
		ink.ring('openings', ring);
		if (isSized && diameterOf(opening) === null) inkLengths(ink, ring, sizesOf(opening).lengths);
	}
	for (const [k, { angle }] of view.folds.entries()) {
		const [a, b] = folds[k]!;
		ink.dashed('folds', a, b, DASH);
		const text = `${inDegrees(Math.abs(angle)).toFixed(1)}° ${angle > 0 ? 'up' : 'down'}`;
		if (Math.hypot(b[0] - a[0], b[1] - a[1]) > widthOfText(text, TEXT))
			along(ink, 'folds', a, b, -0.9 * TEXT, text);
	}
	view.says.forEach((text, k) =>
		ink.text('text', left, foot - MARGIN - CAPTION - k * CAPTION_LINE, CAPTION, text, { bold: k === 0 })
	);
}

/** Where each of some patterns stands at a scale: beside one another in rows, from the upper left. Null for no room. */
function rowsOf(
	views: readonly FlatView[],
	scale: number,
	room: Room
): { left: number; foot: number }[] | null {
	const places: { left: number; foot: number }[] = [];
	let [x, top, row] = [0, 0, 0];
	for (const { outline, says } of views) {
		const { low, high } = boxOf(outline);
		const pattern = (high[0] - low[0]) * scale + 2 * MARGIN;
		const wide = Math.max(pattern, ...says.map((text) => widthOfText(text, CAPTION) + MARGIN + 2));
		const tall = (high[1] - low[1]) * scale;
		const height = tall + 2 * MARGIN + says.length * CAPTION_LINE + 2;
		if (x > 0 && x + wide > room.width) [x, top, row] = [0, top + row, 0];
		if (wide > room.width || top + height > room.height) return null;
		places.push({ left: room.left + x + MARGIN, foot: room.foot + room.height - top - MARGIN - tall });
		x += wide;
		row = Math.max(row, height);
	}
	return places;
}

/**
 * Flat patterns side by side at the largest scale at which all of them have room.
 * @returns what the scale is one to, and what draws them
 */
export function flatDrawing(
	views: readonly FlatView[],
	room: Room
): { readonly denominator: number; readonly draw: (ink: Ink) => void } {
	const denominator = scaleAtWhich((one) => rowsOf(views, 1 / one, room) !== null);
	const places = rowsOf(views, 1 / denominator, room) ?? [];
	const draw = (ink: Ink) => {
		places.forEach(({ left, foot }, k) => inkFlat(ink, views[k]!, 1 / denominator, left, foot));
	};
	return { denominator, draw };
}
