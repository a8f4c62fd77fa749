import { FormulaError, type Arithmetic, type Expression } from './expression';

/**
 * The scalar meaning of every arithmetic operation; the columns of a part use the same table.
 *
 * ```ts
 * applyArithmetic('choose', 1, 20, 30); // 20
 * ```
 */
export function applyArithmetic(op: Arithmetic, a: number, b: number, c: number): number {
	switch (op) {
		case 'add':
			return a + b;
		case 'subtract':
			return a - b;
		case 'multiply':
			return a * b;
		case 'divide':
			return a / b;
		case 'negate':
			return -a;
		case 'power':
			return Math.pow(a, b);
		case 'less':
			return a < b ? 1 : 0;
		case 'lessOrEqual':
			return a <= b ? 1 : 0;
		case 'equal':
			return a === b ? 1 : 0;
		case 'and':
			return a !== 0 && b !== 0 ? 1 : 0;
		case 'or':
			return a !== 0 || b !== 0 ? 1 : 0;
		case 'not':
			return a === 0 ? 1 : 0;
		case 'choose':
			return a !== 0 ? b : c;
		case 'min':
			return Math.min(a, b);
		case 'max':
			return Math.max(a, b);
		case 'round':
			return Math.round(a);
		case 'floor':
			return Math.floor(a);
		case 'ceil':
			return Math.ceil(a);
		case 'abs':
			return Math.abs(a);
		case 'sqrt':
			return Math.sqrt(a);
		case 'sin':
			return Math.sin(a);
		case 'cos':
			return Math.cos(a);
		case 'tan':
			return Math.tan(a);
		case 'asin':
			return Math.asin(a);
		case 'acos':
			return Math.acos(a);
		case 'atan2':
			return Math.atan2(a, b);
	}
}

/**
 * The values of a checked formula without geometry, for many rows at once. They may not be finite.
 *
 * ```ts
 * const depth = evaluateColumns(checkFormula('-900 mm + height / 10', scope), () => heights, heights.length);
 * ```
 * @param column the values of a name, in kernel units
 * @throws FormulaError for a formula on geometry
 */
export function evaluateColumns(
	expression: Expression,
	column: (name: string) => Float64Array,
	count: number
): Float64Array {
	switch (expression.kind) {
		case 'constant':
			return new Float64Array(count).fill(expression.value);
		case 'name':
			return column(expression.name);
		case 'arithmetic': {
			const [a, b, c] = expression.args.map((arg) => evaluateColumns(arg, column, count));
			const out = new Float64Array(count);
			for (let r = 0; r < count; r++)
				out[r] = applyArithmetic(expression.op, a![r]!, b ? b[r]! : 0, c ? c[r]! : 0);
			return out;
		}
		case 'geometry':
			throw new FormulaError('a formula on geometry has no value of its own');
	}
}

/**
 * The value of a formula that names nothing: what a person typed into a value of the sheet.
 *
 * ```ts
 * evaluateConstant(checkFormula('4200 / 3', { names: {}, functions: {} }), '4200 / 3'); // 1400
 * ```
 * @throws FormulaError when it is not finite (a division by zero, a root of a negative) or names something
 */
export function evaluateConstant(
	expression: Expression,
	text: string,
	valueOf: (name: string) => number | undefined = () => undefined
): number {
	const column = (name: string) => {
		const known = valueOf(name);
		if (known === undefined) throw new FormulaError(`"${name}" has no value here`);
		return Float64Array.of(known);
	};
	const value = evaluateColumns(expression, column, 1)[0]!;
	if (!Number.isFinite(value)) throw new FormulaError(`"${text}" has no finite value`);
	return value;
}
