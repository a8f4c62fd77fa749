import type { Box, Place } from '../polygon';

/** A curve that polygons are clipped by; what is kept lies to its left. */
export interface ClipCurve {
	readonly places: readonly Place[];
	/** Whether the last corner is joined to the first. */
	readonly closed: boolean;
}

/** Segments of a curve that come near a polygon: numbers of their first corners, ascending. */
export interface NearCurve extends ClipCurve {
	readonly index: number;
	readonly segments: readonly number[];
}

/** Segments on a line between two steps count for both of its sides. */
const TOUCHING = 1e-9;

/** The step of ascending lines that a value lies in; the first and the last one reach on without end. */
function stepAt(lines: ArrayLike<number>, value: number): number {
	let low = 0;
	let high = lines.length - 2;
	while (low < high) {
		const middle = (low + high + 1) >> 1;
		if (lines[middle]! <= value) low = middle;
		else high = middle - 1;
	}
	return low;
}

/**
 * The segments of curves sorted into the steps of a grid that they touch.
 *
 * ```ts
 * const near = new CurveBins([trimCurve], [0, 1, 2], [0, 1]);
 * ```
 */
export class CurveBins {
	readonly columns: number;
	readonly rows: number;
	private readonly bins: (number[] | undefined)[];
	private readonly slack: readonly [number, number];

	/** @param across, up lines between the steps, ascending, both ends included */
	constructor(
		private readonly curves: readonly ClipCurve[],
		private readonly across: ArrayLike<number>,
		private readonly up: ArrayLike<number>
	) {
		this.columns = across.length - 1;
		this.rows = up.length - 1;
		const slack = (lines: ArrayLike<number>) =>
			(TOUCHING * (lines[lines.length - 1]! - lines[0]!)) / (lines.length - 1);
		this.slack = [slack(across), slack(up)];
		this.bins = new Array(this.columns * this.rows);
		curves.forEach(({ places, closed }, c) => {
			const last = closed ? places.length : places.length - 1;
			for (let k = 0; k < last; k++) {
				const [ax, ay] = places[k]!;
				const [bx, by] = places[(k + 1) % places.length]!;
				const box: Box = {
					low: [Math.min(ax, bx), Math.min(ay, by)],
					high: [Math.max(ax, bx), Math.max(ay, by)]
				};
				this.visit(box, 1, (bin) => (this.bins[bin] ??= []).push(c, k));
			}
		});
	}

	/** Every step that a box covers; with `slack` 1 those that it only touches too, with -1 not those. */
	private visit({ low, high }: Box, slack: 1 | -1, act: (bin: number) => void): void {
		const { across, up, columns } = this;
		const [dx, dy] = [slack * this.slack[0], slack * this.slack[1]];
		if (high[0] + dx < across[0]! || low[0] - dx > across[columns]!) return;
		if (high[1] + dy < up[0]! || low[1] - dy > up[this.rows]!) return;
		const [left, right] = [stepAt(across, low[0] - dx), stepAt(across, high[0] + dx)];
		const [foot, head] = [stepAt(up, low[1] - dy), stepAt(up, high[1] + dy)];
		for (let j = foot; j <= head; j++) for (let i = left; i <= right; i++) act(j * columns + i);
	}

	/** Whether any segment touches a step. */
	isTouched(i: number, j: number): boolean {
		return this.isTouchedStep(j * this.columns + i);
	}
	/** The same by its number: those of a row follow one another. */
	isTouchedStep(step: number): boolean {
		return this.bins[step] !== undefined;
	}

	/** Whether no segment touches any of the steps from one to another, across and up. */
	areFree(left: number, right: number, foot: number, head: number): boolean {
		const { columns, bins } = this;
		for (let j = foot; j <= head; j++)
			for (let i = left; i <= right; i++) if (bins[j * columns + i] !== undefined) return false;
		return true;
	}

	/** The segments in the steps that a box covers, curve by curve. */
	near(box: Box): NearCurve[] {
		const bins: number[][] = [];
		this.visit(box, -1, (at) => {
			const bin = this.bins[at];
			if (bin) bins.push(bin);
		});
		if (bins.length === 0) return [];
		// A bin holds its segments in order, each once; those of several bins are put in order first.
		const pairs = bins.length === 1 ? bins[0]! : inOrder(bins);
		const found: NearCurve[] = [];
		let segments: number[] = [];
		for (let n = 0; n < pairs.length; n += 2) {
			if (n === 0 || pairs[n] !== pairs[n - 2]) {
				segments = [];
				const index = pairs[n]!;
				const { places, closed } = this.curves[index]!;
				found.push({ places, closed, index, segments });
			}
			segments.push(pairs[n + 1]!);
		}
		return found;
	}
}

/** Pairs of curve and segment from several bins, ascending, each once. */
function inOrder(bins: readonly number[][]): number[] {
	const pairs = bins.flatMap((bin) =>
		Array.from({ length: bin.length / 2 }, (_, n): [number, number] => [bin[2 * n]!, bin[2 * n + 1]!])
	);
	pairs.sort((a, b) => a[0] - b[0] || a[1] - b[1]);
	return pairs.flatMap((pair, k) => {
		const before = pairs[k - 1];
		return before && before[0] === pair[0] && before[1] === pair[1] ? [] : pair;
	});
}

/**
 * Which steps that no curve touches are left; neighbours without a curve between them share one answer.
 *
 * ```ts
 * const kept = new KeptSteps(bins, (i, j) => i + j > 0);
 * ```
 */
export class KeptSteps {
	private readonly known: Int8Array;

	/** @param isLeft asked for the middle of one step of each connected patch */
	constructor(
		private readonly bins: CurveBins,
		private readonly isLeft: (i: number, j: number) => boolean
	) {
		this.known = new Int8Array(bins.columns * bins.rows);
	}

	/** For a step that is not touched. */
	isKept(i: number, j: number): boolean {
		const { columns, rows } = this.bins;
		const start = j * columns + i;
		if (this.known[start] === 0) {
			const answer = this.isLeft(i, j) ? 1 : -1;
			this.known[start] = answer;
			const waiting = [start];
			for (let at = waiting.pop(); at !== undefined; at = waiting.pop()) {
				const x = at % columns;
				if (x > 0) this.reach(at - 1, answer, waiting);
				if (x < columns - 1) this.reach(at + 1, answer, waiting);
				if (at >= columns) this.reach(at - columns, answer, waiting);
				if (at < columns * (rows - 1)) this.reach(at + columns, answer, waiting);
			}
		}
		return this.known[start] === 1;
	}

	/** The answer of a step's neighbour holds for it too, unless a curve touches it. */
	private reach(step: number, answer: number, waiting: number[]): void {
		if (this.known[step] !== 0 || this.bins.isTouchedStep(step)) return;
		this.known[step] = answer;
		waiting.push(step);
	}
}
