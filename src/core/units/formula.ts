import { create, parseDependencies, type FactoryFunctionMap, type MathNode } from 'mathjs/number';
import {
	ANGLE,
	PLAIN,
	combine,
	dimensionInWords,
	power,
	sameDimension,
	units,
	type Dimension
} from './dimension';
import { overSize } from './formula-size';
import { CodedError } from './coded-error';

/**
 * Plain arithmetic with units, comparisons and conditions, written by people.
 *
 * mathjs only parses; what it returns is checked against the short list of nodes and names below and
 * becomes an `Expression` that carries its dimension. Nothing is ever evaluated as code.
 *
 * ```ts
 * const half = checkFormula('(span - 200 mm) / 2', { names: { span: LENGTH }, functions: {} });
 * ```
 */
const { parse } = create(parseDependencies as FactoryFunctionMap);

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

/** A formula that cannot be used: a sentence saying what is wrong and what would be accepted. */
export class FormulaError extends CodedError {
	readonly code = 'formula';
}

export const numberOf = (dimension: Dimension): FormulaType => ({ is: 'number', dimension });
const SWITCH: FormulaType = { is: 'switch' };

function typeInWords(type: FormulaType): string {
	if (type.is === 'number') return dimensionInWords(type.dimension);
	return type.is === 'switch' ? 'a yes-or-no' : `a ${type.of}`;
}

function sameType(a: FormulaType, b: FormulaType): boolean {
	if (a.is === 'number' && b.is === 'number') return sameDimension(a.dimension, b.dimension);
	if (a.is === 'geometry' && b.is === 'geometry') return a.of === b.of;
	return a.is === b.is;
}

/** "1 500 mm" → "1500 mm", "5 ft 3 1/2 in" → "(5 ft + (3 + 1/2) in)". */
export function normaliseQuantityText(text: string): string {
	return (
		text
			.replace(/(\d)[\u00a0\u202f ](?=\d{3}(?!\d))/g, '$1')
			.replace(/(\d+)\s+(\d+)\/(\d+)\s*in\b/g, '($1 + $2/$3) in')
			.replace(/(\d+(?:\.\d+)?)\s*ft\s*(\(?[\d.][^a-z]*)\s*in\b/g, '($1 ft + $2 in)')
			// The parser takes "in" for a conversion.
			.replace(/\bin\b/g, 'inch')
			.replace(/°/g, ' deg')
			.replace(/−/g, '-')
	);
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
 * @throws FormulaError with a sentence when it cannot be read, names something unknown or mixes units.
 */
export function checkFormula(text: string, scope: FormulaScope): Expression {
	const tooMuch = overSize(text);
	if (tooMuch) throw new FormulaError(tooMuch);
	let node: MathNode;
	try {
		node = parse(normaliseQuantityText(text));
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

/** Names without those that only tell of what kind of site they are (`cell.area` beside `area`). */
export const shortNames = (names: readonly string[]): string[] =>
	names.filter((name) => !/^[a-z]+\.[a-z0-9_]+$/.test(name) || name.startsWith('distance.'));

class Checker {
	constructor(
		private readonly scope: FormulaScope,
		private readonly text: string
	) {}

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

	private arithmetic(op: Arithmetic, args: Expression[]): Expression {
		return { kind: 'arithmetic', op, args, type: this.resultOf(op, args) };
	}

	private resultOf(op: Arithmetic, args: Expression[]): FormulaType {
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
}

/** The scalar meaning of every arithmetic operation; the columns of a part use the same table. */
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
