import { partSchema, type PartDefinition } from '../project/part-definition';

/** Keys whose values are words of the language or texts for people, not names of the part. */
const WORDS = new Set(
	'label note says use id do kind role category scope part shape placed side joints runs over as axis source spaced'.split(
		' '
	)
);

/** Whether a key of an object holds a word although it holds a name in others. */
function isWord(owner: Readonly<Record<string, unknown>>, key: string, materials: boolean): boolean {
	if (WORDS.has(key)) return true;
	if (key === 'material') return !materials;
	if (key === 'then') return 'says' in owner;
	return key === 'from' && owner['do'] === 'point on path';
}

/** Names that are given somewhere in a part. */
function namesIn(value: unknown): string[] {
	if (typeof value !== 'object' || value === null) return [];
	const { name } = value as { name?: unknown };
	return [...(typeof name === 'string' ? [name] : []), ...Object.values(value).flatMap(namesIn)];
}

/**
 * A part with one of its values called otherwise, wherever it is used: in steps, formulas, limits, elements.
 * What a step tells under names of its own (`wheel_area`, `blades_count`) follows it.
 */
export function renamed(part: PartDefinition, from: string, to: string): PartDefinition {
	const given = new Set(namesIn(part));
	const called = (word: string) => {
		if (word === from) return to;
		return word.startsWith(`${from}_`) && !given.has(word) ? to + word.slice(from.length) : word;
	};
	const materials = part.inputs.some(({ name, kind }) => name === from && kind === 'material');
	const walk = (value: unknown): unknown => {
		if (typeof value === 'string') return value.replace(/(?<![.\w])\w+/g, called);
		if (Array.isArray(value)) return value.map(walk);
		if (typeof value !== 'object' || value === null) return value;
		const owner = value as Record<string, unknown>;
		return Object.fromEntries(
			Object.entries(owner).map(([key, one]) => [key, isWord(owner, key, materials) ? one : walk(one)])
		);
	};
	return partSchema.parse(walk(part));
}

/** A name that a part does not have yet: the wanted one, or that with a number. */
export function freshName(part: PartDefinition, wanted: string): string {
	const text = JSON.stringify(part);
	for (let n = 1; ; n++) {
		const name = n === 1 ? wanted : `${wanted}_${n}`;
		if (!text.includes(`"${name}"`)) return name;
	}
}
