import { create, parseDependencies, type FactoryFunctionMap, type MathNode } from 'mathjs/number';
import { once } from '../once';
import { ANGLE, PLAIN, sameDimension, units } from '../dimension';
import {
	FormulaError,
	numberOf,
	sameType,
	SWITCH,
	typeInWords,
	type Arithmetic,
	type Expression,
	type FormulaType
} from './expression';
import { ResultTypes } from './result-type';
import { overSize } from './size';
import { normaliseQuantityText } from './text';

/**
 * Plain arithmetic with units, comparisons and conditions, written by people.
 *
 * mathjs only parses; what it returns is checked against the short list of nodes and names below and
 * becomes an `Expression` that carries its dimension. Nothing is ever evaluated as code.
 *
 * ```ts
 * const half = checkFormula('(span - 200 mm) / 2', { names: { span: numberOf(LENGTH) }, functions: {} });
 * ```
 */
const parser = once(() => create(parseDependencies as FactoryFunctionMap));

/** A function on geometry: for given argument types, its result, or undefined when they do not fit. */
export interface GeometryFunction {
	readonly takes: string;
	result(args: readonly FormulaType[]): FormulaType | undefined;
}

export interface FormulaScope {
	readonly names: Readonly<Record<string, FormulaType>>;
	readonly functions: Readonly<Record<string, GeometryFunction>>;
	/** What a number without a unit means where a length or an angle is wanted (mm, deg). */
	readonly expected?: FormulaType;
}

const operators: Record<string, Arithmetic> = {
	add: 'add',
	subtract: 'subtract',
	multiply: 'multiply',
	divide: 'divide',
	pow: 'power',
	unaryMinus: 'negate',
	smaller: 'less',
	larger: 'less',
	smallerEq: 'lessOrEqual',
	largerEq: 'lessOrEqual',
	equal: 'equal',
	unequal: 'equal',
	and: 'and',
	or: 'or',
	not: 'not'
};
const swapped = new Set(['larger', 'largerEq']);
const functionArity: Record<string, [number, number]> = {
	min: [2, 8],
	max: [2, 8],
	clamp: [3, 3],
	round: [1, 1],
	floor: [1, 1],
	ceil: [1, 1],
	abs: [1, 1],
	mod: [2, 2],
	sqrt: [1, 1],
	sin: [1, 1],
	cos: [1, 1],
	tan: [1, 1],
	asin: [1, 1],
	acos: [1, 1],
	atan2: [2, 2]
};

/** Accessors over mathjs nodes, whose public type leaves its subclasses open. */
interface LooseNode {
	type: string;
	value?: unknown;
	name?: string;
	fn?: string | { name?: string };
	args?: LooseNode[];
	content?: LooseNode;
	condition?: LooseNode;
	trueExpr?: LooseNode;
	falseExpr?: LooseNode;
	object?: LooseNode;
	index?: { dotNotation?: boolean; dimensions?: LooseNode[] };
}

/**
 * Parse and check a formula.
 *
 * ```ts
 * const half = checkFormula('span / 2', { names: { span: numberOf(LENGTH) }, functions: {} });
 * ```
 * @throws FormulaError with a sentence when it cannot be read, names something unknown or mixes units.
 */
export function checkFormula(text: string, scope: FormulaScope): Expression {
	const tooMuch = overSize(text);
	if (tooMuch) throw new FormulaError(tooMuch);
	let node: MathNode;
	try {
		node = parser().parse(normaliseQuantityText(text));
	} catch {
		throw new FormulaError(
			`"${text}" cannot be read as a formula; write for example 1500 mm, 5 ft, 4200/3 or (span - 200 mm) / 2`
		);
	}
	const expression = new Checker(scope, text).check(node as unknown as LooseNode);
	return scope.expected ? fitTo(expression, scope.expected, text) : expression;
}

/** Give a bare number the unit that is expected of it, or refuse what does not fit. */
function fitTo(expression: Expression, expected: FormulaType, text: string): Expression {
	const { type } = expression;
	if (sameType(type, expected)) return expression;
	const bare = type.is === 'number' && sameDimension(type.dimension, PLAIN);
	if (bare && expected.is === 'number' && namesNothing(expression)) {
		const isAngle = sameDimension(expected.dimension, ANGLE);
		return scaled(expression, isAngle ? Math.PI / 180 : 1, expected);
	}
	throw new FormulaError(`"${text}" is ${typeInWords(type)}; ${typeInWords(expected)} is wanted`);
}

function namesNothing(expression: Expression): boolean {
	if (expression.kind === 'constant') return true;
	return expression.kind === 'arithmetic' && expression.args.every(namesNothing);
}

function scaled(expression: Expression, factor: number, type: FormulaType): Expression {
	const constant: Expression = { kind: 'constant', value: factor, type };
	return { kind: 'arithmetic', op: 'multiply', args: [expression, constant], type };
}

/** `cell.area`: a name with what it is of before it. */
function dotted({ object, index }: LooseNode): string {
	const [of] = index?.dimensions ?? [];
	return object?.type === 'SymbolNode' && index?.dotNotation ? `${object.name}.${String(of?.value)}` : '';
}

