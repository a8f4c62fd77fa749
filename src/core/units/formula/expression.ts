import { CodedError } from '../coded-error';
import { dimensionInWords, sameDimension, type Dimension } from '../dimension';

/** What a formula's value is: a number with a dimension, a yes-or-no, or a geometric thing by type name. */
export type FormulaType =
	| { readonly is: 'number'; readonly dimension: Dimension }
	| { readonly is: 'switch' }
	| { readonly is: 'geometry'; readonly of: string };

/** Operations on numbers that every formula may use. Arguments are in kernel units. */
export const arithmetic = [
	'add',
	'subtract',
	'multiply',
	'divide',
	'negate',
	'power',
	'less',
	'lessOrEqual',
	'equal',
	'and',
	'or',
	'not',
	'choose',
	'min',
	'max',
	'round',
	'floor',
	'ceil',
	'abs',
	'sqrt',
	'sin',
	'cos',
	'tan',
	'asin',
	'acos',
	'atan2'
] as const;
export type Arithmetic = (typeof arithmetic)[number];

export type Expression =
	| { readonly kind: 'constant'; readonly value: number; readonly type: FormulaType }
	| { readonly kind: 'name'; readonly name: string; readonly type: FormulaType }
	| {
			readonly kind: 'arithmetic';
			readonly op: Arithmetic;
			readonly args: readonly Expression[];
			readonly type: FormulaType;
	  }
	| {
			readonly kind: 'geometry';
			readonly call: string;
			readonly args: readonly Expression[];
			readonly type: FormulaType;
	  };

/**
 * A formula that cannot be used: a sentence saying what is wrong and what would be accepted.
 *
 * ```ts
 * if (error instanceof FormulaError) tell(error.message);
 * ```
 */
export class FormulaError extends CodedError {
	readonly code = 'formula';
}

/**
 * ```ts
 * const span = { is: 'number', dimension: LENGTH }; // numberOf(LENGTH)
 * ```
 */
export const numberOf = (dimension: Dimension): FormulaType => ({ is: 'number', dimension });
export const SWITCH: FormulaType = { is: 'switch' };

export function typeInWords(type: FormulaType): string {
	if (type.is === 'number') return dimensionInWords(type.dimension);
	return type.is === 'switch' ? 'a yes-or-no' : `a ${type.of}`;
}

export function sameType(a: FormulaType, b: FormulaType): boolean {
	if (a.is === 'number' && b.is === 'number') return sameDimension(a.dimension, b.dimension);
	if (a.is === 'geometry' && b.is === 'geometry') return a.of === b.of;
	return a.is === b.is;
}
