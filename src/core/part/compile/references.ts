import type { PartDefinition } from '../../project/part-definition';
import { anyStepSchema } from '../../project/part/group-steps';
import { eachText } from '../../project/part/roles';

/** The words in each step, by its name. */
export type References = ReadonlyMap<string, ReadonlySet<string>>;

/** What each declared name refers to, for telling a cycle from a wrong order. */
export function references(definition: PartDefinition): References {
	return new Map(
		definition.steps.map((step) => {
			const words = new Set<string>();
			eachText(anyStepSchema, step, (role, text) => {
				if (role === 'use' || role === 'material') words.add(text);
				if (role === 'formula')
					for (const [word] of text.matchAll(/(?<![.\w])[a-z][a-z0-9_]*/g)) words.add(word);
			});
			return [step.name, words];
		})
	);
}

/** The names that a part gives itself: of its inputs, and of its steps however deep. */
export function declaredNames({ inputs, steps }: PartDefinition): Set<string> {
	const found = new Set(inputs.map(({ name }) => name));
	for (const step of steps)
		eachText(anyStepSchema, step, (role, text) => {
			if (role === 'name') found.add(text);
		});
	return found;
}

/** A way along references from one step to another, or null. */
export function wayAlong(
	known: References,
	from: string,
	to: string,
	seen = new Set<string>()
): string[] | null {
	if (from === to) return [from];
	if (seen.has(from)) return null;
	seen.add(from);
	for (const next of known.get(from) ?? []) {
		const rest = known.has(next) ? wayAlong(known, next, to, seen) : null;
		if (rest) return [from, ...rest];
	}
	return null;
}
