import { inRadians } from '$core/units/scale';
import { inputKind } from '$core/part/inputs';
import type { Material } from '$core/project/material-schema';
import type { PartInput } from '$core/project/part-definition';
import type { Variant } from '$core/project/schema';
import { formatQuantity, parseQuantity, rounded } from '$core/units/quantity';

export type CellValue = number | boolean | string;

/** A variant's value of an input, in the document's units. */
export const valueOf = (variant: Variant, input: PartInput): CellValue =>
	variant.values[input.name] ?? input.default;

/** mm² and mm³ to what is shown. */
const shownIn = { area: 1e6, volume: 1e9 } as Partial<Record<PartInput['kind'], number>>;

/** As it stands in a table that can be pasted elsewhere: plain mm, degrees, m² and m³, words for the rest. */
export function cellText(variant: Variant, input: PartInput): string {
	const value = valueOf(variant, input);
	if (input.kind === 'switch') return value ? 'yes' : 'no';
	return typeof value === 'number' ? String(rounded(value / (shownIn[input.kind] ?? 1), 6)) : String(value);
}

/** What was typed or pasted, or a sentence that says what would be taken. */
export function readCell(
	input: PartInput,
	text: string,
	materials: readonly Material[]
): { readonly value: CellValue } | { readonly fault: string } {
	const typed = text.trim();
	const kind = inputKind(input);
	if (input.options) {
		const found = input.options.find(({ name, label }) => name === typed || label === typed);
		return found
			? { value: found.name }
			: {
					fault: `${input.label}: "${typed}" is none of ${input.options.map(({ name }) => name).join(', ')}`
				};
	}
	if (input.kind === 'material') {
		const found = materials.find(
			({ id, label }) => id === typed || label.toLowerCase() === typed.toLowerCase()
		);
		return found
			? { value: found.id }
			: { fault: `${input.label}: "${typed}" is none of ${materials.map(({ id }) => id).join(', ')}` };
	}
	if (kind === null) return { value: typed };
	if (kind === 'switch') {
		if (/^(yes|true|1)$/i.test(typed)) return { value: true };
		if (/^(no|false|0)$/i.test(typed)) return { value: false };
		return { fault: `${input.label}: "${typed}" is neither yes nor no` };
	}
	try {
		const read = parseQuantity(typed, kind);
		const value = rounded(kind === 'angle' ? (read * 180) / Math.PI : read, 6);
		const { min = -Infinity, max = Infinity } = input;
		if (value < min || value > max) {
			const shown = (bound: number) => formatQuantity(kind === 'angle' ? inRadians(bound) : bound, kind);
			return { fault: `${input.label}: ${shown(min)} to ${shown(max)} is accepted, not ${typed}` };
		}
		return { value };
	} catch (error) {
		return { fault: `${input.label}: ${(error as Error).message}` };
	}
}
