import { typesOf, valueIn, type Named } from '../named/named-values';
import { dimensionOf, type NumberKind } from '../units/dimension';
import { checkFormula } from '../units/formula/check';
import { evaluateConstant } from '../units/formula/evaluate';
import { numberOf } from '../units/formula/expression';
import { inRadians } from '../units/scale';

/**
 * Whether a text is an amount of a kind.
 *
 * ```ts
 * isAmount('2 * storey', 'length', named);
 * ```
 */
export function isAmount(text: string, kind: NumberKind, named: Named): boolean {
	try {
		amountOf(text, kind, named);
		return true;
	} catch {
		return false;
	}
}

/**
 * A bound in kernel units: a number as the document has it (mm, mm², degrees), or a formula with its units.
 *
 * ```ts
 * amountOf('2 * 1.5 m', 'length', NOTHING_NAMED); // 3000
 * ```
 * @throws FormulaError
 */
export function amountOf(amount: number | string, kind: NumberKind, named: Named): number {
	if (typeof amount === 'number') return kind === 'angle' ? inRadians(amount) : amount;
	const expected = numberOf(dimensionOf(kind));
	const expression = checkFormula(amount, { names: typesOf(named), functions: {}, expected });
	return evaluateConstant(expression, amount, valueIn(named));
}
