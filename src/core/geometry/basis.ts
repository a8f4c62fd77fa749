/**
 * B-spline basis functions and their derivatives.
 * Source: Piegl & Tiller, The NURBS Book, algorithms A2.1 to A2.3.
 */

/** Knot span of a parameter: the k with knots[k] <= t < knots[k + 1], the last one at the end. */
export function findSpan(knots: Float64Array, degree: number, t: number): number {
	const last = knots.length - degree - 2;
	if (t >= knots[last + 1]!) return last;
	if (t <= knots[degree]!) {
		let span = degree;
		while (knots[span + 1]! <= t && span < last) span++;
		return span;
	}
	let low = degree;
	let high = last + 1;
	while (high - low > 1) {
		const middle = (low + high) >> 1;
		if (t < knots[middle]!) high = middle;
		else low = middle;
	}
	return low;
}

/**
 * Basis values of many parameters at once.
 * `values[(k * (order + 1) + d) * (degree + 1) + i]` is the d-th derivative, at parameter k, of the i-th
 * function that is not zero there; `first[k]` is that function's control point when i is 0.
 */
export interface BasisTable {
	readonly degree: number;
	readonly order: number;
	readonly count: number;
	readonly first: Uint32Array;
	readonly values: Float64Array;
}

const MAX_DEGREE = 7;
/** Scratch of one parameter: the triangular table of basis values and knot differences. */
const triangle = new Float64Array((MAX_DEGREE + 1) * (MAX_DEGREE + 1));
const left = new Float64Array(MAX_DEGREE + 1);
const right = new Float64Array(MAX_DEGREE + 1);
const rows = new Float64Array(2 * (MAX_DEGREE + 1));

/** An empty table, to be filled again and again by `fillBasis` without allocating. */
export function makeBasisTable(degree: number, order: number, count: number): BasisTable {
	return {
		degree,
		order,
		count,
		first: new Uint32Array(count),
		values: new Float64Array(count * (order + 1) * (degree + 1))
	};
}

/** Basis values and derivatives up to `order` at every parameter of `at`. */
export function basisTable(
	knots: Float64Array,
	degree: number,
	at: ArrayLike<number>,
	order: number
): BasisTable {
	const table = makeBasisTable(degree, order, at.length);
	fillBasis(table, knots, at);
	return table;
}

/** Fill a table for the parameters of `at` (length at most `table.count`). */
export function fillBasis(table: BasisTable, knots: Float64Array, at: ArrayLike<number>): void {
	const { degree, order, first, values } = table;
	const stride = (order + 1) * (degree + 1);
	for (let k = 0; k < at.length; k++) {
		const t = at[k]!;
		const span = findSpan(knots, degree, t);
		first[k] = span - degree;
		if (order < 2) valuesAndSlopes(knots, degree, span, t, order, values, k * stride);
		else derivatives(knots, degree, span, t, order, values, k * stride);
	}
}

/** Hot: values, and first derivatives if they are asked for, each degree made of the one below where it stands. */
function valuesAndSlopes(
	knots: Float64Array,
	degree: number,
	span: number,
	t: number,
	order: number,
	out: Float64Array,
	offset: number
): void {
	const slopes = offset + degree + 1;
	out[offset] = 1;
	for (let j = 1; j <= degree; j++) {
		const withSlopes = order > 0 && j === degree;
		let saved = 0;
		let before = 0;
		for (let r = 0; r < j; r++) {
			const left = t - knots[span + 1 - j + r]!;
			const right = knots[span + 1 + r]! - t;
			const difference = right + left;
			const below = out[offset + r]!;
			const term = below / difference;
			out[offset + r] = saved + right * term;
			saved = left * term;
			if (!withSlopes) continue;
			const next = (degree * below) / difference;
			out[slopes + r] = before - next;
			before = next;
		}
		out[offset + j] = saved;
		if (withSlopes) out[slopes + degree] = before;
	}
}

/** Values and derivatives up to an order of two or more. */
function derivatives(
	knots: Float64Array,
	degree: number,
	span: number,
	t: number,
	order: number,
	out: Float64Array,
	offset: number
): void {
	const width = degree + 1;
	triangle[0] = 1;
	for (let j = 1; j <= degree; j++) {
		left[j] = t - knots[span + 1 - j]!;
		right[j] = knots[span + j]! - t;
		let saved = 0;
		for (let r = 0; r < j; r++) {
			const difference = right[r + 1]! + left[j - r]!;
			triangle[j * width + r] = difference;
			const term = triangle[r * width + j - 1]! / difference;
			triangle[r * width + j] = saved + right[r + 1]! * term;
			saved = left[j - r]! * term;
		}
		triangle[j * width + j] = saved;
	}
	for (let j = 0; j <= degree; j++) out[offset + j] = triangle[j * width + degree]!;
	for (let r = 0; r <= degree; r++) {
		let here = 0;
		let there = width;
		rows[0] = 1;
		for (let k = 1; k <= order; k++) {
			if (k > degree) {
				out[offset + k * width + r] = 0;
				continue;
			}
			let sum = 0;
			const rk = r - k;
			const pk = degree - k;
			if (r >= k) {
				rows[there] = rows[here]! / triangle[(pk + 1) * width + rk]!;
				sum = rows[there]! * triangle[rk * width + pk]!;
			}
			const from = rk >= -1 ? 1 : -rk;
			const to = r - 1 <= pk ? k - 1 : degree - r;
			for (let j = from; j <= to; j++) {
				rows[there + j] = (rows[here + j]! - rows[here + j - 1]!) / triangle[(pk + 1) * width + rk + j]!;
				sum += rows[there + j]! * triangle[(rk + j) * width + pk]!;
			}
			if (r <= pk) {
				rows[there + k] = -rows[here + k - 1]! / triangle[(pk + 1) * width + r]!;
				sum += rows[there + k]! * triangle[r * width + pk]!;
			}
			out[offset + k * width + r] = sum;
			const swapped = here;
			here = there;
			there = swapped;
		}
	}
	let factor = degree;
	for (let k = 1; k <= order; k++) {
		for (let j = 0; j <= degree; j++) out[offset + k * width + j]! *= factor;
		factor *= degree - k;
	}
}
