/** Reads the values of rows `from` to `to` into the beginning of a block. */
export type ColumnReader = (out: Float64Array, from: number, to: number) => void;

/**
 * Each row's value reckoned from its site.
 *
 * ```ts
 * const sizes = reckon(everySite(2), (site) => 10 * site);
 * ```
 */
export function reckon(sites: Uint32Array, value: (site: number) => number): ColumnReader {
	return (out, from, to) => {
		for (let r = from; r < to; r++) out[r - from] = value(sites[r]!);
	};
}

/**
 * Each row's value taken from its site's place in an array of so many values each.
 *
 * ```ts
 * gather(Uint32Array.of(4, 7), heights)(out, 0, 2); // those of sites 4 and 7
 * ```
 */
export function gather(sites: Uint32Array, values: ArrayLike<number>, each = 1, offset = 0): ColumnReader {
	// Most are doubles: a loop of their own, in which the engine meets arrays of one kind alone.
	if (values instanceof Float64Array)
		return (out, from, to) => {
			for (let r = from; r < to; r++) out[r - from] = values[each * sites[r]! + offset]!;
		};
	return (out, from, to) => {
		for (let r = from; r < to; r++) out[r - from] = values[each * sites[r]! + offset]!;
	};
}

/**
 * ```ts
 * constantColumn(0.5)(out, 0, 100); // a hundred times 0.5
 * ```
 */
export const constantColumn =
	(value: number): ColumnReader =>
	(out, from, to) =>
		out.fill(value, 0, to - from);

/**
 * ```ts
 * arrayColumn(heights)(out, 0, 100); // the first hundred heights
 * ```
 */
export const arrayColumn =
	(values: Float64Array): ColumnReader =>
	(out, from, to) =>
		out.set(values.subarray(from, to));

/**
 * All values of a column at once.
 *
 * ```ts
 * const areas = columnValues(fieldOf('cell', 'area').column(faceModel, everySite(cells.count)), cells.count);
 * ```
 */
export function columnValues(column: ColumnReader, count: number): Float64Array {
	const out = new Float64Array(count);
	column(out, 0, count);
	return out;
}

/**
 * Every site, in its order.
 *
 * ```ts
 * everySite(3); // 0, 1, 2
 * ```
 */
export function everySite(count: number): Uint32Array {
	const sites = new Uint32Array(count);
	for (let k = 0; k < count; k++) sites[k] = k;
	return sites;
}
