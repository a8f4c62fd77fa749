/** Points of any dimension, weighted points included, for the friendly code around the hot loops. */
export type Tuple = readonly number[];

export const addTuple = (a: Tuple, b: Tuple): number[] => a.map((value, k) => value + b[k]!);
export const subtractTuple = (a: Tuple, b: Tuple): number[] => a.map((value, k) => value - b[k]!);
export const scaleTuple = (a: Tuple, s: number): number[] => a.map((value) => value * s);
export const mixTuple = (a: Tuple, b: Tuple, t: number): number[] =>
	a.map((value, k) => value + (b[k]! - value) * t);

/**
 * Solve rows · x = right by Gaussian elimination with pivoting, for a few hundred unknown points at most.
 * @throws RangeError when the rows do not determine the unknowns
 */
export function solveDense(matrix: readonly Tuple[], rightSides: readonly Tuple[]): number[][] {
	const n = matrix.length;
	const rows = matrix.map((row) => [...row]);
	const right = rightSides.map((side) => [...side]);
	for (let k = 0; k < n; k++) {
		let pivot = k;
		for (let r = k + 1; r < n; r++) if (Math.abs(rows[r]![k]!) > Math.abs(rows[pivot]![k]!)) pivot = r;
		if (!(Math.abs(rows[pivot]![k]!) > 1e-14)) throw new RangeError('the points do not determine a curve');
		[rows[k], rows[pivot]] = [rows[pivot]!, rows[k]!];
		[right[k], right[pivot]] = [right[pivot]!, right[k]!];
		for (let r = k + 1; r < n; r++) {
			const factor = rows[r]![k]! / rows[k]![k]!;
			if (factor === 0) continue;
			for (let c = k; c < n; c++) rows[r]![c]! -= factor * rows[k]![c]!;
			right[r] = subtractTuple(right[r]!, scaleTuple(right[k]!, factor));
		}
	}
	const result = new Array<number[]>(n);
	for (let k = n - 1; k >= 0; k--) {
		let sum = right[k]!;
		for (let c = k + 1; c < n; c++)
			if (rows[k]![c] !== 0) sum = subtractTuple(sum, scaleTuple(result[c]!, rows[k]![c]!));
		result[k] = scaleTuple(sum, 1 / rows[k]![k]!);
	}
	return result;
}
