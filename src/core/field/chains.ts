import { reckon } from './column';
import { field, type Field } from './field';

/** Of points in a row, which parts are tried on and hung on within others. */
export const chainFields: readonly Field[] = [
	field('chain', 'length', 'length', 'length', ['chains'], ({ chains }, sites) =>
		reckon(sites, (k) => {
			const { start, positions } = chains;
			let sum = 0;
			for (let n = start[k]! + 1; n < start[k + 1]!; n++)
				sum += Math.hypot(...[0, 1, 2].map((a) => positions[3 * n + a]! - positions[3 * (n - 1) + a]!));
			return sum;
		})
	)
];
