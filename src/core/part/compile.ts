import type { ElementDefinition, Group, Limit, PartDefinition, Step } from '../project/part-definition';
import { dimensionOf, type NumberKind } from '../units/dimension';
import { FormulaError, checkFormula, numberOf, type Expression, type FormulaType } from '../units/formula';
import { givenNames } from './anchors';
import { DomainBuilder, FlagList, type Register } from './builder';
import type { Program } from './program';
import { Scope, StepFault } from './scope';
import { makeStep } from './steps';
import { Vectors, geometryFunctions, numberValue, typeOf, type Value } from './values';

/** A part that cannot be used: each fault names its step and what would be accepted. */
export class PartError extends Error {
	constructor(readonly faults: readonly { readonly step: string; readonly text: string }[]) {
		super(faults.map(({ step, text }) => `${step}: ${text}`).join('\n'));
	}
}

const typeOfKind = (kind: NumberKind): FormulaType =>
	kind === 'switch' ? { is: 'switch' } : numberOf(dimensionOf(kind));

/** What each declared name refers to, for telling a cycle from a wrong order. */
function references(definition: PartDefinition): Map<string, Set<string>> {
	const words = (value: unknown): string[] =>
		typeof value === 'string'
			? (value.match(/[a-z][a-z0-9_]*/g) ?? [])
			: typeof value === 'object' && value !== null
				? Object.entries(value).flatMap(([key, inner]) =>
						['name', 'do', 'note', 'label', 'says'].includes(key) ? [] : words(inner)
					)
				: [];
	return new Map(definition.steps.map((step) => [step.name, new Set(words(step))]));
}

class Compiler {
	private readonly later: Map<string, Set<string>>;
	private readonly elements: ElementDefinition[];
	private readonly faults: { step: string; text: string }[] = [];

	constructor(
		private readonly definition: PartDefinition,
		private readonly corners: number
	) {
		this.later = references(definition);
		this.elements = elementsOf(definition);
	}

	compile(): Program {
		const { definition } = this;
		const builder = new DomainBuilder(new FlagList());
		const scope = new Scope(builder, null);
		for (const [name, value] of givenNames(builder, definition.anchor, this.corners)) scope.set(name, value);
		const inputs = definition.inputs.filter((input) => input.kind !== 'material');
		for (const { name, kind } of inputs)
			this.at(`input ${name}`, () => {
				this.declare(scope, name);
				scope.set(name, numberValue(builder.column(`input.${name}`), kind as NumberKind));
			});
		for (const { name, label } of inputs)
			this.at(`input ${name}`, () => scope.set(name, this.limited(scope, name, scope.get(name)!, label)));
		for (const step of definition.steps) this.stepOrGroup(scope, step);
		for (const element of definition.elements) this.element(scope, element);
		for (const measure of definition.measures)
			this.at(`measure ${measure.name}`, () => {
				const register = this.formula(scope, measure.value, typeOfKind(measure.kind));
				builder.result(measure.name, register);
			});
		for (const limit of definition.limits)
			if (!scope.peek(limit.of))
				this.faults.push({
					step: `limit of ${limit.of}`,
					text: `"${limit.of}" is not an input or a number of this part`
				});
		if (this.faults.length) throw new PartError(this.faults);
		return builder.finish();
	}

	private at(step: string, act: () => void): void {
		try {
			act();
		} catch (error) {
			if (!(error instanceof StepFault || error instanceof FormulaError)) throw error;
			this.faults.push({ step, text: error.message });
		}
	}

	private declare(scope: Scope, name: string): void {
		if (scope.peek(name)) throw new StepFault(`the name "${name}" is used already; names are used once`);
	}

	/** Why a name is not there: it comes later, goes round in a cycle, or does not exist. */
	private missing(scope: Scope, name: string, user: string): never {
		if (this.later.has(name)) {
			const round = this.chain(name, user);
			throw new StepFault(
				round
					? `a cycle: ${[user, ...round].join(' → ')}; a step can only use what is above it`
					: `"${name}" comes later; move it above this step`
			);
		}
		throw new StepFault(`"${name}" is not known; known here: ${scope.names().join(', ')}`);
	}

	/** A way along references from one step to another. */
	private chain(from: string, to: string, seen = new Set<string>()): string[] | null {
		if (from === to) return [from];
		if (seen.has(from)) return null;
		seen.add(from);
		for (const next of this.later.get(from) ?? []) {
			const rest = this.later.has(next) ? this.chain(next, to, seen) : null;
			if (rest) return [from, ...rest];
		}
		return null;
	}

	private currentStep = '';

	private lookup<Is extends Value['is']>(
		scope: Scope,
		name: string,
		...wanted: Is[]
	): Extract<Value, { is: Is }> {
		const value = scope.get(name);
		if (!value) this.missing(scope, name, this.currentStep);
		if (!(wanted as string[]).includes(value.is))
			throw new StepFault(`"${name}" is a ${value.is}; a ${wanted.join(' or ')} is wanted`);
		return value as Extract<Value, { is: Is }>;
	}

	/** A checked formula; its type is what it comes to when none is expected. */
	private expression(scope: Scope, text: string, expected?: FormulaType): Expression {
		for (const [word] of text.matchAll(/[a-z][a-z0-9_]*/g))
			if (!scope.peek(word) && this.later.has(word)) this.missing(scope, word, this.currentStep);
		return checkFormula(text, {
			names: namesOf(scope),
			functions: geometryFunctions,
			...(expected && { expected })
		});
	}

