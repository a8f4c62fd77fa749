import {
	partSchema,
	type AnyStep,
	type ElementDefinition,
	type PartDefinition
} from '$core/project/part-definition';
import { eachText } from '$core/project/part/roles';

/** What a step may make that can be ordered. */
export const orders = ['solid', 'sheet', 'fitted block', 'pierced sheet', 'joined tubes'];

interface Owner {
	readonly steps: readonly AnyStep[];
	readonly elements: readonly ElementDefinition[];
}

/** The lists of steps and elements within a step. */
function within(step: AnyStep): readonly Owner[] {
	if ('cases' in step) return step.cases as readonly Owner[];
	return 'steps' in step ? [step as unknown as Owner] : [];
}

/** Names that steps and elements of a part stand on. */
export function namesUsed(part: PartDefinition): ReadonlySet<string> {
	const names = new Set<string>();
	eachText(partSchema, part, (role, text) => role === 'use' && names.add(text));
	return names;
}

/** The steps that elements of a part are made by, those in groups among them; once for each element. */
export function orderedIn(part: PartDefinition): string[] {
	const of = ({ steps, elements }: Owner): string[] => [
		...elements.flatMap((element) => element.of),
		...steps.flatMap((step) => within(step).flatMap(of))
	];
	return of(part as Owner);
}
