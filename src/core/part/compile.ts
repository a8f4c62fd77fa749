import { significant } from '../units/quantity';
import type {
	Along,
	AnyStep,
	Cases,
	Each,
	ElementDefinition,
	PartDefinition,
	PartInput,
	PartStep,
	Repeat,
	Step
} from '../project/part-definition';
import { inDegrees } from '../units/scale';
import { fieldsOver } from '../field/fields';
import type { NumberKind } from '../units/dimension';
import { FormulaError, shortNames, type FormulaType } from '../units/formula';
import { columnSource, givenNames, partFields, siteOf } from './anchors';
import { DomainBuilder, FlagList, MOST_TURNS, type PointRegisters, type Register } from './builder';
import { limitsOf, rangesOf } from './case-ranges';
import { listElements, type ElementList } from './elements';
import { Follows, PartError, PartTooLarge, StepFault } from './fault';
import { declaredNames, references, wayAlong, type References } from './references';
import { inputKind, kernelValue, kindOfType, typeOfKind } from './inputs';
import { lower, readFormula } from './lower';
import type { Program } from './program';
import { Scope } from './scope';
import { subAnchor } from './sub-anchor';
import { sheetMesh } from './solids';
import { makeStep } from './steps';
import { refuseNothing } from './steps/context';
import type { Stock } from './stock';
import { pieceNames, turnsOf } from './turns';
import { Vectors, numberValue, type Solid, type Value, type ValueOf } from './values';

/** A name in a formula, without those told by the kind of their site (`cell.area`). */
const WORD = /(?<![.\w])[a-z][a-z0-9_]*(?!\.)/g;

/** A length that is off a whole number of pieces by less than this share of one has that number. */
const ALMOST = 1e-6;

/** What the compilers of a part and of its sub-parts share. */
interface Shared {
	readonly library: readonly PartDefinition[];
	readonly faults: { step: string; text: string }[];
	/** How many of each element have been made. */
	readonly made: Map<number, number>;
	/** Who looks on while the outermost part's steps are made. */
	readonly watcher: Watcher | null;
}

/** Looks on while a part is lowered, to show its steps. */
export interface Watcher {
	/** Before a step is made: what it can see. */
	before(step: AnyStep, scope: Scope): void;
	/** After one has been made. */
	after(step: AnyStep, scope: Scope, value: Value): void;
}

