import { cellFields } from './cells';
import { chainFields } from './chains';
import type { Field } from './field';
import { guideFields } from './guides';
import { lineFields } from './lines';
import { nodeFields } from './nodes';
import type { SiteKind } from './site-kind';
import { sunFields } from './sun';

const registry: readonly Field[] = [
	...cellFields,
	...sunFields,
	...lineFields,
	...nodeFields,
	...chainFields
];

/**
 * The fields of a kind of site, in the order they are offered.
 *
 * ```ts
 * const names = fieldsOver('line').map(({ name }) => name);
 * ```
 * @param guides ids of guides: how far it is from each is a field too
 */
export const fieldsOver = (over: SiteKind, guides: readonly string[] = []): readonly Field[] => [
	...registry.filter((one) => one.over === over),
	...guideFields(over, guides)
];

/**
 * ```ts
 * const { label, kind } = fieldOf('cell', 'area');
 * ```
 * @throws Error when there is no such field: names that people write are checked before
 */
export function fieldOf(over: SiteKind, name: string, guides: readonly string[] = []): Field {
	const found = fieldsOver(over, guides).find((one) => one.name === name);
	if (!found) throw new Error(`no field "${name}" of a ${over}`);
	return found;
}

/** What formulas know of cells, lines and nodes: names that nothing else can have. */
export const fieldNames: ReadonlySet<string> = new Set(
	(['cell', 'line', 'node'] as const).flatMap((over) => fieldsOver(over).map(({ name }) => name))
);
