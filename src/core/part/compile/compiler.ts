import type {
	AnyStep,
	ElementDefinition,
	PartDefinition,
	PartInput,
	PartStep,
	Step
} from '../../project/part-definition';
import type { NumberKind } from '../../units/dimension';
import { shortNames } from '../../units/formula/check';
import { FormulaError, type FormulaType } from '../../units/formula/expression';
import { partFields } from '../anchors';
import type { Register } from '../builder';
import { inputKind, kindOfType, typeOfKind } from '../inputs';
import { makeStep } from '../steps';
import { Vectors, numberValue, type Value, type ValueOf } from '../values';
import { lowerElement } from './element';
import type { ElementList } from './elements';
import { Follows, StepFault } from './fault';
import { lowerAlong, lowerCases, lowerEach, lowerRepeat } from './groups';
import { lower, readFormula } from './lower';
import type { Group, Lowering, Watcher } from './lowering';
import { declaredNames, references, wayAlong, type References } from './references';
import type { Scope } from './scope';
import { lowerPart } from './sub-part';

/** What the compilers of a part and of its sub-parts share. */
export interface Shared {
	readonly library: readonly PartDefinition[];
	readonly faults: { step: string; text: string }[];
	/** How many of each element have been made. */
	readonly made: Map<number, number>;
	/** Who looks on while the outermost part's steps are made. */
	readonly watcher: Watcher | null;
}

/** A name in a formula, without those told by the kind of their site (`cell.area`). */
const WORD = /(?<![.\w])[a-z][a-z0-9_]*(?!\.)/g;

/** Lowers a part's inputs, steps, elements, measures and limits into one program. */
export class Compiler implements Lowering {
	private readonly later: References;
	private readonly muted: ReadonlySet<string>;
	private currentStep = '';
	/** Names of steps that could not be made. */
	private readonly failed = new Set<string>();
	/** What elements are made of, and which element it is. */
	private readonly ordered = new Map<Value, string>();
	/** Names that groups give to their steps; a group within another gives them anew. */
	private readonly turnNames = new Set<string>();

	constructor(
		readonly definition: PartDefinition,
		private readonly elements: ElementList,
		private readonly shared: Shared,
		/** Names of the sub-parts around, for faults and flags. */
		private readonly within: string,
		readonly around: readonly string[]
	) {
		this.later = references(definition);
		this.muted = new Set(definition.steps.filter(({ muted }) => muted).map(({ name }) => name));
	}

	get library(): readonly PartDefinition[] {
		return this.shared.library;
	}

	/**
	 * Lower the whole part into a scope that holds what its anchor gives.
	 * @param given the register of an input's value
	 * @returns the measures by name
	 */
	lower(
		scope: Scope,
		given: (input: PartInput, kind: NumberKind) => Register
	): Map<string, ValueOf<'number'>> {
		const { definition } = this;
		const declared = declaredNames(definition);
		// A field whose name the part has itself is told by the kind of its site.
		for (const { name } of partFields(definition.anchor)) if (declared.has(name)) scope.hide(name);
		const inputs = definition.inputs.flatMap((input) => {
			const kind = inputKind(input);
			return kind ? [{ input, kind }] : [];
		});
		for (const { input, kind } of inputs)
			this.at(`input ${input.name}`, () => {
				this.declare(scope, input.name);
				scope.set(input.name, numberValue(given(input, kind), kind));
				input.options?.forEach(({ name }, k) => {
					const known = scope.peek(name);
					if (!known) scope.set(name, numberValue(scope.builder.constant(k + 1), 'count'));
					else if (known.is !== 'number' || known.register !== scope.builder.constant(k + 1))
						throw new StepFault(`the choice "${name}" has a name that is used already`);
				});
			});
		for (const { input } of inputs)
			this.at(`input ${input.name}`, () =>
				scope.set(input.name, this.limited(scope, input.name, scope.get(input.name)!, input.label))
			);
		this.group(scope, definition);
		const measures = new Map<string, ValueOf<'number'>>();
		for (const { name, label, kind, value } of definition.measures)
			this.at(`measure ${name}`, () => {
				const type = typeOfKind(kind);
				const register = this.formula(scope, value, type);
				const measure: ValueOf<'number'> = { is: 'number', register, type };
				measures.set(name, measure);
				// What a piece reports is what it is: a limit can only tell.
				if (declared.has(name)) return;
				this.limited(scope, name, measure, label);
				if (definition.limits.some(({ of, then }) => of === name && then === 'hold'))
					throw new StepFault('what is measured cannot be held; let its limit flag it');
			});
		for (const limit of definition.limits)
			if (!declared.has(limit.of) && !measures.has(limit.of))
				this.fault(
					`limit of ${limit.of}`,
					`"${limit.of}" is not an input, a number or a measure of this part`
				);
		return measures;
	}

	/** The same fault of steps made many times is told once. */
	private fault(step: string, text: string): void {
		const { faults } = this.shared;
		const where = this.named(step);
		if (!faults.some((one) => one.step === where && one.text === text)) faults.push({ step: where, text });
	}

	/** @returns whether it could be done */
	private at(step: string, act: () => void): boolean {
		try {
			act();
			return true;
		} catch (error) {
			if (!(error instanceof StepFault || error instanceof FormulaError)) throw error;
			if (!(error instanceof Follows)) this.fault(step, error.message);
			return false;
		}
	}

	declare(scope: Scope, name: string): void {
		if (scope.peek(name)) throw new StepFault(`the name "${name}" is used already; names are used once`);
	}

