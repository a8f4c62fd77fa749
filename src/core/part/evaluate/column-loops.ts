import { applyArithmetic } from '../../units/formula/evaluate';
import type { Arithmetic } from '../../units/formula/expression';
import type { Kernel, Operation } from '../program';
import { BLOCK, type BackEnd } from './back-end';

/** The operations that no formula asks for. */
type Joined = Exclude<Kernel, Arithmetic>;
type Column = Float64Array;
/** o[r] = x[r] op y[r], or of all three, for the first `rows` rows and as many more as make a multiple of sixteen. */
type Loop = (o: Column, x: Column, y: Column, z: Column, rows: number) => void;

/*
 * Sixteen rows a turn, since going round costs as much as an addition. Each operation has a loop of its own, so
 * that the engine sees one operation in it.
 */
const loops: Partial<Record<Arithmetic, Loop>> & Record<Joined, Loop> = {
	add(o, x, y, _, rows) {
		for (let r = 0; r < rows; r += 16) {
			o[r] = x[r]! + y[r]!;
			o[r + 1] = x[r + 1]! + y[r + 1]!;
			o[r + 2] = x[r + 2]! + y[r + 2]!;
			o[r + 3] = x[r + 3]! + y[r + 3]!;
			o[r + 4] = x[r + 4]! + y[r + 4]!;
			o[r + 5] = x[r + 5]! + y[r + 5]!;
			o[r + 6] = x[r + 6]! + y[r + 6]!;
			o[r + 7] = x[r + 7]! + y[r + 7]!;
			o[r + 8] = x[r + 8]! + y[r + 8]!;
			o[r + 9] = x[r + 9]! + y[r + 9]!;
			o[r + 10] = x[r + 10]! + y[r + 10]!;
			o[r + 11] = x[r + 11]! + y[r + 11]!;
			o[r + 12] = x[r + 12]! + y[r + 12]!;
			o[r + 13] = x[r + 13]! + y[r + 13]!;
			o[r + 14] = x[r + 14]! + y[r + 14]!;
			o[r + 15] = x[r + 15]! + y[r + 15]!;
		}
	},
	subtract(o, x, y, _, rows) {
		for (let r = 0; r < rows; r += 16) {
			o[r] = x[r]! - y[r]!;
			o[r + 1] = x[r + 1]! - y[r + 1]!;
			o[r + 2] = x[r + 2]! - y[r + 2]!;
			o[r + 3] = x[r + 3]! - y[r + 3]!;
			o[r + 4] = x[r + 4]! - y[r + 4]!;
			o[r + 5] = x[r + 5]! - y[r + 5]!;
			o[r + 6] = x[r + 6]! - y[r + 6]!;
			o[r + 7] = x[r + 7]! - y[r + 7]!;
			o[r + 8] = x[r + 8]! - y[r + 8]!;
			o[r + 9] = x[r + 9]! - y[r + 9]!;
			o[r + 10] = x[r + 10]! - y[r + 10]!;
			o[r + 11] = x[r + 11]! - y[r + 11]!;
			o[r + 12] = x[r + 12]! - y[r + 12]!;
			o[r + 13] = x[r + 13]! - y[r + 13]!;
			o[r + 14] = x[r + 14]! - y[r + 14]!;
			o[r + 15] = x[r + 15]! - y[r + 15]!;
		}
	},
	multiply(o, x, y, _, rows) {
		for (let r = 0; r < rows; r += 16) {
			o[r] = x[r]! * y[r]!;
			o[r + 1] = x[r + 1]! * y[r + 1]!;
			o[r + 2] = x[r + 2]! * y[r + 2]!;
			o[r + 3] = x[r + 3]! * y[r + 3]!;
			o[r + 4] = x[r + 4]! * y[r + 4]!;
			o[r + 5] = x[r + 5]! * y[r + 5]!;
			o[r + 6] = x[r + 6]! * y[r + 6]!;
			o[r + 7] = x[r + 7]! * y[r + 7]!;
			o[r + 8] = x[r + 8]! * y[r + 8]!;
			o[r + 9] = x[r + 9]! * y[r + 9]!;
			o[r + 10] = x[r + 10]! * y[r + 10]!;
			o[r + 11] = x[r + 11]! * y[r + 11]!;
			o[r + 12] = x[r + 12]! * y[r + 12]!;
			o[r + 13] = x[r + 13]! * y[r + 13]!;
			o[r + 14] = x[r + 14]! * y[r + 14]!;
			o[r + 15] = x[r + 15]! * y[r + 15]!;
		}
	},
	'add product'(o, x, y, z, rows) {
		for (let r = 0; r < rows; r += 16) {
			o[r] = z[r]! + x[r]! * y[r]!;
			o[r + 1] = z[r + 1]! + x[r + 1]! * y[r + 1]!;
			o[r + 2] = z[r + 2]! + x[r + 2]! * y[r + 2]!;
			o[r + 3] = z[r + 3]! + x[r + 3]! * y[r + 3]!;
			o[r + 4] = z[r + 4]! + x[r + 4]! * y[r + 4]!;
			o[r + 5] = z[r + 5]! + x[r + 5]! * y[r + 5]!;
			o[r + 6] = z[r + 6]! + x[r + 6]! * y[r + 6]!;
			o[r + 7] = z[r + 7]! + x[r + 7]! * y[r + 7]!;
			o[r + 8] = z[r + 8]! + x[r + 8]! * y[r + 8]!;
			o[r + 9] = z[r + 9]! + x[r + 9]! * y[r + 9]!;
			o[r + 10] = z[r + 10]! + x[r + 10]! * y[r + 10]!;
			o[r + 11] = z[r + 11]! + x[r + 11]! * y[r + 11]!;
			o[r + 12] = z[r + 12]! + x[r + 12]! * y[r + 12]!;
			o[r + 13] = z[r + 13]! + x[r + 13]! * y[r + 13]!;
			o[r + 14] = z[r + 14]! + x[r + 14]! * y[r + 14]!;
			o[r + 15] = z[r + 15]! + x[r + 15]! * y[r + 15]!;
		}
	},
	'subtract product'(o, x, y, z, rows) {
		for (let r = 0; r < rows; r += 16) {
			o[r] = z[r]! - x[r]! * y[r]!;
			o[r + 1] = z[r + 1]! - x[r + 1]! * y[r + 1]!;
			o[r + 2] = z[r + 2]! - x[r + 2]! * y[r + 2]!;
			o[r + 3] = z[r + 3]! - x[r + 3]! * y[r + 3]!;
			o[r + 4] = z[r + 4]! - x[r + 4]! * y[r + 4]!;
			o[r + 5] = z[r + 5]! - x[r + 5]! * y[r + 5]!;
			o[r + 6] = z[r + 6]! - x[r + 6]! * y[r + 6]!;
			o[r + 7] = z[r + 7]! - x[r + 7]! * y[r + 7]!;
			o[r + 8] = z[r + 8]! - x[r + 8]! * y[r + 8]!;
			o[r + 9] = z[r + 9]! - x[r + 9]! * y[r + 9]!;
			o[r + 10] = z[r + 10]! - x[r + 10]! * y[r + 10]!;
			o[r + 11] = z[r + 11]! - x[r + 11]! * y[r + 11]!;
			o[r + 12] = z[r + 12]! - x[r + 12]! * y[r + 12]!;
			o[r + 13] = z[r + 13]! - x[r + 13]! * y[r + 13]!;
			o[r + 14] = z[r + 14]! - x[r + 14]! * y[r + 14]!;
			o[r + 15] = z[r + 15]! - x[r + 15]! * y[r + 15]!;
		}
	},
	divide(o, x, y, _, rows) {
		for (let r = 0; r < rows; r++) o[r] = x[r]! / y[r]!;
	},
	sqrt(o, x, _, __, rows) {
		for (let r = 0; r < rows; r++) o[r] = Math.sqrt(x[r]!);
	},
	min(o, x, y, _, rows) {
		for (let r = 0; r < rows; r++) o[r] = Math.min(x[r]!, y[r]!);
	},
	max(o, x, y, _, rows) {
		for (let r = 0; r < rows; r++) o[r] = Math.max(x[r]!, y[r]!);
	},
	sin(o, x, _, __, rows) {
		for (let r = 0; r < rows; r++) o[r] = Math.sin(x[r]!);
	},
	cos(o, x, _, __, rows) {
		for (let r = 0; r < rows; r++) o[r] = Math.cos(x[r]!);
	},
	tan(o, x, _, __, rows) {
		for (let r = 0; r < rows; r++) o[r] = Math.tan(x[r]!);
	},
	acos(o, x, _, __, rows) {
		for (let r = 0; r < rows; r++) o[r] = Math.acos(x[r]!);
	},
	atan2(o, x, y, _, rows) {
		for (let r = 0; r < rows; r++) o[r] = Math.atan2(x[r]!, y[r]!);
	},
	negate(o, x, _, __, rows) {
		for (let r = 0; r < rows; r++) o[r] = -x[r]!;
	},
	less(o, x, y, _, rows) {
		for (let r = 0; r < rows; r++) o[r] = x[r]! < y[r]! ? 1 : 0;
	},
	lessOrEqual(o, x, y, _, rows) {
		for (let r = 0; r < rows; r++) o[r] = x[r]! <= y[r]! ? 1 : 0;
	}
};

