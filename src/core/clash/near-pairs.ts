/**
 * Pairs of boxes that reach into each other by more than a bound in all three directions: swept along the direction
 * in which they spread most, each against those that begin before it ends.
 *
 * ```ts
 * [...nearPairs(Float64Array.of(0, 0, 0, 9, 9, 9, 5, 5, 5, 14, 14, 14), 1)]; // [[0, 1]]
 * ```
 * @param bounds low x y z, high x y z of every box (mm) @param deeper mm
 */
export function* nearPairs(bounds: Float64Array, deeper: number): Generator<readonly [number, number]> {
	const axis = widest(bounds);
	const [second, third] = [(axis + 1) % 3, (axis + 2) % 3];
	// What is thinner than the bound cannot reach into anything by more.
	const thick = (k: number) => [0, 1, 2].every((a) => bounds[6 * k + 3 + a]! - bounds[6 * k + a]! > deeper);
	const order = Uint32Array.from({ length: bounds.length / 6 }, (_, k) => k)
		.filter(thick)
		.sort((a, b) => bounds[6 * a + axis]! - bounds[6 * b + axis]!);
	const count = order.length;
	// In their order, so that the sweep reads memory one after the other.
	const column = (at: number) => Float64Array.from(order, (k) => bounds[6 * k + at]!);
	const [low, high] = [column(axis), column(3 + axis)];
	const [lowB, highB] = [column(second), column(3 + second)];
	const [lowC, highC] = [column(third), column(3 + third)];
	for (let i = 0; i < count; i++) {
		const end = high[i]! - deeper;
		const [fromB, toB] = [lowB[i]! + deeper, highB[i]! - deeper];
		const [fromC, toC] = [lowC[i]! + deeper, highC[i]! - deeper];
		for (let j = i + 1; j < count && low[j]! < end; j++)
			if (highB[j]! > fromB && lowB[j]! < toB && highC[j]! > fromC && lowC[j]! < toC)
				yield [order[i]!, order[j]!];
	}
}

/** The direction in which the middles of boxes spread most. */
function widest(bounds: Float64Array): number {
	const spreads = [0, 1, 2].map((axis) => {
		let [low, high] = [Infinity, -Infinity];
		for (let k = axis; k < bounds.length; k += 6) {
			low = Math.min(low, bounds[k]!);
			high = Math.max(high, bounds[k]!);
		}
		return high - low;
	});
	return spreads.indexOf(Math.max(...spreads));
}
