import type { CellOutline } from '$core/measure/cell-outline';

export interface Drawn {
	readonly x: number;
	readonly y: number;
}

/** So far apart are corners that are numbered, so long edges that their length is written at (px). */
const NUMBER_ROOM = 11;
const LENGTH_ROOM = 24;

/** A cell and its openings on a picture of 224 by 112, with room around for what is written. */
export function fitted({ corners, openings }: Pick<CellOutline, 'corners' | 'openings'>): {
	readonly corners: Drawn[];
	readonly openings: Drawn[][];
} {
	const xs = corners.map(([x]) => x);
	const ys = corners.map(([, y]) => y);
	const middle = (list: readonly number[]) => (Math.max(...list) + Math.min(...list)) / 2;
	const span = (list: readonly number[]) => Math.max(...list) - Math.min(...list) || 1;
	const scale = Math.min(130 / span(xs), 74 / span(ys));
	const [left, foot] = [middle(xs), middle(ys)];
	const drawn = ([x, y]: readonly [number, number]): Drawn => ({
		x: 112 + (x - left) * scale,
		y: 56 - (y - foot) * scale
	});
	return { corners: corners.map(drawn), openings: openings.map((ring) => ring.map(drawn)) };
}

export const hasRoom = (p: Drawn, q: Drawn): boolean => Math.hypot(q.x - p.x, q.y - p.y) > LENGTH_ROOM;

/** The corners that are far enough from each other to be numbered. */
export function numberedCorners(corners: readonly Drawn[]): Set<number> {
	const numbered = new Set<number>();
	for (const [k, one] of corners.entries())
		if (
			[...numbered].every(
				(other) => Math.hypot(one.x - corners[other]!.x, one.y - corners[other]!.y) > NUMBER_ROOM
			)
		)
			numbered.add(k);
	return numbered;
}
