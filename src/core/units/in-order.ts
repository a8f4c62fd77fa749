/** Values further apart than this many times the rows are compared rather than counted. */
const SPREAD = 16;

/**
 * Places of rows in ascending order of columns of whole numbers, the first counting most; rows that are alike stay as
 * they came. Column by column from the last, each by counting its values (a radix sort).
 *
 * ```ts
 * inOrder([Uint32Array.of(2, 1, 2)], 3); // 1, 0, 2
 * ```
 */
export function inOrder(columns: readonly Uint32Array[], count: number): Uint32Array {
	let order = new Uint32Array(count);
	for (let k = 0; k < count; k++) order[k] = k;
	if (areInOrder(columns, count)) return order;
	for (const column of [...columns].reverse()) {
		const [most, isOrdered] = lookThrough(column, order);
		if (isOrdered) continue;
		if (most > SPREAD * count + 1000) {
			order = order.slice().sort((a, b) => column[a]! - column[b]!);
			continue;
		}
		const next = new Uint32Array(most + 2);
		for (let k = 0; k < count; k++) next[column[k]! + 1]!++;
		for (let value = 1; value <= most; value++) next[value]! += next[value - 1]!;
		const sorted = new Uint32Array(count);
		for (let k = 0; k < count; k++) {
			const row = order[k]!;
			sorted[next[column[row]!]!++] = row;
		}
		order = sorted;
	}
	return order;
}

/** Whether every row comes after the one before it as it stands: most lists are of one zone, made in its order. */
function areInOrder(columns: readonly Uint32Array[], count: number): boolean {
	for (let k = 1; k < count; k++)
		for (const column of columns) {
			const step = column[k]! - column[k - 1]!;
			if (step < 0) return false;
			if (step > 0) break;
		}
	return true;
}

/** The largest value, and whether the rows are in its order already. */
function lookThrough(column: Uint32Array, order: Uint32Array): [number, boolean] {
	let most = 0;
	let isOrdered = true;
	for (let k = 0; k < order.length; k++) {
		const value = column[order[k]!]!;
		if (value > most) most = value;
		if (k > 0 && value < column[order[k - 1]!]!) isOrdered = false;
	}
	return [most, isOrdered];
}