class Compiler {
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
		private readonly definition: PartDefinition,
		private readonly elements: ElementList,
		private readonly shared: Shared,
		/** Names of the sub-parts around, for faults and flags. */
		private readonly within: string,
		private readonly around: readonly string[]
	) {
		this.later = references(definition);
		this.muted = new Set(definition.steps.filter(({ muted }) => muted).map(({ name }) => name));
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

	private declare(scope: Scope, name: string): void {
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

	private lookup<Is extends Value['is']>(scope: Scope, name: string, ...wanted: Is[]): ValueOf<Is> {
		const value = scope.get(name);
		if (!value) this.missing(scope, name, this.currentStep);
		if (!(wanted as string[]).includes(value.is))
			throw new StepFault(`"${name}" is a ${value.is}; a ${wanted.join(' or ')} is wanted`);
		return value as ValueOf<Is>;
	}

	/** A formula, of whatever type it comes to when none is expected. */
	private anyFormula(scope: Scope, text: string, expected?: FormulaType): ValueOf<'number'> {
		for (const [word] of text.matchAll(WORD))
			if (!scope.peek(word) && (this.later.has(word) || this.failed.has(word)))
				this.missing(scope, word, this.currentStep);
		const expression = readFormula(scope, text, expected);
		return { is: 'number', register: lower(expression, scope), type: expression.type };
	}

	private formula(scope: Scope, text: string, expected: FormulaType): Register {
		return this.anyFormula(scope, text, expected).register;
	}

	private number(scope: Scope, text: string, kind: NumberKind): Register {
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
	private group(
		scope: Scope,
		{
			steps,
			elements
		}: { readonly steps: readonly AnyStep[]; readonly elements: readonly ElementDefinition[] }
	): void {
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
		for (const element of elements) this.element(scope, element);
	}

	private step(scope: Scope, step: AnyStep): void {
		switch (step.do) {
			case 'repeat':
				return this.repeat(scope, step);
			case 'along':
				return this.along(scope, step);
			case 'cases':
				return this.cases(scope, step);
			case 'each':
				return this.each(scope, step);
			case 'part':
				return this.part(scope, step);
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
			condition: (text) => this.formula(scope, text, { is: 'switch' })
		});
	}

	private repeat(scope: Scope, step: Repeat): void {
		const b = scope.builder;
		let times = step.times ? this.number(scope, step.times, 'count') : b.constant(1);
		if (step.when)
			times = b.apply('choose', this.formula(scope, step.when, { is: 'switch' }), times, b.constant(0));
		if (!step.times && !step.when) throw new StepFault('a repeat needs "times" or "when"');
		const inner = new Scope(b.group(times), scope, true);
		const index = step.index ?? 'turn';
		this.setTurnName(inner, index, numberValue(inner.builder.index(), 'count'));
		this.group(inner, step);
	}

	/** As many turns as pieces fit; `<name>_count` tells how many afterwards. */
	private along(scope: Scope, step: Along): void {
		const b = scope.builder;
		const v = new Vectors(b);
		const path = this.lookup(scope, step.path, 'path');
		const spacing = this.number(scope, step.spacing, 'length');
		refuseNothing(b, spacing, `the spacing of ${this.named(step.name)} is nothing or less`);
		const fit = b.divide(v.pathLength(path.points), spacing);
		const even = step.spaced === 'at most';
		const times = even
			? b.apply('max', b.apply('ceil', b.subtract(fit, b.constant(ALMOST))), b.constant(1))
			: b.apply('floor', b.add(fit, b.constant(ALMOST)));
		const inner = new Scope(b.group(times), scope, true);
		const within = inner.builder;
		const turn = within.index();
		const size = even ? b.divide(v.pathLength(path.points), times) : spacing;
		const from = within.multiply(turn, within.import(size));
		const { points } = this.lookup(inner, step.path, 'path');
		for (const [name, value] of pieceNames(new Vectors(within), points, from, within.import(size), turn))
			this.setTurnName(inner, name, value);
		this.group(inner, step);
		scope.set(`${step.name}_count`, numberValue(times, 'count'));
	}

	private setTurnName(scope: Scope, name: string, value: Value): void {
		if (scope.peek(name) && !this.turnNames.has(name))
			throw new StepFault(
				`"${name}" is what the steps within know their turn by; give the other "${name}" another name`
			);
		this.turnNames.add(name);
		scope.set(name, value);
	}

	private cases(scope: Scope, step: Cases): void {
		const b = scope.builder;
		const { register, type } = this.anyFormula(scope, step.of);
		const input = this.definition.inputs.find(({ name }) => name === step.of);
		const told = input?.kind === 'angle' ? inDegrees : (value: number) => value;
		const shown = (value: number) => significant(told(value), 6);
		const ranges = rangesOf(step.cases, type, limitsOf(input), shown);
		ranges.forEach(({ from, below }, k) => {
			let inside = b.constant(1);
			if (from > -Infinity) inside = b.apply('lessOrEqual', b.constant(from), register);
			if (below < Infinity) {
				const under = b.apply('less', register, b.constant(below));
				inside = from > -Infinity ? b.apply('and', inside, under) : under;
			}
			this.group(new Scope(b.group(inside), scope), step.cases[k]!);
		});
	}

	private each(scope: Scope, step: Each): void {
		const v = new Vectors(scope.builder);
		const of = this.lookup(scope, step.of, 'ring', 'path');
		const gathered = step.gathers.map(() => [] as (readonly PointRegisters[])[]);
		for (const names of turnsOf(v, step, of)) {
			const inner = new Scope(scope.builder, scope);
			for (const [name, value] of names) this.setTurnName(inner, name, value);
			this.group(inner, step);
			step.gathers.forEach((gather, k) => {
				// A step that could not be made has been told of already.
				if (!inner.peek(gather.of) && step.steps.some(({ name }) => name === gather.of)) return;
				if (gather.as === 'rings') gathered[k]!.push(this.lookup(inner, gather.of, 'ring').points);
				else gathered[k]!.push([this.lookup(inner, gather.of, 'point').at]);
			});
		}
		step.gathers.forEach(({ name, as }, k) => {
			this.declare(scope, name);
			const found = gathered[k]!;
			// Nothing is gathered of a step that could not be made, which has been told of.
			if (found.length === 0) return;
			if (as === 'rings') {
				scope.set(name, { is: 'rings', rings: found });
				return;
			}
			const points = found.flat();
			const least = as === 'ring' ? 3 : 2;
			if (points.length < least)
				throw new StepFault(`"${name}" would be a ${as} of ${points.length}; ${least} points are needed`);
			scope.set(name, { is: as, points });
		});
	}

	/** Another part, lowered in place on points of this one. */
	private part(scope: Scope, step: PartStep): void {
		const sub = this.shared.library.find(({ id }) => id === step.part);
		if (!sub) {
			const known = this.shared.library.map(({ id }) => id).join(', ') || 'none';
			throw new StepFault(`the part "${step.part}" is not in the kit; known: ${known}`);
		}
		const chain = [...this.around, this.definition.id];
		if (chain.includes(sub.id))
			throw new StepFault(`a part cannot be used within itself: ${[...chain, sub.id].join(' → ')}`);
		const v = new Vectors(scope.builder);
		const points = step.on
			.map((name) => this.lookup(scope, name, 'point', 'ring', 'path'))
			.flatMap((value) => (value.is === 'point' ? [value.at] : value.points));
		const normal = () => this.lookup(scope, scope.peek('normal') ? 'normal' : 'normal1', 'direction').at;
		const { corners, source } = subAnchor(v, sub, points, normal, (name) => {
			const value = scope.get(`${siteOf(this.definition)}.${name}`);
			return value?.is === 'number' ? value.register : undefined;
		});
		const inner = new Scope(scope.builder, null);
		for (const [name, value] of givenNames(v, sub.anchor, corners, source)) inner.set(name, value);
		for (const name of Object.keys(step.values))
			if (!sub.inputs.some((input) => input.name === name))
				throw new StepFault(
					`${sub.label} has no input "${name}"; it has ${sub.inputs.map((input) => input.name).join(', ')}`
				);
		const elements = this.elements.within.get(step)!;
		const compiler = new Compiler(sub, elements, this.shared, this.named(step.name), chain);
		const measures = compiler.lower(inner, (input, kind) => {
			const text = step.values[input.name];
			const option = input.options?.findIndex(({ name }) => name === text) ?? -1;
			if (option >= 0) return scope.builder.constant(option + 1);
			if (text === undefined) return scope.builder.constant(kernelValue(input, input.default));
			return this.number(scope, text, kind);
		});
		for (const [name, value] of measures) scope.set(`${step.name}_${name}`, value);
	}

	private element(scope: Scope, element: ElementDefinition): void {
		this.currentStep = element.name;
		this.at(`element ${element.name}`, () => {
			const b = scope.builder;
			const thickness = element.thickness ? this.number(scope, element.thickness, 'length') : b.constant(0);
			const values = element.of.map((name) => this.lookup(scope, name, 'solid', 'sheet', 'fitted block'));
			for (const [k, value] of values.entries()) {
				const other = this.ordered.get(value);
				if (other)
					throw new StepFault(
						`"${element.of[k]}" is in the element "${other}" already, and would be ordered twice; take it out of one of them`
					);
				this.ordered.set(value, element.name);
			}
			const index = this.elements.own.get(element)!;
			const nextTurn = () => {
				const before = this.shared.made.get(index) ?? 0;
				this.shared.made.set(index, before + 1);
				return scope.repeats ? before * MOST_TURNS : before;
			};
			const [first] = values;
			if (first?.is === 'fitted block' && values.length === 1)
				return b.block(index, nextTurn(), first.fitted, this.named(element.of[0]!));
			const solids = values.flatMap((value): readonly Solid[] => {
				if (value.is === 'solid') return value.solids;
				if (value.is === 'fitted block')
					throw new StepFault(
						'a fitted block is an element by itself; give what else there is one of its own'
					);
				return [sheetMesh(new Vectors(b), value.sheet, thickness)];
			});
			const stock = commonStock(values, element.thickness ? thickness : null);
			for (const one of element.each ? solids.map((solid) => [solid]) : [solids])
				b.element({
					element: index,
					firstTurn: nextTurn(),
					solids: one,
					volume: b.sum(one.map((solid) => solid.volume)),
					area: b.sum(one.map((solid) => solid.area)),
					length: b.sum(one.map((solid) => solid.length)),
					stock
				});
		});
	}

	/** A step's name, with those of the sub-parts around it. */
	private named(step: string): string {
		return this.within ? `${this.within}, ${step}` : step;
	}
}

/**
 * What all values that an element is made of are cut from; null where they differ or it is not said.
 * @param thickness of sheets (mm), or null
 */
function commonStock(values: readonly Value[], thickness: Register | null): Stock<Register> | null {
	const stocks = values.map((value): Stock<Register> | null => {
		if (value.is === 'sheet') return thickness === null ? null : { shape: 'plate', sizes: [thickness] };
		return value.is === 'solid' ? value.stock : null;
	});
	const [first] = stocks;
	return first && stocks.every((one) => JSON.stringify(one) === JSON.stringify(first)) ? first : null;
}

/** All elements of a part, those of its groups and sub-parts included, in the order written. */
export function elementsOf(
	definition: PartDefinition,
	library: readonly PartDefinition[] = []
): readonly ElementDefinition[] {
	return listElements(definition, library).all;
}

/**
 * Check a part and lower it for anchors of a given number of corners (2 for a pair).
 * @param library the parts that it may use
 * @throws PartError with every fault found
 */
export function compilePart(
	definition: PartDefinition,
	corners: number,
	library: readonly PartDefinition[] = []
): Program {
	const { program, faults } = checkPart(definition, corners, library);
	if (faults.length) throw new PartError(faults);
	return program;
}

/** The same without stopping at faults: the program makes what could be lowered. */
export function checkPart(
	definition: PartDefinition,
	corners: number,
	library: readonly PartDefinition[],
	watcher: Watcher | null = null
): { program: Program; faults: PartError['faults'] } {
	const builder = new DomainBuilder(new FlagList());
	const shared: Shared = { library, faults: [], made: new Map(), watcher };
	try {
		const scope = new Scope(builder, null);
		const names = givenNames(new Vectors(builder), definition.anchor, corners, columnSource(builder));
		for (const [name, value] of names) scope.set(name, value);
		const compiler = new Compiler(definition, listElements(definition, library), shared, '', []);
		const measures = compiler.lower(scope, ({ name }) => builder.column(`input.${name}`));
		for (const [name, { register }] of measures) builder.result(name, register);
		return { program: builder.finish(), faults: shared.faults };
	} catch (error) {
		if (!(error instanceof PartTooLarge)) throw error;
		return {
			program: new DomainBuilder(new FlagList()).finish(),
			faults: [...shared.faults, ...error.faults]
		};
	}
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
	const names = givenNames(new Vectors(builder), anchor, corners, columnSource(builder));
	for (const [name, value] of names) scope.set(name, value);
	for (const { name, kind } of fieldsOver(siteOf({ anchor })))
		if (!names.has(name)) scope.set(name, numberValue(builder.column(name), kind));
	for (const { name, text, kind } of formulas)
		builder.result(name, lower(readFormula(scope, text, typeOfKind(kind)), scope));
	return builder.finish();
}
