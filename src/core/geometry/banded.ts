import type { Tuple } from './tuple';

/**
 * A square matrix whose entries lie within `width` of its diagonal, by rows of 2·width + 1 entries, and right sides of
 * some dimension. What is solved is written over both.
 */
export class BandedSystem {
	private readonly stride: number;
	private readonly band: Float64Array;

	/** @param count of unknowns @param width of the band to either side */
	constructor(
		readonly count: number,
		readonly width: number
	) {
		this.stride = 2 * width + 1;
		this.band = new Float64Array(count * this.stride);
	}

	set(row: number, column: number, value: number): void {
		this.band[row * this.stride + column - row + this.width] = value;
	}

	/**
	 * Solve by elimination without pivoting, which is stable for the matrices of splines: they are dominated by their
	 * diagonal, or totally positive (de Boor, A Practical Guide to Splines, XIII).
	 * @throws RangeError when the rows do not determine the unknowns
	 */
	solve(rightSides: readonly Tuple[]): number[][] {
		const { count, width, stride, band } = this;
		const right = rightSides.map((side) => [...side]);
		const size = right[0]?.length ?? 0;
		const at = (row: number, column: number) => row * stride + column - row + width;
		for (let k = 0; k < count; k++) {
			const pivot = band[at(k, k)]!;
			if (!(Math.abs(pivot) > 1e-14)) throw new RangeError('the points do not determine a curve');
			const last = Math.min(count - 1, k + width);
			for (let row = k + 1; row <= last; row++) {
				const factor = band[at(row, k)]! / pivot;
				if (factor === 0) continue;
				for (let column = k; column <= last; column++)
					band[at(row, column)]! -= factor * band[at(k, column)]!;
				for (let d = 0; d < size; d++) right[row]![d]! -= factor * right[k]![d]!;
			}
		}
		for (let k = count - 1; k >= 0; k--) {
			const last = Math.min(count - 1, k + width);
			const own = right[k]!;
			for (let column = k + 1; column <= last; column++) {
				const factor = band[at(k, column)]!;
				if (factor !== 0) for (let d = 0; d < size; d++) own[d]! -= factor * right[column]![d]!;
			}
			for (let d = 0; d < size; d++) own[d]! /= band[at(k, k)]!;
		}
		return right;
	}
}

/** Three entries of each row; the first and the last row reach round to the other end. */
export interface CyclicRow {
	readonly before: number;
	readonly own: number;
	readonly after: number;
}

/**
 * Solve a tridiagonal system that goes round (Sherman and Morrison: the two corners are a change of rank one).
 * Source: Press et al., Numerical Recipes, 2.7.2.
 * @throws RangeError when the rows do not determine the unknowns
 */
export function solveCyclic(rows: readonly CyclicRow[], rightSides: readonly Tuple[]): number[][] {
	const n = rows.length;
	const [corner, other] = [rows[0]!.before, rows[n - 1]!.after];
	const gamma = -rows[0]!.own;
	const system = () => {
		const made = new BandedSystem(n, 1);
		rows.forEach(({ before, own, after }, k) => {
			if (k > 0) made.set(k, k - 1, before);
			made.set(k, k, k === 0 ? own - gamma : k === n - 1 ? own - (corner * other) / gamma : own);
			if (k < n - 1) made.set(k, k + 1, after);
		});
		return made;
	};
	const plain = system().solve(rightSides);
	const turned = system().solve(rows.map((_, k) => [k === 0 ? gamma : k === n - 1 ? other : 0]));
	const ratio = corner / gamma;
	const below = 1 + turned[0]![0]! + ratio * turned[n - 1]![0]!;
	return plain.map((value, k) =>
		value.map((x, d) => x - ((plain[0]![d]! + ratio * plain[n - 1]![d]!) / below) * turned[k]![0]!)
	);
}
