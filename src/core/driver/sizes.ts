import type { AskedSites, Surroundings } from '../condition/sites';
import { everySite } from '../field/column';
import type { FieldSource } from '../field/field';
import { fieldsOver } from '../field/fields';
import { followable, type Followable } from '../field/followed';
import type { PartInput } from '../project/part-definition';
import type { PatternOf } from '../project/pattern-schema';
import { shortNames } from '../units/formula/check';
import { refuse } from '../units/problem';
import { checkDriver } from './check';
import { drive } from './drive';

/** What can vary the size of scattered cells. */
export type SizeDriver = Exclude<PatternOf<'voronoi'>['size'], number>;

/**
 * The size of a scattered cell, of its own, as a value that drivers can give.
 *
 * ```ts
 * const { label } = sizeInput;
 * ```
 */
export const sizeInput = {
	name: 'size',
	label: 'Size',
	kind: 'ratio',
	default: 1,
	scope: 'per piece'
} as const satisfies PartInput;

/** What is known of cells when they are scattered: there are no lines between them and no sun on them yet. */
const known: readonly string[] = ['cells', 'measures', 'grid', 'address', 'guides', 'pictures'];

/**
 * The fields that the size of scattered cells may follow.
 *
 * ```ts
 * const names = fieldsOfSize(followableIn(project)).map(({ name }) => name);
 * ```
 */
export const fieldsOfSize = (things: Followable) =>
	fieldsOver('cell', things).filter(({ needs }) => needs.every((need) => known.includes(need)));

/**
 * The size of every scattered cell as a share of its own, before it is made smaller.
 *
 * ```ts
 * const sizes = drivenSizes({ is: 'chance', to: [0.2, 1], seed: 1 }, faceModel, around, `${pathTo('zones', zone.id, 'pattern')}/size`);
 * ```
 * @param at the path of the size
 * @throws ProblemError
 */
export function drivenSizes(
	size: SizeDriver,
	source: Pick<FieldSource, 'cells' | 'grid' | 'measures' | 'address'>,
	around: Surroundings,
	at: string
): Float64Array {
	const things = followable(around.followed);
	if (size.is === 'follows') {
		const names = fieldsOfSize(things).map(({ name }) => name);
		if (!names.includes(size.field))
			refuse(
				`${at}/field`,
				`the size of scattered cells cannot follow "${size.field}"; known: ${shortNames(names).join(', ')}`
			);
	}
	checkDriver(size, sizeInput, sizeInput.kind, 'cell', things, around.named, at);
	const asked: AskedSites = { over: 'cell', count: source.cells.count, source, around };
	return drive(size, sizeInput, sizeInput.kind, asked, everySite(source.cells.count)).values;
}
