import { inputKind, kernelValue, numberFormula } from '../../part/inputs';
import type { PartInput } from '../../project/part-definition';
import { FormulaError } from '../../units/formula/expression';
import { formatQuantity, parseQuantity } from '../../units/quantity';
import { inDegrees, inRadians, scales } from '../../units/scale';
import { asNumber, asText } from '../csv/read-table';

/** What stands in a cell is no value of its input; the message says why. */
export class UnusableValue extends Error {}

/** A value as it was read: in kernel units, as the document keeps it, and in words. */
export interface ReadValue {
	readonly value: number;
	readonly formula: string;
	readonly text: string;
}

const yes = new Set(['yes', 'true', '1']);
const no = new Set(['no', 'false', '0']);

/**
 * Read what stands in a cell of a list for an input.
 * @param unit that its head names; without one it is in that of the list @throws UnusableValue
 */
export function readValue(input: PartInput, cell: unknown, unit: string): ReadValue {
	const text = asText(typeof cell === 'boolean' ? String(cell) : cell).replace(/^'/, '');
	if (input.options) {
		const option = input.options.find(
			({ name, label }) => name === text || label.toLowerCase() === text.toLowerCase()
		);
		if (!option)
			throw new UnusableValue(
				`${input.label} cannot be "${text}"; ${input.options.map(({ label }) => label).join(', ')} can be chosen`
			);
		return { value: kernelValue(input, option.name), formula: option.name, text: option.label };
	}
	if (input.kind === 'switch') {
		const said = text.toLowerCase();
		if (!yes.has(said) && !no.has(said))
			throw new UnusableValue(`${input.label} cannot be "${text}"; yes or no is wanted`);
		const value = Number(yes.has(said));
		return { value, formula: value ? 'true' : 'false', text: value ? 'yes' : 'no' };
	}
	return readNumber(input, text, unit);
}

function readNumber(input: PartInput, text: string, unit: string): ReadValue {
	const kind = inputKind(input)!;
	const { size, plain } = scales[kind];
	const number = asNumber(text);
	const isOwn = unit === '' || unit === plain || unit === scales[kind].unit;
	let value: number;
	try {
		value =
			number !== null && isOwn
				? number * size
				: parseQuantity(number === null ? text : `${number} ${unit}`, kind);
	} catch (error) {
		if (!(error instanceof FormulaError)) throw error;
		throw new UnusableValue(
			`${input.label} cannot be "${text}"; a number is wanted${plain ? `, in ${plain} where no unit stands by it` : ''}`
		);
	}
	const own = kind === 'angle' ? inDegrees(value) : value;
	for (const [bound, isBeyond, word] of [
		[input.min, own < (input.min ?? -Infinity), 'least'],
		[input.max, own > (input.max ?? Infinity), 'most']
	] as const)
		if (isBeyond)
			throw new UnusableValue(
				`${input.label} cannot be ${text}; at ${word} ${formatQuantity(kind === 'angle' ? inRadians(bound!) : bound!, kind)} is accepted`
			);
	if (kind === 'count' && !Number.isInteger(value))
		throw new UnusableValue(`${input.label} cannot be ${text}; a whole number is wanted`);
	const formula = numberFormula(kind, Number(own.toPrecision(12)));
	return { value, formula, text: formatQuantity(value, kind) };
}