/** For operations that are rare: whatever is handed to a function that serves all of them is boxed. */
const plainLoop =
	(op: Arithmetic): Loop =>
	(o, x, y, z, rows) => {
		for (let r = 0; r < rows; r++) o[r] = applyArithmetic(op, x[r]!, y[r]!, z[r]!);
	};

/** Run one operation over the first `rows` of a block; slots hold a multiple of sixteen rows. */
export function runOperation(
	{ op, out, a, b, c }: Operation,
	slots: readonly Float64Array[],
	rows: number
): void {
	const o = slots[out]!;
	const x = slots[a]!;
	const y = slots[b]!;
	const loop = loops[op] ?? plainLoop(op as Arithmetic);
	loop(o, x, y, slots[c]!, rows);
}

/** The reference back end: one plain loop for each operation. */
export const columnLoops: BackEnd = {
	open: (domains) =>
		domains.map((domain) => {
			const slots = Array.from({ length: domain.slots }, () => new Float64Array(BLOCK));
			return {
				slots,
				compute(rows) {
					for (const operation of domain.operations) runOperation(operation, slots, rows);
				},
				places({ vertices, sections, verticesEach }, rows, origin) {
					const stride = 3 * verticesEach;
					const places = new Float32Array(rows * stride);
					let first = 0;
					const write = (of: (axis: 'x' | 'y' | 'z', r: number) => number) => {
						for (const [a, axis] of (['x', 'y', 'z'] as const).entries())
							for (let r = 0, o = first + a; r < rows; r++, o += stride) places[o] = of(axis, r) - origin[a]!;
						first += 3;
					};
					for (const point of vertices) write((axis, r) => slots[point[axis]]![r]!);
					for (const { at, x, y, corners } of sections)
						for (const [across, along] of corners)
							write(
								(axis, r) =>
									slots[at[axis]]![r]! +
									slots[x[axis]]![r]! * slots[across]![r]! +
									slots[y[axis]]![r]! * slots[along]![r]!
							);
					return places;
				}
			};
		})
};