	/** Why a name is not there: it failed, comes later, goes round in a cycle, or does not exist. */
	private missing(scope: Scope, name: string, user: string): never {
		if (this.failed.has(name)) throw new Follows();
		if (this.muted.has(name)) throw new StepFault(`"${name}" is muted; unmute it, or use another value here`);
		if (this.later.has(name)) {
			const round = wayAlong(this.later, name, user);
			throw new StepFault(
				round
					? `a cycle: ${[user, ...round].join(' → ')}; a step can only use what is above it`
					: `"${name}" comes later; move it above this step`
			);
		}
		throw new StepFault(`"${name}" is not known; known here: ${shortNames(scope.names()).join(', ')}`);
	}

	lookup<Is extends Value['is']>(scope: Scope, name: string, ...wanted: Is[]): ValueOf<Is> {
		const value = scope.get(name);
		if (!value) this.missing(scope, name, this.currentStep);
		if (!(wanted as string[]).includes(value.is))
			throw new StepFault(`"${name}" is a ${value.is}; a ${wanted.join(' or ')} is wanted`);
		return value as ValueOf<Is>;
	}

	/** A formula, of whatever type it comes to when none is expected. */
	anyFormula(scope: Scope, text: string, expected?: FormulaType): ValueOf<'number'> {
		for (const [word] of text.matchAll(WORD))
			if (!scope.peek(word) && (this.later.has(word) || this.failed.has(word)))
				this.missing(scope, word, this.currentStep);
		const expression = readFormula(scope, text, expected);
		return { is: 'number', register: lower(expression, scope), type: expression.type };
	}

	formula(scope: Scope, text: string, expected: FormulaType): Register {
		return this.anyFormula(scope, text, expected).register;
	}

	number(scope: Scope, text: string, kind: NumberKind): Register {
		return this.formula(scope, text, typeOfKind(kind));
	}

	/** Apply the limits on a name: hold the value at the bound, or only flag it. */
	private limited(scope: Scope, name: string, value: Value, label: string): Value {
		if (value.is !== 'number') return value;
		const b = scope.builder;
		let { register } = value;
		for (const limit of this.definition.limits.filter((one) => one.of === name))
			for (const [bound, op] of [
				[limit.at_least, 'max'],
				[limit.at_most, 'min']
			] as const) {
				if (bound === undefined) continue;
				const at = this.formula(scope, bound, value.type);
				const [less, more] = op === 'max' ? [register, at] : [at, register];
				const held = limit.then === 'hold';
				b.flagBeyond(
					b.apply('less', less, more),
					{
						code: 'part.limit',
						level: held ? 'held' : 'flagged',
						subject: label,
						says: `${label}: ${limit.says}`
					},
					{ kind: kindOfType(value.type), value: register, bound: at }
				);
				if (held) register = b.apply(op, register, at);
			}
		return { ...value, register };
	}

	/** Steps in their order, then the elements made of them. */
	group(scope: Scope, { steps, elements }: Group): void {
		for (const step of steps) {
			if (!this.within) this.shared.watcher?.before(step, scope);
			if (step.muted) continue;
			this.currentStep = step.name;
			const made = this.at(`step ${step.name}`, () => {
				this.declare(scope, step.name);
				this.step(scope, step);
			});
			if (!made) this.failed.add(step.name);
		}
		for (const element of elements) {
			this.currentStep = element.name;
			this.at(`element ${element.name}`, () => lowerElement(this, scope, element));
		}
	}

	private step(scope: Scope, step: AnyStep): void {
		switch (step.do) {
			case 'repeat':
				return lowerRepeat(this, scope, step);
			case 'along':
				return lowerAlong(this, scope, step);
			case 'cases':
				return lowerCases(this, scope, step);
			case 'each':
				return lowerEach(this, scope, step);
			case 'part':
				return lowerPart(this, scope, step);
			default: {
				const value = this.limited(scope, step.name, this.made(scope, step), step.name);
				scope.set(step.name, value);
				if (!this.within) this.shared.watcher?.after(step, scope, value);
			}
		}
	}

	private made(scope: Scope, step: Step): Value {
		return makeStep(step, {
			v: new Vectors(scope.builder),
			lookup: (name, ...wanted) => this.lookup(scope, name, ...wanted),
			number: (text, kind) => this.number(scope, text, kind),
			anyNumber: (text) => this.anyFormula(scope, text),
			anchor: this.within ? null : this.definition.anchor,
			condition: (text) => this.formula(scope, text, { is: 'switch' })
		});
	}

	setTurnName(scope: Scope, name: string, value: Value): void {
		if (scope.peek(name) && !this.turnNames.has(name))
			throw new StepFault(
				`"${name}" is what the steps within know their turn by; give the other "${name}" another name`
			);
		this.turnNames.add(name);
		scope.set(name, value);
	}

	partWithin(step: PartStep, part: PartDefinition): Compiler {
		const elements = this.elements.within.get(step)!;
		return new Compiler(part, elements, this.shared, this.named(step.name), [
			...this.around,
			this.definition.id
		]);
	}

	order(value: Value, element: ElementDefinition): string | undefined {
		const other = this.ordered.get(value);
		if (!other) this.ordered.set(value, element.name);
		return other;
	}

	indexOf(element: ElementDefinition): number {
		return this.elements.own.get(element)!;
	}

	nextTurn(index: number): number {
		const before = this.shared.made.get(index) ?? 0;
		this.shared.made.set(index, before + 1);
		return before;
	}

	/** A step's name, with those of the sub-parts around it. */
	named(step: string): string {
		return this.within ? `${this.within}, ${step}` : step;
	}
}
