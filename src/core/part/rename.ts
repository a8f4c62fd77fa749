import { partSchema, type PartDefinition } from '../project/part-definition';
import { eachText, mapTexts, type TextRole } from '../project/part/roles';

/** Names in a formula; what follows a dot belongs to another one. */
const NAMES = /(?<![.\w])\w+/g;

/** Names that are given somewhere in a part, also to its elements. */
function namesGiven(part: PartDefinition): Set<string> {
	const given = new Set<string>();
	eachText(partSchema, part, (role, text) => {
		if (role === 'name' || role === 'element') given.add(text);
	});
	return given;
}

/**
 * A part with one of its values called otherwise, wherever it is used: in steps, formulas, limits, elements.
 * What a step tells under names of its own (`wheel_area`, `blades_count`) follows it.
 *
 *
 * ```ts
 * const next = renamed(part, 'joint', 'gap'); // in every formula and step
 * ```
 * @example renamed(framedGlass, 'opening', 'clear_opening')
 */
export function renamed(part: PartDefinition, from: string, to: string): PartDefinition {
	const given = namesGiven(part);
	const called = (word: string) => {
		if (word === from) return to;
		return word.startsWith(`${from}_`) && !given.has(word) ? to + word.slice(from.length) : word;
	};
	const isMaterial = part.inputs.some(({ name, kind }) => name === from && kind === 'material');
	const isOption = (owner: unknown) =>
		(owner as PartDefinition['inputs'][number]).options?.some(({ name }) => name === from);
	const changed: Record<TextRole, (text: string, owner: unknown) => string> = {
		name: called,
		use: called,
		element: called,
		formula: (text) => text.replace(NAMES, called),
		material: (text) => (isMaterial ? called(text) : text),
		choice: (text, owner) => (isOption(owner) ? called(text) : text)
	};
	return partSchema.parse(mapTexts(partSchema, part, (role, text, owner) => changed[role](text, owner)));
}

/**
 * A name that a part does not have yet: the wanted one, or that with a number.
 *
 * ```ts
 * freshName(part, 'ring'); // ring2, where there is a ring
 * ```
 */
export function freshName(part: PartDefinition, wanted: string): string {
	const given = namesGiven(part);
	for (let n = 1; ; n++) {
		const name = n === 1 ? wanted : `${wanted}_${n}`;
		if (!given.has(name)) return name;
	}
}
