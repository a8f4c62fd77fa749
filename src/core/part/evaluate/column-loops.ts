import { applyArithmetic } from '../../units/formula';
import type { Operation } from '../program';
import { BLOCK, type BackEnd } from './back-end';

/** Run one operation over the first `rows` of a block. */
export function runOperation(
	{ op, out, a, b, c }: Operation,
	slots: readonly Float64Array[],
	rows: number
): void {
	const o = slots[out]!;
	const x = slots[a]!;
	const y = slots[b]!;
	switch (op) {
		case 'add':
			for (let r = 0; r < rows; r++) o[r] = x[r]! + y[r]!;
			return;
		case 'subtract':
			for (let r = 0; r < rows; r++) o[r] = x[r]! - y[r]!;
			return;
		case 'multiply':
			for (let r = 0; r < rows; r++) o[r] = x[r]! * y[r]!;
			return;
		case 'divide':
			for (let r = 0; r < rows; r++) o[r] = x[r]! / y[r]!;
			return;
		case 'sqrt':
			for (let r = 0; r < rows; r++) o[r] = Math.sqrt(x[r]!);
			return;
		default: {
			const z = slots[c]!;
			for (let r = 0; r < rows; r++) o[r] = applyArithmetic(op, x[r]!, y[r]!, z[r]!);
		}
	}
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
