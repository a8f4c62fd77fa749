import { cellFields } from './cells';
import { chainFields } from './chains';
import type { Field } from './field';
import { NOTHING_TO_FOLLOW, type Followable } from './followed';
import { guideFields } from './guides';
import { lineFields } from './lines';
import { nodeFields } from './nodes';
import type { SiteKind } from './site-kind';
import { pictureFields } from './pictures';
import { sunFields } from './sun';
import { tableFields } from './tables';

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
 * @param things what of the project can be followed: how far each guide is, pictures, columns of tables
 */
export const fieldsOver = (over: SiteKind, things: Followable = NOTHING_TO_FOLLOW): readonly Field[] => [
	...registry.filter((one) => one.over === over),
	...guideFields(over, things.guides),
	...pictureFields(over, things.pictures),
	...tableFields(over, things.tables)
];

/**
 * ```ts
 * const { label, kind } = fieldOf('cell', 'area');
 * ```
 * @throws Error when there is no such field: names that people write are checked before
 */
export function fieldOf(over: SiteKind, name: string, things: Followable = NOTHING_TO_FOLLOW): Field {
	const found = fieldsOver(over, things).find((one) => one.name === name);
	if (!found) throw new Error(`no field "${name}" of a ${over}`);
	return found;
}

/** What formulas know of cells, lines and nodes: names that nothing else can have. */
export const fieldNames: ReadonlySet<string> = new Set(
	(['cell', 'line', 'node'] as const).flatMap((over) => fieldsOver(over).map(({ name }) => name))
);
