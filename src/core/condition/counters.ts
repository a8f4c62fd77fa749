import type { FieldSource } from '../field/field';
import type { SiteKind } from '../field/site-kind';
import { fieldValues, type AskedSites } from './sites';

/**
 * Which of the sites of one step each is: its slot, or the way a line goes; of the nodes of the grid there is one.
 *
 * ```ts
 * const slot = ordinals('cell', faceModel);
 * ```
 */
export function ordinals(over: SiteKind, source: Partial<FieldSource>): (site: number) => number {
	if (over === 'cell') return (c) => source.cells!.slot[c]!;
	if (over === 'line') return (e) => 256 * source.edges!.direction[e]! + source.edges!.ordinal[e]!;
	return () => 1;
}

/** Numbers that sites are counted by. */
export interface Counters {
	readonly numbers: Uint32Array;
	readonly most: number;
}
const kept = new WeakMap<object, Record<string, Counters>>();

/**
 * What sites are counted by, whole from 1: their bay, their course, or along a row of cells, courses shifted by one.
 *
 * ```ts
 * const { numbers } = counters('bays', askedSites);
 * ```
 */
export function counters(by: 'cells' | 'bays' | 'courses', sites: AskedSites): Counters {
	const { over, source, count } = sites;
	const known = kept.get(source) ?? {};
	kept.set(source, known);
	return (known[`${over} ${by}`] ??= made());

	function made(): Counters {
		const column = (name: string) => new Uint32Array(fieldValues(sites, name));
		const numbers = column(by === 'bays' ? 'bay' : 'course');
		if (by === 'cells') {
			const bay = column('bay');
			const slot = over === 'cell' ? ordinals(over, source) : () => 1;
			for (let s = 0; s < count; s++) numbers[s] = numbers[s]! + bay[s]! + slot(s) - 2;
		}
		let most = 0;
		for (let s = 0; s < count; s++) if (numbers[s]! > most) most = numbers[s]!;
		return { numbers, most };
	}
}