	private formula(scope: Scope, text: string, expected: FormulaType): Register {
		return lower(this.expression(scope, text, expected), scope);
	}

	private number(scope: Scope, text: string, kind: NumberKind): Register {
		return this.formula(scope, text, typeOfKind(kind));
	}

	/** Apply the limits on a name: hold the value at the bound, or only flag it. */
	private limited(scope: Scope, name: string, value: Value, label: string): Value {
		if (value.is !== 'number') return value;
		const b = scope.builder;
		let { register } = value;
		for (const limit of this.definition.limits.filter((one: Limit) => one.of === name))
			for (const [bound, op] of [
				[limit.at_least, 'max'],
				[limit.at_most, 'min']
			] as const) {
				if (bound === undefined) continue;
				const at = this.formula(scope, bound, value.type);
				const [less, more] = op === 'max' ? [register, at] : [at, register];
				const broken = b.apply('less', less, more);
				const held = limit.then === 'hold';
				b.flag(broken, held ? 'held' : 'flagged', `${label}: ${limit.says}`);
				if (held) register = b.apply(op, register, at);
			}
		return { ...value, register };
	}

	private stepOrGroup(scope: Scope, step: Step | Group): void {
		this.currentStep = step.name;
		this.at(`step ${step.name}`, () => {
			this.declare(scope, step.name);
			if (step.do === 'repeat') this.group(scope, step);
			else scope.set(step.name, this.limited(scope, step.name, this.made(scope, step), step.name));
		});
	}

	private made(scope: Scope, step: Step): Value {
		return makeStep(step, {
			v: new Vectors(scope.builder),
			lookup: (name, ...wanted) => this.lookup(scope, name, ...wanted),
			number: (text, kind) => this.number(scope, text, kind),
			anyNumber: (text) => {
				const expression = this.expression(scope, text);
				return { is: 'number', register: lower(expression, scope), type: expression.type };
			}
		});
	}

	private group(scope: Scope, group: Group): void {
		const b = scope.builder;
		let times = group.times ? this.number(scope, group.times, 'count') : b.constant(1);
		if (group.when)
			times = b.apply('choose', this.formula(scope, group.when, { is: 'switch' }), times, b.constant(0));
		if (!group.times && !group.when) throw new StepFault('a repeated group needs "times" or "when"');
		const inner = new Scope(b.group(times), scope);
		inner.set(group.index ?? 'turn', numberValue(inner.builder.index(), 'count'));
		for (const step of group.steps) this.stepOrGroup(inner, step);
		for (const element of group.elements) this.element(inner, element);
	}

	private element(scope: Scope, element: ElementDefinition): void {
		this.currentStep = element.name;
		this.at(`element ${element.name}`, () => {
			const b = scope.builder;
			const solids = element.of.flatMap((name) => this.lookup(scope, name, 'solid').solids);
			b.element({
				element: this.elements.indexOf(element),
				solids,
				volume: b.sum(solids.map((solid) => solid.volume)),
				area: b.sum(solids.map((solid) => solid.area)),
				length: b.sum(solids.map((solid) => solid.length))
			});
		});
	}
}

/** The types of all names that are visible. */
function namesOf(scope: Scope): Record<string, FormulaType> {
	return Object.fromEntries(scope.names().map((name) => [name, typeOf(scope.peek(name)!)]));
}

/** Lower a checked formula to operations. */
function lower(expression: Expression, scope: Scope): Register {
	const b = scope.builder;
	switch (expression.kind) {
		case 'constant':
			return b.constant(expression.value);
		case 'name': {
			const value = scope.get(expression.name)!;
			if (value.is !== 'number') throw new StepFault(`"${expression.name}" is a ${value.is}, not a number`);
			return value.register;
		}
		case 'arithmetic': {
			const [a, b2, c] = expression.args.map((arg) => lower(arg, scope));
			return b.apply(expression.op, a!, b2, c);
		}
		case 'geometry': {
			const args = expression.args.map((arg): Value => {
				if (arg.kind === 'name') return scope.get(arg.name)!;
				return { is: 'number', register: lower(arg, scope), type: arg.type };
			});
			return geometryFunctions[expression.call]!.lower(new Vectors(b), args);
		}
	}
}

/** All elements of a part, those of its groups included, in the order written. */
export function elementsOf(definition: PartDefinition): ElementDefinition[] {
	const inGroups = definition.steps.flatMap((step) => (step.do === 'repeat' ? step.elements : []));
	return [...inGroups, ...definition.elements];
}

/**
 * Check a part and lower it for anchors of a given number of corners (2 for a pair).
 * @throws PartError with every fault found
 */
export function compilePart(definition: PartDefinition, corners: number): Program {
	return new Compiler(definition, corners).compile();
}

/**
 * Formulas over the names an anchor gives, as a program whose results carry the formulas' names.
 * @throws FormulaError
 */
export function compileFormulas(
	formulas: readonly { readonly name: string; readonly text: string; readonly kind: NumberKind }[],
	anchor: PartDefinition['anchor'],
	corners: number
): Program {
	const builder = new DomainBuilder(new FlagList());
	const scope = new Scope(builder, null);
	for (const [name, value] of givenNames(builder, anchor, corners)) scope.set(name, value);
	for (const { name, text, kind } of formulas) {
		const names = namesOf(scope);
		const expression = checkFormula(text, {
			names,
			functions: geometryFunctions,
			expected: typeOfKind(kind)
		});
		builder.result(name, lower(expression, scope));
	}
	return builder.finish();
}
