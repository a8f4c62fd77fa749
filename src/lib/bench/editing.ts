import { inspectPart } from '$core/part/inspect';
import { freshName, renamed } from '$core/part/rename';
import { partSchema, type AnyStep, type PartDefinition } from '$core/project/part-definition';
import { identifier } from '$core/project/identifier';
import type { Bench } from './bench.svelte';

/** A part with one of its lists replaced. */
export const withList = <Key extends 'steps' | 'inputs' | 'elements' | 'limits' | 'measures'>(
	part: PartDefinition,
	key: Key,
	list: PartDefinition[Key]
): PartDefinition => ({ ...part, [key]: list });

/** Where something stands in a part: keys and places from the part down, as ['steps', 2, 'steps']. */
export type PartPath = readonly (string | number)[];

export function at(part: PartDefinition, path: PartPath): unknown {
	return path.reduce<unknown>((value, key) => (value as Record<string | number, unknown>)[key], part);
}

/** The part with what stands at a place replaced. */
export function withAt(part: PartDefinition, path: PartPath, value: unknown): PartDefinition {
	const put = (owner: unknown, [key, ...rest]: PartPath): unknown => {
		if (key === undefined) return value;
		const inner = put((owner as Record<string | number, unknown>)[key], rest);
		if (Array.isArray(owner)) return replaced(owner, key as number, inner);
		return { ...(owner as object), [key]: inner };
	};
	return put(part, path) as PartDefinition;
}

/** A list with its member at a place replaced, moved or taken out. */
export const replaced = <T>(list: readonly T[], k: number, item: T): T[] =>
	list.map((one, n) => (n === k ? item : one));
export const without = <T>(list: readonly T[], k: number): T[] => list.filter((_, n) => n !== k);
export function moved<T>(list: readonly T[], from: number, to: number): T[] {
	const rest = without(list, from);
	return [...rest.slice(0, to), list[from]!, ...rest.slice(to)];
}
export const inserted = <T>(list: readonly T[], at: number, item: T): T[] => [
	...list.slice(0, at),
	item,
	...list.slice(at)
];

/** A value of a step set, or taken out when it is null. */
export function withValue(step: AnyStep, key: string, value: unknown): AnyStep {
	const rest = Object.entries(step).filter(([known]) => known !== key);
	return Object.fromEntries(value === null ? rest : [...rest, [key, value]]) as unknown as AnyStep;
}

/** What a step put into a list of a part would see, by name with types. */
export function seenAt(
	{ corners, library }: Pick<Bench, 'corners' | 'library'>,
	part: PartDefinition,
	list: PartPath,
	k: number
): ReadonlyMap<string, string> {
	const probe: AnyStep = { name: 'step_that_looks', do: 'number', value: '0' };
	const steps = at(part, list) as AnyStep[];
	const { steps: views } = inspectPart(withAt(part, list, inserted(steps, k, probe)), corners, library);
	return views.get(probe.name)?.sees ?? new Map<string, string>();
}

/** What would be wrong at one place of a part if it were so: a sentence, or null. */
export function faultAt(bench: Bench, next: PartDefinition, place: string): string | null {
	const read = partSchema.safeParse(next);
	if (!read.success) return read.error.issues[0]?.message ?? 'this cannot be';
	const { faults } = inspectPart(read.data, bench.corners, bench.library);
	return faults.find(({ step }) => step === place)?.text ?? null;
}

/** Why a name cannot be given, or null. */
export function nameFault(part: PartDefinition, was: string, name: string): string | null {
	if (name === was) return null;
	const read = identifier.safeParse(name);
	if (!read.success) return read.error.issues[0]!.message;
	return freshName(part, name) === name ? null : `the name "${name}" is used already; names are used once`;
}

/** Every use of a name follows it. */
export function rename(bench: Bench, from: string, to: string): void {
	if (!bench.part) return;
	bench.change(`${bench.part.label}: ${from} is called ${to}`, renamed(bench.part, from, to));
	if (bench.step === from) bench.step = to;
}
