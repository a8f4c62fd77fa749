import { inRadians } from '../units/scale';
import type { PartInput } from '../project/part-definition';
import { dimensionOf, numberKinds, sameDimension, type NumberKind } from '../units/dimension';
import { numberOf, type FormulaType } from '../units/formula/expression';

export const typeOfKind = (kind: NumberKind): FormulaType =>
	kind === 'switch' ? { is: 'switch' } : numberOf(dimensionOf(kind));

/** The kind of a number by its dimension; null for what is none, or of no kind that has a name. */
export function kindOfType(type: FormulaType): NumberKind | null {
	if (type.is !== 'number') return null;
	return (
		numberKinds.find((kind) => kind !== 'switch' && sameDimension(dimensionOf(kind), type.dimension)) ?? null
	);
}

/**
 * The kind of number that formulas take an input for; nothing for those that are no numbers.
 *
 * ```ts
 * if (inputKind(part.inputs[0]!) === 'length') lengths.push(part.inputs[0]!.name);
 * ```
 */
export function inputKind({ kind }: PartInput): NumberKind | null {
	if (kind === 'material' || kind === 'text') return null;
	return kind === 'choice' ? 'count' : kind;
}

/**
 * An input's value as formulas have it: mm, rad, plain; a choice by its number from 1, a switch 0 or 1.
 *
 * ```ts
 * kernelValue(part.inputs[0]!, 45); // radians, where it is an angle
 * ```
 */
export function kernelValue(input: PartInput, value: PartInput['default']): number {
	if (input.kind === 'choice') return 1 + (input.options ?? []).findIndex(({ name }) => name === value);
	if (input.kind === 'switch') return value === true || value === 1 ? 1 : 0;
	return input.kind === 'angle' ? inRadians(Number(value)) : Number(value);
}

const unitOf: Readonly<Partial<Record<NumberKind, string>>> = {
	length: ' mm',
	angle: ' deg',
	area: ' mm^2',
	volume: ' mm^3',
	mass: ' kg'
};

/**
 * A number as a formula that says it, in the unit of its kind.
 *
 * ```ts
 * numberFormula('angle', 45); // 45 deg
 * ```
 * @param value mm, degrees, mm², mm³, kg, plain
 */
export const numberFormula = (kind: NumberKind, value: number): string => `${value}${unitOf[kind] ?? ''}`;

/**
 * An input's default as a formula that says the same, in the unit of its kind.
 *
 * ```ts
 * defaultFormula(part.inputs[0]!); // 8 mm
 * ```
 */
export function defaultFormula(input: PartInput): string {
	if (input.kind === 'switch') return input.default === true ? 'true' : 'false';
	if (input.kind === 'choice') return String(kernelValue(input, input.default));
	return numberFormula(input.kind as NumberKind, Number(input.default));
}

/**
 * What values of an input that are set piece by piece are known by where they are looked at: the same for inputs of one
 * name and kind, whatever their parts.
 *
 * ```ts
 * setKey('Angle', 'angle'); // set Angle angle
 * ```
 */
export const setKey = (label: string, kind: NumberKind): string => `set ${label} ${kind}`;
