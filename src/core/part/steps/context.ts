import type { Anchor, Step, StepOf } from '../../project/part-definition';
import type { NumberKind } from '../../units/dimension';
import type { DomainBuilder, Register } from '../builder';
import type { Value, ValueOf, Vectors } from '../values';

/** What a step may ask of the part it stands in. */
export interface StepContext {
	readonly v: Vectors;
	/** A name's value, refused when it is of none of the wanted types. */
	lookup<Is extends Value['is']>(name: string, ...wanted: Is[]): ValueOf<Is>;
	/** A formula of a given kind. */
	number(text: string, kind: NumberKind): Register;
	/** A formula of whatever kind it comes to. */
	anyNumber(text: string): Value;
	/** What the part hangs on; null where it is made within another. */
	readonly anchor: Anchor | null;
	/** A condition. */
	condition(text: string): Register;
}

/** How steps of some kinds are lowered to operations. They throw StepFault and FormulaError. */
export type Makers<Do extends Step['do']> = {
	readonly [D in Do]: (step: StepOf<D>, context: StepContext) => Value;
};

/** Lengths up to this (mm) make no solid. */
const LEAST_LENGTH = 0.01;

/** Flag pieces where a length is nothing. */
export function refuseNothing(b: DomainBuilder, length: Register, says: string): void {
	const when = b.apply('lessOrEqual', length, b.constant(LEAST_LENGTH));
	b.flag(when, { code: 'part.nothing', level: 'failed', subject: 'the piece', says });
}
