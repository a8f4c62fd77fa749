import type {
	AnyStep,
	ElementDefinition,
	PartDefinition,
	PartInput,
	PartStep
} from '../../project/part-definition';
import type { NumberKind } from '../../units/dimension';
import type { FormulaType } from '../../units/formula/expression';
import type { Register } from '../builder';
import type { Value, ValueOf } from '../values';
import type { Scope } from './scope';

/** Looks on while a part is lowered, to show its steps. */
export interface Watcher {
	/** Before a step is made: what it can see. */
	before(step: AnyStep, scope: Scope): void;
	/** After one has been made. */
	after(step: AnyStep, scope: Scope, value: Value): void;
}

/** Steps and the elements made of them: a part, a group, a case. */
export interface Group {
	readonly steps: readonly AnyStep[];
	readonly elements: readonly ElementDefinition[];
}

/** What groups, sub-parts and elements need to be lowered. Whatever cannot be throws a StepFault. */
export interface Lowering {
	readonly definition: PartDefinition;
	/** The parts it may use, and those it is used within. */
	readonly library: readonly PartDefinition[];
	readonly around: readonly string[];
	/** The value of a name, of one of the wanted kinds. */
	lookup<Is extends Value['is']>(scope: Scope, name: string, ...wanted: Is[]): ValueOf<Is>;
	/** A formula, of whatever type it comes to when none is expected. */
	anyFormula(scope: Scope, text: string, expected?: FormulaType): ValueOf<'number'>;
	formula(scope: Scope, text: string, expected: FormulaType): Register;
	number(scope: Scope, text: string, kind: NumberKind): Register;
	/** Refuse a name that is used already. */
	declare(scope: Scope, name: string): void;
	/** Give a name to the steps of a group. */
	setTurnName(scope: Scope, name: string, value: Value): void;
	group(scope: Scope, group: Group): void;
	/** Lower the whole part. @param given the register of an input's value @returns the measures by name */
	lower(
		scope: Scope,
		given: (input: PartInput, kind: NumberKind) => Register
	): Map<string, ValueOf<'number'>>;
	/** The lowering of a part that this one is made with. */
	partWithin(step: PartStep, part: PartDefinition): Lowering;
	/** Take a value for an element. @returns the element that has it already */
	order(value: Value, element: ElementDefinition): string | undefined;
	/** Where an element stands in the whole part's list, and how many of it have been made before. */
	indexOf(element: ElementDefinition): number;
	nextTurn(index: number): number;
	/** A step's name, with those of the sub-parts around it. */
	named(step: string): string;
}
