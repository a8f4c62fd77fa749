import { checkFormula } from '../../units/formula/check';
import type { Expression, FormulaType } from '../../units/formula/expression';
import type { Register } from '../builder';
import { StepFault } from './fault';
import type { Scope } from './scope';
import { Vectors, geometryFunctions, typeOf, type Value } from '../values';

/** The types of all names that are visible. */
function namesOf(scope: Scope): Record<string, FormulaType> {
	return Object.fromEntries(scope.names().map((name) => [name, typeOf(scope.peek(name)!)]));
}

/** A checked formula over what is visible. @throws FormulaError */
export function readFormula(scope: Scope, text: string, expected?: FormulaType): Expression {
	return checkFormula(text, {
		names: namesOf(scope),
		functions: geometryFunctions,
		...(expected && { expected })
	});
}

/** Lower a checked formula to operations. @throws StepFault */
export function lower(expression: Expression, scope: Scope): Register {
	const { builder } = scope;
	switch (expression.kind) {
		case 'constant':
			return builder.constant(expression.value);
		case 'name': {
			const value = scope.get(expression.name)!;
			if (value.is !== 'number') throw new StepFault(`"${expression.name}" is a ${value.is}, not a number`);
			return value.register;
		}
		case 'arithmetic': {
			const [a, b, c] = expression.args.map((arg) => lower(arg, scope));
			return builder.apply(expression.op, a!, b, c);
		}
		case 'geometry': {
			const args = expression.args.map((arg): Value => {
				if (arg.kind === 'name') return scope.get(arg.name)!;
				return { is: 'number', register: lower(arg, scope), type: arg.type };
			});
			return geometryFunctions[expression.call]!.lower(new Vectors(builder), args);
		}
	}
}