/**
 * Names without those that only tell of what kind of site they are (`cell.area` beside `area`).
 *
 * ```ts
 * shortNames(['area', 'cell.area']); // area
 * ```
 */
export const shortNames = (names: readonly string[]): string[] =>
	names.filter((name) => !/^[a-z]+\.[a-z0-9_]+$/.test(name) || /^(distance|picture|table)\./.test(name));

class Checker {
	private readonly results: ResultTypes;

	constructor(
		private readonly scope: FormulaScope,
		private readonly text: string
	) {
		this.results = new ResultTypes(text);
	}

	check(node: LooseNode): Expression {
		switch (node.type) {
			case 'ConstantNode':
				return this.constant(node);
			case 'SymbolNode':
				return this.symbol(node.name ?? '');
			case 'AccessorNode':
				return this.symbol(
					dotted(node) || this.refuse(`"${this.text}" uses something a formula may not contain`)
				);
			case 'ParenthesisNode':
				return this.check(node.content as LooseNode);
			case 'OperatorNode':
				return this.operator(node);
			case 'FunctionNode':
				return this.call(node);
			case 'ConditionalNode':
				return this.conditional(node);
			default:
				return this.refuse(`"${this.text}" uses something a formula may not contain`);
		}
	}

	private refuse(sentence: string): never {
		throw new FormulaError(sentence);
	}

	private constant(node: LooseNode): Expression {
		if (typeof node.value === 'boolean') return { kind: 'constant', value: node.value ? 1 : 0, type: SWITCH };
		if (typeof node.value !== 'number' || !Number.isFinite(node.value))
			this.refuse(`"${this.text}" holds a value that is not a number`);
		return { kind: 'constant', value: node.value, type: numberOf(PLAIN) };
	}

	private symbol(name: string): Expression {
		const type = Object.hasOwn(this.scope.names, name) ? this.scope.names[name] : undefined;
		if (type) return { kind: 'name', name, type };
		if (name === 'true' || name === 'false')
			return { kind: 'constant', value: name === 'true' ? 1 : 0, type: SWITCH };
		if (name === 'pi') return { kind: 'constant', value: Math.PI, type: numberOf(PLAIN) };
		if (Object.hasOwn(units, name)) {
			const unit = units[name]!;
			return { kind: 'constant', value: unit.factor, type: numberOf(unit.dimension) };
		}
		const known = shortNames(Object.keys(this.scope.names));
		const accepted = known.length ? `known here: ${known.join(', ')}` : 'no names are known here';
		return this.refuse(`"${name}" in "${this.text}" is not known; ${accepted}`);
	}

	private operator(node: LooseNode): Expression {
		const name = typeof node.fn === 'string' ? node.fn : '';
		if (name === 'unaryPlus') return this.check(node.args![0]!);
		const op = Object.hasOwn(operators, name) ? operators[name] : undefined;
		if (!op) this.refuse(`"${this.text}" uses an operation that formulas do not have`);
		const args = node.args!.map((arg) => this.check(arg));
		if (swapped.has(name)) args.reverse();
		const result = this.arithmetic(op, args);
		return name === 'unequal' ? this.arithmetic('not', [result]) : result;
	}

	private call(node: LooseNode): Expression {
		const name = typeof node.fn === 'string' ? node.fn : (node.fn?.name ?? '');
		const args = (node.args ?? []).map((arg) => this.check(arg));
		if (Object.hasOwn(functionArity, name)) {
			const [least, most] = functionArity[name]!;
			if (args.length < least || args.length > most)
				this.refuse(
					`${name}() in "${this.text}" takes ${least === most ? least : `${least} to ${most}`} values`
				);
			if (name === 'clamp')
				return this.arithmetic('min', [this.arithmetic('max', [args[0]!, args[1]!]), args[2]!]);
			if (name === 'mod') {
				// What is left of a when whole b are taken away; of a negative a too it lies between 0 and b.
				const [a, b] = args as [Expression, Expression];
				const whole = this.arithmetic('floor', [this.arithmetic('divide', [a, b])]);
				return this.arithmetic('subtract', [a, this.arithmetic('multiply', [b, whole])]);
			}
			if (name === 'min' || name === 'max') return args.reduce((a, b) => this.arithmetic(name, [a, b]));
			return this.arithmetic(name as Arithmetic, args);
		}
		const geometry = Object.hasOwn(this.scope.functions, name) ? this.scope.functions[name] : undefined;
		if (!geometry) {
			const known = [...Object.keys(functionArity), ...Object.keys(this.scope.functions)];
			return this.refuse(`${name}() in "${this.text}" is not known; known: ${known.join(', ')}`);
		}
		const type = geometry.result(args.map((arg) => arg.type));
		if (!type)
			return this.refuse(
				`${name}() in "${this.text}" takes ${geometry.takes}, not ${args.map((arg) => typeInWords(arg.type)).join(', ')}`
			);
		return { kind: 'geometry', call: name, args, type };
	}

	private conditional(node: LooseNode): Expression {
		return this.arithmetic('choose', [
			this.check(node.condition!),
			this.check(node.trueExpr!),
			this.check(node.falseExpr!)
		]);
	}

	private arithmetic(op: Arithmetic, args: Expression[]): Expression {
		return { kind: 'arithmetic', op, args, type: this.results.of(op, args) };
	}
}
