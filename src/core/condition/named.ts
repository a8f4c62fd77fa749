import { fieldsOver } from '../field/fields';
import { guidesIn } from '../field/guides';
import type { Need } from '../field/field';
import type { SiteKind } from '../field/site-kind';
import type { Condition } from '../project/condition-schema';

/** What a condition hangs on, besides the numbers of its sites. */
export interface NamedBy {
	/** Ids of guides. */
	readonly guides: readonly string[];
	readonly levels: readonly string[];
	/** Where sites lie, not only which there are. */
	readonly places: boolean;
	/** In which values of the project may be named. */
	readonly texts: readonly string[];
}

/** What is known of sites from their numbers alone. */
const ofNumbers: readonly Need[] = ['cells', 'address'];

/** Every condition in one, brackets and all. */
export function* conditionsIn(condition: Condition): Generator<Condition> {
	yield condition;
	if ('of' in condition && (condition.is === 'all' || condition.is === 'any' || condition.is === 'none'))
		for (const one of condition.of) yield* conditionsIn(one);
}

/**
 * What conditions name of the project, so that they are asked again when it changes and not otherwise.
 *
 * ```ts
 * const { guides } = namedBy('cell', zone.rules.map(({ where }) => where), project.guides);
 * ```
 */
export function namedBy(
	over: SiteKind,
	conditions: readonly Condition[],
	guides: readonly { readonly id: string }[]
): NamedBy {
	const all = conditions.flatMap((one) => [...conditionsIn(one)]);
	const texts = all.flatMap((one) => {
		if (one.is === 'formula') return [one.formula];
		return one.is === 'range' ? [one.field, ...[one.at_least, one.at_most].map(String)] : [];
	});
	const inside = all.flatMap((one) => (one.is === 'inside' ? [one.guide] : []));
	const placed = fieldsOver(over)
		.filter(({ needs }) => needs.some((need) => !ofNumbers.includes(need)))
		.map(({ name }) => name);
	const named = new Set([...inside, ...guidesIn(texts, guides)]);
	const isPlaced = (text: string) => placed.some((name) => new RegExp(`\\b${name}\\b`).test(text));
	return {
		texts,
		guides: [...named],
		levels: all
			.flatMap((one) => (one.is === 'levels' ? [one.above, one.below] : []))
			.filter((id) => id !== null),
		places:
			named.size > 0 ||
			texts.some((text) => /\bpicture\./.test(text)) ||
			all.some(({ is }) => is === 'looks' || is === 'levels') ||
			texts.some((text) => isPlaced(text))
	};
}
