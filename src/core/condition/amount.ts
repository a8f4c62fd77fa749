import { dimensionOf, type NumberKind } from '../units/dimension';
import { checkFormula } from '../units/formula/check';
import { evaluateConstant } from '../units/formula/evaluate';
import { numberOf } from '../units/formula/expression';
import { inRadians } from '../units/scale';

/**
 * A bound in kernel units: a number as the document has it (mm, mm², degrees), or a formula with its units.
 *
 * ```ts
 * amountOf('2 * 1.5 m', 'length'); // 3000
 * ```
 * @throws FormulaError
 */
export function amountOf(amount: number | string, kind: NumberKind): number {
	if (typeof amount === 'number') return kind === 'angle' ? inRadians(amount) : amount;
	const expected = numberOf(dimensionOf(kind));
	return evaluateConstant(checkFormula(amount, { names: {}, functions: {}, expected }), amount);
}
