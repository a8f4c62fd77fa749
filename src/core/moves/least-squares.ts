/**
 * Rows of a sparse matrix as they are written: values by column, with what each row comes to as things stand.
 *
 * ```ts
 * const rows = new Rows();
 * rows.put(0, 1); // one unknown, 3 too large
 * rows.end(3);
 * const [by] = rows.step(Float64Array.of(0), 0, () => undefined, 10); // -3
 * ```
 */
export class Rows {
	private starts = new Uint32Array(1024);
	private columns = new Uint32Array(8192);
	private values = new Float64Array(8192);
	private sums = new Float64Array(1024);
	count = 0;
	private filled = 0;

	clear(): void {
		this.count = this.filled = 0;
	}

	/** One value of the row that is being written; those of one column are added up. */
	put(column: number, value: number): void {
		if (this.filled === this.columns.length) {
			this.columns = grown(this.columns, Uint32Array);
			this.values = grown(this.values, Float64Array);
		}
		this.columns[this.filled] = column;
		this.values[this.filled++] = value;
	}

	/** @param sum what the row comes to, which is to be nothing */
	end(sum: number): void {
		if (this.count + 1 === this.starts.length) {
			this.starts = grown(this.starts, Uint32Array);
			this.sums = grown(this.sums, Float64Array);
		}
		this.sums[this.count++] = sum;
		this.starts[this.count] = this.filled;
	}

	/** Put the square of what each row comes to in its place, with its sign: the worst count for more. @param unit mm */
	raisePeaks(unit: number): void {
		const { starts, values, sums, count } = this;
		for (let row = 0; row < count; row++) {
			const size = Math.abs(sums[row]!) / unit;
			for (let k = starts[row]!; k < starts[row + 1]!; k++) values[k]! *= 2 * size;
			sums[row]! *= size;
		}
	}

	/** The squares of what the rows come to, added up. */
	energy(): number {
		let sum = 0;
		for (let row = 0; row < this.count; row++) sum += this.sums[row]! ** 2;
		return sum;
	}

	/** The furthest that a row is from nothing. */
	largest(): number {
		let most = 0;
		for (let row = 0; row < this.count; row++) most = Math.max(most, Math.abs(this.sums[row]!));
		return most;
	}

	/** Jᵀ r: where the sum of their squares grows. */
	gradient(columns: number): Float64Array {
		const { starts, columns: of, values, sums, count } = this;
		const out = new Float64Array(columns);
		for (let row = 0; row < count; row++)
			for (let k = starts[row]!; k < starts[row + 1]!; k++) out[of[k]!]! += values[k]! * sums[row]!;
		return out;
	}

	/** out += JᵀJ x */
	private product(x: Float64Array, out: Float64Array): void {
		const { starts, columns, values, count } = this;
		for (let row = 0; row < count; row++) {
			const [from, to] = [starts[row]!, starts[row + 1]!];
			let sum = 0;
			for (let k = from; k < to; k++) sum += values[k]! * x[columns[k]!]!;
			if (sum !== 0) for (let k = from; k < to; k++) out[columns[k]!]! += values[k]! * sum;
		}
	}

	private diagonal(out: Float64Array): void {
		for (let k = 0; k < this.filled; k++) out[this.columns[k]!]! += this.values[k]! ** 2;
	}

	/**
	 * The step that brings the rows nearest to nothing (least squares), kept near to where things were before they were
	 * moved at all: conjugate gradients on the normal equations with their diagonal as preconditioner (Saad, Iterative
	 * Methods for Sparse Linear Systems, 9.5; from memory), within the directions that are left.
	 * @param offsets as they are @param near weight of the way from the beginning
	 * @param project takes out of a step what must not be @param rounds at most
	 */
	step(
		offsets: Float64Array,
		near: number,
		project: (step: Float64Array) => void,
		rounds: number
	): Float64Array {
		const n = offsets.length;
		const step = new Float64Array(n);
		const rest = this.gradient(n);
		const scale = new Float64Array(n).fill(near);
		this.diagonal(scale);
		for (let k = 0; k < n; k++) {
			rest[k] = -rest[k]! - near * offsets[k]!;
			scale[k] = scale[k]! > 0 ? 1 / scale[k]! : 0;
		}
		project(rest);
		const way = new Float64Array(n);
		const scaled = new Float64Array(n);
		const product = new Float64Array(n);
		let before = 0;
		let first = 0;
		for (let round = 0; round < rounds; round++) {
			for (let k = 0; k < n; k++) scaled[k] = scale[k]! * rest[k]!;
			project(scaled);
			let now = 0;
			for (let k = 0; k < n; k++) now += rest[k]! * scaled[k]!;
			if (round === 0) first = now;
			if (!(now > first * ENOUGH)) break;
			const turn = round ? now / before : 0;
			for (let k = 0; k < n; k++) way[k] = scaled[k]! + turn * way[k]!;
			before = now;
			product.fill(0);
			this.product(way, product);
			for (let k = 0; k < n; k++) product[k]! += near * way[k]!;
			project(product);
			let along = 0;
			for (let k = 0; k < n; k++) along += way[k]! * product[k]!;
			if (!(along > 0)) break;
			const far = now / along;
			for (let k = 0; k < n; k++) {
				step[k]! += far * way[k]!;
				rest[k]! -= far * product[k]!;
			}
		}
		return step;
	}
}

/** A rest by this much smaller (squared) is as good as none: the next step is taken from a better place. */
const ENOUGH = 1e-8;

function grown<T extends Uint32Array | Float64Array>(list: T, Kind: new (length: number) => T): T {
	const longer = new Kind(2 * list.length);
	longer.set(list);
	return longer;
}
