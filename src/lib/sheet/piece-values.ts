import { defaultFormula } from '$core/part/inputs';
import type { Driver } from '$core/project/driver-schema';
import type { PartDefinition } from '$core/project/part-definition';

/** Inputs of a part that a clause can set piece by piece. */
export const perPieceInputs = (part: PartDefinition | undefined) =>
	part?.inputs.filter((input) => input.scope === 'per piece' && input.kind !== 'material') ?? [];

/** Values with one set to a driver, or taken from the variant again. */
export function withValue(
	values: Readonly<Record<string, Driver>>,
	name: string,
	driver: Driver | null
): Record<string, Driver> {
	const rest = Object.fromEntries(Object.entries(values).filter(([key]) => key !== name));
	return driver === null ? rest : { ...rest, [name]: driver };
}

/** What a clause's menu offers for the inputs that it does not set yet. */
export const setActions = (
	part: PartDefinition | undefined,
	values: Readonly<Record<string, Driver>>,
	set: (name: string, text: string) => void
) =>
	perPieceInputs(part)
		.filter(({ name }) => !(name in values))
		.map((input) => ({
			label: `Set ${input.label.toLowerCase()} piece by piece`,
			act: () => set(input.name, defaultFormula(input))
		}));
