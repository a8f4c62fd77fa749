import { columnValues, everySite } from '../field/column';
import type { FaceSun, FieldSource } from '../field/field';
import { fieldOf } from '../field/fields';
import { followable, type Followed } from '../field/followed';
import { SOME_SUN } from '../field/sun';
import type { SiteKind } from '../field/site-kind';
import type { Named } from '../named/named-values';
import type { Level } from '../project/form-schema';
import type { FaceWithLines } from './rim-sides';

/** What conditions can ask besides the places themselves: the guides and levels of the project, slots of the pattern. */
export interface Surroundings {
	readonly followed: Followed;
	readonly levels: readonly Level[];
	/** Names of the pattern's polygons. */
	readonly slots: readonly string[];
	readonly named: Named;
	/** The sun over each face, by its address. */
	readonly suns: ReadonlyMap<string, FaceSun>;
}

/** All places of one kind on a face, of which conditions are asked. */
export interface AskedSites {
	readonly over: SiteKind;
	readonly count: number;
	/** What fields are read from; values that were read are kept with it. */
	readonly source: Partial<FieldSource>;
	/** Of lines and nodes: the face whose rims they may lie on, and the variant on each of its cells. */
	readonly beside?: { readonly face: FaceWithLines; readonly on: (cell: number) => string | null };
	readonly around: Surroundings;
}

/** Values of fields that were read from a source already, each with the guide or the sun it hangs on. */
const kept = new WeakMap<object, Map<string, { readonly by: unknown; readonly values: Float64Array }>>();

/** As many sites as were asked for last: the next field is as a rule of the same. */
let sites = everySite(0);

/**
 * A field of all sites, read once for as long as the face, the guide and the sun stay as they are.
 *
 * ```ts
 * const areas = fieldValues(askedSites, 'area');
 * ```
 */
export function fieldValues({ over, count, source, around }: AskedSites, name: string): Float64Array {
	const { followed, suns } = around;
	const sun = (source.address !== undefined && suns.get(source.address)) || SOME_SUN;
	const known = kept.get(source) ?? new Map();
	kept.set(source, known);
	const field = fieldOf(over, name, followable(followed));
	const whole = { ...source, ...followed, sun };
	const by = field.hangsOn(whole);
	const found = known.get(field.id);
	if (found && found.by === by) return found.values;
	if (sites.length !== count) sites = everySite(count);
	const values = columnValues(field.column(whole, sites), count);
	known.set(field.id, { by, values });
	return values;
}
