import { ANGLE, PLAIN, combine, dimensionInWords, power, sameDimension, type Dimension } from '../dimension';
import {
	FormulaError,
	numberOf,
	SWITCH,
	typeInWords,
	type Arithmetic,
	type Expression,
	type FormulaType
} from './expression';

/** What the results of operations are, said of one formula. */
export class ResultTypes {
	constructor(private readonly text: string) {}

	/** @throws FormulaError when the operation does not fit its values */
	of(op: Arithmetic, args: Expression[]): FormulaType {
		const [a, b, c] = args as [Expression, Expression, Expression];
		switch (op) {
			case 'add':
			case 'subtract':
			case 'min':
			case 'max':
				return numberOf(this.alike(args, op));
			case 'multiply':
				return numberOf(combine(this.number(a, op), this.number(b, op), 1));
			case 'divide':
				return numberOf(combine(this.number(a, op), this.number(b, op), -1));
			case 'negate':
			case 'abs':
				return numberOf(this.number(a, op));
			case 'round':
			case 'floor':
			case 'ceil':
				if (!sameDimension(this.number(a, op), PLAIN))
					this.refuse(
						`${op}() in "${this.text}" takes a plain number; divide by a unit first, as in ${op}(span / 1 mm) * 1 mm`
					);
				return numberOf(PLAIN);
			case 'power':
				if (b.kind !== 'constant' || !sameDimension(this.number(b, op), PLAIN))
					this.refuse(`the exponent in "${this.text}" must be a plain number`);
				return numberOf(power(this.number(a, op), b.value));
			case 'sqrt':
				return numberOf(power(this.number(a, op), 0.5));
			case 'less':
			case 'lessOrEqual':
			case 'equal':
				this.alike(args, 'a comparison');
				return SWITCH;
			case 'and':
			case 'or':
			case 'not':
				this.switches(args, op);
				return SWITCH;
			case 'choose':
				this.switches([a], 'a condition');
				if (b.type.is === 'switch' && c.type.is === 'switch') return SWITCH;
				return numberOf(this.alike([b, c], 'a choice'));
			case 'sin':
			case 'cos':
			case 'tan':
				if (!sameDimension(this.number(a, op), ANGLE))
					this.refuse(`${op}() in "${this.text}" takes an angle, as in ${op}(30 deg)`);
				return numberOf(PLAIN);
			case 'asin':
			case 'acos':
				if (!sameDimension(this.number(a, op), PLAIN))
					this.refuse(`${op}() in "${this.text}" takes a plain number`);
				return numberOf(ANGLE);
			case 'atan2':
				this.alike(args, op);
				return numberOf(ANGLE);
		}
	}

	private number(expression: Expression, op: string): Dimension {
		if (expression.type.is !== 'number')
			this.refuse(`${op} in "${this.text}" needs numbers, not ${typeInWords(expression.type)}`);
		return expression.type.dimension;
	}

	private alike(args: readonly Expression[], op: string): Dimension {
		const first = this.number(args[0]!, op);
		for (const arg of args.slice(1)) {
			const other = this.number(arg, op);
			if (!sameDimension(first, other))
				this.refuse(
					`"${this.text}" mixes ${dimensionInWords(first)} with ${dimensionInWords(other)}; both sides need the same unit`
				);
		}
		return first;
	}

	private switches(args: readonly Expression[], op: string): void {
		for (const arg of args)
			if (arg.type.is !== 'switch')
				this.refuse(`${op} in "${this.text}" joins conditions, not ${typeInWords(arg.type)}`);
	}

	private refuse(sentence: string): never {
		throw new FormulaError(sentence);
	}
}
