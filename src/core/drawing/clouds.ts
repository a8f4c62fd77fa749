import type { Box } from '../geometry/polygon';
import type { Vector } from '../geometry/vector';
import type { Ink } from './drawing';

/** What differs from what was released, to be clouded. */
export interface Revised {
	/** As in: release 2. */
	readonly since: string;
	/** Addresses of pieces that came, or are others than they were. */
	readonly changed: ReadonlySet<string>;
	/** Where pieces stood that are gone (mm). */
	readonly gone: readonly Vector[];
}

/** How long a bow of a cloud is, how far it swells, and how far clouds keep from what they are about (mm of paper). */
const [BOW, SWELL, AWAY] = [4, 1.1, 0.8];
/** Lines of a bow. */
const STEPS = 5;

/** Where clouds lie: squares of paper, each as wide as a bow. */
class Squares {
	private readonly taken = new Set<string>();
	/** The first and the last of them across and up. */
	private reach: readonly [number, number, number, number] = [Infinity, Infinity, -Infinity, -Infinity];

	private readonly key = (i: number, j: number) => `${i} ${j}`;

	has(i: number, j: number): boolean {
		return this.taken.has(this.key(i, j));
	}

	take({ low: [left, foot], high: [right, head] }: Box): void {
		const [i0, j0, i1, j1] = [left - AWAY, foot - AWAY, right + AWAY, head + AWAY].map((at) =>
			Math.floor(at / BOW)
		) as [number, number, number, number];
		for (let i = i0; i <= i1; i++) for (let j = j0; j <= j1; j++) this.taken.add(this.key(i, j));
		const [a, b, c, d] = this.reach;
		this.reach = [Math.min(a, i0), Math.min(b, j0), Math.max(c, i1), Math.max(d, j1)];
	}

	/** Take what lies within clouds too: one that is round something has no hole. */
	fill(): void {
		const [i0, j0, i1, j1] = this.reach;
		const outside = new Set<string>();
		const open: [number, number][] = [[i0 - 1, j0 - 1]];
		for (let at = open.pop(); at; at = open.pop()) {
			const [i, j] = at;
			if (i < i0 - 1 || j < j0 - 1 || i > i1 + 1 || j > j1 + 1) continue;
			if (this.has(i, j) || outside.has(this.key(i, j))) continue;
			outside.add(this.key(i, j));
			open.push([i + 1, j], [i - 1, j], [i, j + 1], [i, j - 1]);
		}
		for (let i = i0; i <= i1; i++)
			for (let j = j0; j <= j1; j++) if (!outside.has(this.key(i, j))) this.taken.add(this.key(i, j));
	}

	/** Their rims, each as long as a bow, with what is taken on its left. */
	*rims(): Generator<readonly [x1: number, y1: number, x2: number, y2: number]> {
		for (const key of this.taken) {
			const [i, j] = key.split(' ').map(Number) as [number, number];
			if (!this.has(i, j - 1)) yield [i, j, i + 1, j];
			if (!this.has(i + 1, j)) yield [i + 1, j, i + 1, j + 1];
			if (!this.has(i, j + 1)) yield [i + 1, j + 1, i, j + 1];
			if (!this.has(i - 1, j)) yield [i, j + 1, i, j];
		}
	}
}

/**
 * Clouds round places of a sheet: what lies close together is in one of them.
 *
 * ```ts
 * drawClouds(new Ink(), [{ low: [100, 80], high: [112, 86] }]);
 * ```
 * @param boxes mm of paper
 */
export function drawClouds(ink: Ink, boxes: readonly Box[]): void {
	if (!boxes.length) return;
	const squares = new Squares();
	for (const box of boxes) squares.take(box);
	squares.fill();
	for (const [x1, y1, x2, y2] of squares.rims()) {
		const at = (k: number): [number, number] => {
			const t = k / STEPS;
			const out = (4 * t * (1 - t) * SWELL) / BOW;
			return [BOW * (x1 + (x2 - x1) * t + (y2 - y1) * out), BOW * (y1 + (y2 - y1) * t - (x2 - x1) * out)];
		};
		for (let k = 0; k < STEPS; k++) ink.line('clouds', ...at(k), ...at(k + 1));
	}
}
