import type { PartDefinition } from '../project/part-definition';

/** The words in each step, by its name. */
export type References = ReadonlyMap<string, ReadonlySet<string>>;

/** What each declared name refers to, for telling a cycle from a wrong order. */
export function references(definition: PartDefinition): References {
	const words = (value: unknown): string[] =>
		typeof value === 'string'
			? (value.match(/(?<![.\w])[a-z][a-z0-9_]*/g) ?? [])
			: typeof value === 'object' && value !== null
				? Object.entries(value).flatMap(([key, inner]) =>
						['name', 'do', 'note', 'label', 'says'].includes(key) ? [] : words(inner)
					)
				: [];
	return new Map(definition.steps.map((step) => [step.name, new Set(words(step))]));
}

/** The names that a part gives itself: of its inputs, and of its steps however deep. */
export function declaredNames({ inputs, steps }: PartDefinition): Set<string> {
	const found = new Set(inputs.map(({ name }) => name));
	const walk = (value: unknown): void => {
		if (typeof value !== 'object' || value === null) return;
		const { name } = value as { name?: unknown };
		if (typeof name === 'string') found.add(name);
		for (const [key, inner] of Object.entries(value)) if (key !== 'elements') walk(inner);
	};
	walk(steps);
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
