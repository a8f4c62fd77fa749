import { inRadians } from '../../units/scale';
import type { Case, PartInput } from '../../project/part-definition';
import { checkFormula } from '../../units/formula/check';
import { FormulaError, type FormulaType } from '../../units/formula/expression';
import { evaluateConstant } from '../../units/formula/evaluate';
import { StepFault } from './fault';

/** A case's range in kernel units; the upper end does not belong to it. */
export interface Range {
	readonly from: number;
	readonly below: number;
}

/** Bounds nearer than this are one. */
const SAME = 1e-9;

/**
 * The ranges of cases, checked to cover all that a value can be, once.
 * @param limits the least and the most of it, in kernel units
 * @throws StepFault naming what is covered twice or not at all
 */
export function rangesOf(
	cases: readonly Case[],
	type: FormulaType,
	limits: { readonly min: number; readonly max: number },
	shown: (value: number) => string
): Range[] {
	const constant = (text: string | undefined, otherwise: number) => {
		if (text === undefined) return otherwise;
		try {
			return evaluateConstant(checkFormula(text, { names: {}, functions: {}, expected: type }), text);
		} catch (error) {
			if (error instanceof FormulaError)
				throw new StepFault(`${error.message}; the ends of a case are fixed values`);
			throw error;
		}
	};
	const ranges = cases.map((one) => ({
		from: constant(one.from, -Infinity),
		below: constant(one.below, Infinity)
	}));
	for (const { from, below } of ranges)
		if (!(from < below)) throw new StepFault(`a case from ${shown(from)} to below ${shown(below)} is empty`);
	const sorted = [...ranges].sort((a, b) => a.from - b.from);
	let reached = Math.min(limits.min, sorted[0]!.from);
	if (sorted[0]!.from > limits.min + SAME)
		throw new StepFault(`nothing is made below ${shown(sorted[0]!.from)}`);
	for (const { from, below } of sorted) {
		if (from > reached + SAME && reached < limits.max)
			throw new StepFault(`nothing is made from ${shown(reached)} to below ${shown(from)}`);
		if (from < reached - SAME && reached > limits.min)
			throw new StepFault(`two cases cover ${shown(from)} to below ${shown(reached)}`);
		reached = below;
	}
	if (reached <= limits.max && limits.max < Infinity)
		throw new StepFault(`nothing is made from ${shown(reached)} on, up to ${shown(limits.max)}`);
	if (reached < Infinity && limits.max === Infinity)
		throw new StepFault(`nothing is made from ${shown(reached)} on`);
	return ranges;
}

/** The least and the most of an input in kernel units; everything when it is none. */
export function limitsOf(input: PartInput | undefined): { min: number; max: number } {
	const kernel = input?.kind === 'angle' ? inRadians : (value: number) => value;
	return { min: kernel(input?.min ?? -Infinity), max: kernel(input?.max ?? Infinity) };
}
