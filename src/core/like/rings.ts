import type { Cells } from '../pattern/cells';

/**
 * Rings of as many corners each, by what makes two of them the same thing wherever they lie: how far corners are from
 * those one, two and three further on, and how far each stands off the middle plane. Two rings are alike when these agree
 * from some corner on; run the other way round they are mirror images. mm
 */
export interface Rings {
	readonly corners: number;
	readonly count: number;
	/** How many corners further on distances go. */
	readonly steps: number;
	/** Of every ring: its distances by steps and corner, then what its corners stand off. */
	readonly values: Float64Array;
}

/** Distances to corners further on than this say nothing new. */
const MOST_STEPS = 3;

/** Values of one ring. */
export const strideOf = ({ corners, steps }: Pick<Rings, 'corners' | 'steps'>): number =>
	corners * (steps + 1);

/**
 * The rings of some cells that have as many corners each.
 *
 * ```ts
 * const rings = ringsOf(faceModel.cells, faceModel.grid.positions, Uint32Array.of(0, 1), 4);
 * ```
 */
export function ringsOf(
	{ start, corners: nodes }: Pick<Cells, 'start' | 'corners'>,
	positions: Float64Array,
	cells: Uint32Array,
	corners: number
): Rings {
	const steps = Math.min(MOST_STEPS, Math.floor(corners / 2));
	const stride = corners * (steps + 1);
	const values = new Float64Array(stride * cells.length);
	const xyz = new Float64Array(3 * corners);
	for (let n = 0; n < cells.length; n++) {
		const first = start[cells[n]!]!;
		for (let k = 0; k < corners; k++) {
			const node = 3 * nodes[first + k]!;
			xyz[3 * k] = positions[node]!;
			xyz[3 * k + 1] = positions[node + 1]!;
			xyz[3 * k + 2] = positions[node + 2]!;
		}
		write(xyz, corners, steps, values, stride * n);
	}
	return { corners, count: cells.length, steps, values };
}

/**
 * Rings of several faces as one list.
 *
 * ```ts
 * const both = joinedRings([rings, rings]);
 * ```
 * @param parts one or more, of as many corners each
 */
export function joinedRings(parts: readonly Rings[]): Rings {
	const [first] = parts as [Rings, ...Rings[]];
	if (parts.length === 1) return first;
	const values = new Float64Array(parts.reduce((sum, one) => sum + one.values.length, 0));
	let at = 0;
	for (const one of parts) {
		values.set(one.values, at);
		at += one.values.length;
	}
	return { ...first, count: parts.reduce((sum, { count }) => sum + count, 0), values };
}

/** Write what a ring is by. */
function write(xyz: Float64Array, corners: number, steps: number, values: Float64Array, at: number): void {
	for (let step = 1; step <= steps; step++) {
		const row = at + (step - 1) * corners;
		// Half way round both ways are as long.
		const own = 2 * step === corners ? step : corners;
		for (let k = 0; k < own; k++) {
			const p = 3 * k;
			const q = 3 * (k + step < corners ? k + step : k + step - corners);
			const x = xyz[q]! - xyz[p]!;
			const y = xyz[q + 1]! - xyz[p + 1]!;
			const z = xyz[q + 2]! - xyz[p + 2]!;
			values[row + k] = Math.sqrt(x * x + y * y + z * z);
		}
		for (let k = own; k < corners; k++) values[row + k] = values[row + k - own]!;
	}
	// Three corners lie in their plane.
	if (corners === 3) return;
	let mx = 0;
	let my = 0;
	let mz = 0;
	for (let k = 0; k < 3 * corners; k += 3) {
		mx += xyz[k]!;
		my += xyz[k + 1]!;
		mz += xyz[k + 2]!;
	}
	mx /= corners;
	my /= corners;
	mz /= corners;
	let nx = 0;
	let ny = 0;
	let nz = 0;
	// From the last corner to the first one, and on.
	let ax = xyz[3 * corners - 3]! - mx;
	let ay = xyz[3 * corners - 2]! - my;
	let az = xyz[3 * corners - 1]! - mz;
	for (let k = 0; k < 3 * corners; k += 3) {
		const bx = xyz[k]! - mx;
		const by = xyz[k + 1]! - my;
		const bz = xyz[k + 2]! - mz;
		nx += ay * bz - az * by;
		ny += az * bx - ax * bz;
		nz += ax * by - ay * bx;
		ax = bx;
		ay = by;
		az = bz;
	}
	const size = Math.sqrt(nx * nx + ny * ny + nz * nz) || 1;
	for (let k = 0; k < corners; k++)
		values[at + steps * corners + k] =
			((xyz[3 * k]! - mx) * nx + (xyz[3 * k + 1]! - my) * ny + (xyz[3 * k + 2]! - mz) * nz) / size;
}

/**
 * The largest difference between two rings laid on each other as well as can be (mm).
 *
 * ```ts
 * const off = differenceOf(rings, 0, 1, 2, false); // Infinity where it is more than 2 mm
 * ```
 * @param most differences beyond this are told as none that counts: Infinity
 * @param mirrored whether the mirror image does too
 */
export function differenceOf(rings: Rings, a: number, b: number, most: number, mirrored: boolean): number {
	let least = Infinity;
	for (let turn = 0; turn < rings.corners; turn++) {
		least = Math.min(least, laidOn(rings, a, b, turn, Math.min(most, least)));
		if (mirrored) least = Math.min(least, laidOnBack(rings, a, b, turn, Math.min(most, least)));
	}
	return least;
}

/**
 * The largest difference of two rings when corner k of the first lies on corner turn + k of the second; Infinity where it
 * is more than a bound.
 */
function laidOn({ corners, steps, values }: Rings, a: number, b: number, turn: number, most: number): number {
	const stride = corners * (steps + 1);
	const end = stride * (a + 1);
	// Up to its last corner the second ring goes along with the first, then it begins again.
	const whole = corners - turn;
	let off = 0;
	for (let p = stride * a, q = stride * b + turn; p < end; p += corners, q += corners) {
		for (let k = 0; k < whole; k++) {
			const away = Math.abs(values[p + k]! - values[q + k]!);
			if (away <= off) continue;
			if (away > most) return Infinity;
			off = away;
		}
		for (let k = whole; k < corners; k++) {
			const away = Math.abs(values[p + k]! - values[q + k - corners]!);
			if (away <= off) continue;
			if (away > most) return Infinity;
			off = away;
		}
	}
	return off;
}

/** The same when corner k of the first lies on corner turn - k of the second, which runs the other way round. */
function laidOnBack(
	{ corners, steps, values }: Rings,
	a: number,
	b: number,
	turn: number,
	most: number
): number {
	const stride = corners * (steps + 1);
	let off = 0;
	for (let row = 0; row <= steps; row++) {
		const p = stride * a + row * corners;
		const q = stride * b + row * corners;
		// It is from corner turn - k - step that the same two corners are as far apart.
		const first = turn - (row < steps ? row + 1 : 0) + corners;
		for (let k = 0; k < corners; k++) {
			let other = first - k;
			if (other < 0) other += corners;
			else if (other >= corners) other -= corners;
			const away = Math.abs(values[p + k]! - values[q + other]!);
			if (away <= off) continue;
			if (away > most) return Infinity;
			off = away;
		}
	}
	return off;
}
