import { applyArithmetic, type Arithmetic } from '../../units/formula';
import type { Operation } from '../program';
import { BLOCK, type BackEnd } from './back-end';

type Column = Float64Array;
/** o[r] = x[r] op y[r] for the first `rows` rows, and as many more as make a multiple of eight. */
type Loop = (o: Column, x: Column, y: Column, rows: number) => void;

/*
 * Eight rows a turn, since going round costs as much as an addition. Each operation has a loop of its own, so
 * that the engine sees one operation in it.
 */
const loops: Partial<Record<Arithmetic, Loop>> = {
	add(o, x, y, rows) {
		for (let r = 0; r < rows; r += 8) {
			const a = x[r]! + y[r]!;
			const b = x[r + 1]! + y[r + 1]!;
			const c = x[r + 2]! + y[r + 2]!;
			const d = x[r + 3]! + y[r + 3]!;
			const e = x[r + 4]! + y[r + 4]!;
			const f = x[r + 5]! + y[r + 5]!;
			const g = x[r + 6]! + y[r + 6]!;
			const h = x[r + 7]! + y[r + 7]!;
			o[r] = a;
			o[r + 1] = b;
			o[r + 2] = c;
			o[r + 3] = d;
			o[r + 4] = e;
			o[r + 5] = f;
			o[r + 6] = g;
			o[r + 7] = h;
		}
	},
	subtract(o, x, y, rows) {
		for (let r = 0; r < rows; r += 8) {
			const a = x[r]! - y[r]!;
			const b = x[r + 1]! - y[r + 1]!;
			const c = x[r + 2]! - y[r + 2]!;
			const d = x[r + 3]! - y[r + 3]!;
			const e = x[r + 4]! - y[r + 4]!;
			const f = x[r + 5]! - y[r + 5]!;
			const g = x[r + 6]! - y[r + 6]!;
			const h = x[r + 7]! - y[r + 7]!;
			o[r] = a;
			o[r + 1] = b;
			o[r + 2] = c;
			o[r + 3] = d;
			o[r + 4] = e;
			o[r + 5] = f;
			o[r + 6] = g;
			o[r + 7] = h;
		}
	},
	multiply(o, x, y, rows) {
		for (let r = 0; r < rows; r += 8) {
			const a = x[r]! * y[r]!;
			const b = x[r + 1]! * y[r + 1]!;
			const c = x[r + 2]! * y[r + 2]!;
			const d = x[r + 3]! * y[r + 3]!;
			const e = x[r + 4]! * y[r + 4]!;
			const f = x[r + 5]! * y[r + 5]!;
			const g = x[r + 6]! * y[r + 6]!;
			const h = x[r + 7]! * y[r + 7]!;
			o[r] = a;
			o[r + 1] = b;
			o[r + 2] = c;
			o[r + 3] = d;
			o[r + 4] = e;
			o[r + 5] = f;
			o[r + 6] = g;
			o[r + 7] = h;
		}
	},
	divide(o, x, y, rows) {
		for (let r = 0; r < rows; r++) o[r] = x[r]! / y[r]!;
	},
	sqrt(o, x, _, rows) {
		for (let r = 0; r < rows; r++) o[r] = Math.sqrt(x[r]!);
	},
	min(o, x, y, rows) {
		for (let r = 0; r < rows; r++) o[r] = Math.min(x[r]!, y[r]!);
	},
	max(o, x, y, rows) {
		for (let r = 0; r < rows; r++) o[r] = Math.max(x[r]!, y[r]!);
	},
	negate(o, x, _, rows) {
		for (let r = 0; r < rows; r++) o[r] = -x[r]!;
	},
	less(o, x, y, rows) {
		for (let r = 0; r < rows; r++) o[r] = x[r]! < y[r]! ? 1 : 0;
	},
	lessOrEqual(o, x, y, rows) {
		for (let r = 0; r < rows; r++) o[r] = x[r]! <= y[r]! ? 1 : 0;
	}
};

/** Run one operation over the first `rows` of a block; slots hold a multiple of eight rows. */
export function runOperation(
	{ op, out, a, b, c }: Operation,
	slots: readonly Float64Array[],
	rows: number
): void {
	const o = slots[out]!;
	const x = slots[a]!;
	const y = slots[b]!;
	const loop = loops[op];
	if (loop) return loop(o, x, y, rows);
	const z = slots[c]!;
	for (let r = 0; r < rows; r++) o[r] = applyArithmetic(op, x[r]!, y[r]!, z[r]!);
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
				}
			};
		})
};
