import { columnValues, everySite } from '$core/field/column';
import type { Field } from '$core/field/field';
import { defaultFormula } from '$core/part/inputs';
import type { Driver, SpelledDriver } from '$core/project/driver-schema';
import type { PartInput } from '$core/project/part-definition';
import { inDegrees } from '$core/units/scale';
import { significant } from '$core/units/quantity';
import { isOnPage, sourceOf } from '$lib/check/measures';
import type { ZoneView } from '$lib/state/model.svelte';

export const ways = ['formula', 'follows', 'alternates', 'chance', 'keeps out'] as const;
export type DriverWay = (typeof ways)[number];
export const wayOf = (driver: Driver): DriverWay => (typeof driver === 'string' ? 'formula' : driver.is);

/** The range of a field over the cells of a zone, in the units of the document; null where a page does not know it. */
export function rangeHere(zone: ZoneView | undefined, field: Field | undefined): [number, number] | null {
	if (!zone || !field || !isOnPage(zone, field)) return null;
	let [low, high] = [Infinity, -Infinity];
	for (const [f, face] of zone.faces.entries()) {
		const { count } = face.cells;
		for (const value of columnValues(field.column(sourceOf(zone, f), everySite(count)), count)) {
			low = Math.min(low, value);
			high = Math.max(high, value);
		}
	}
	if (!(low < high)) return null;
	const shown = (value: number) => Number(significant(field.kind === 'angle' ? inDegrees(value) : value, 3));
	const range: [number, number] = [shown(low), shown(high)];
	return range[0] < range[1] ? range : null;
}

/** Two values of an input to go between: about its default. */
function twoOf(input: PartInput): [number | string, number | string] {
	if (input.options) return [input.options[0]!.name, input.options.at(-1)!.name];
	if (typeof input.default !== 'number') return ['false', 'true'];
	const { min = -Infinity, max = Infinity } = input;
	const hold = (value: number) => Math.min(max, Math.max(min, value));
	const low = hold(input.default);
	const high = hold(input.default * 2 || 1);
	return low === high ? [hold(low / 2), high] : [low, high];
}

/** Sizes of the blades of a part, as far as it says them. */
export interface Blades {
	readonly standing: boolean;
	readonly sizes: { readonly depth: number; readonly spacing: number };
}

/** A driver of a kind to start from, with what the one before it said where both have it. */
export function freshDriver(
	way: DriverWay,
	input: PartInput,
	before: Driver,
	range: { readonly field: string; readonly of: [number, number] },
	blades: Blades
): Driver {
	const to: [number | string, number | string] =
		typeof before === 'object' && 'to' in before ? before.to : twoOf(input);
	const spelled: Record<Exclude<DriverWay, 'formula'>, SpelledDriver> = {
		follows: {
			is: 'follows',
			field: range.field,
			from: range.of,
			to,
			curve: [],
			steps: null,
			outside: 'held'
		},
		alternates: { is: 'alternates', values: to, by: 'bays' },
		chance: { is: 'chance', to, seed: 1 },
		'keeps out': {
			is: 'keeps out',
			blades: blades.standing ? 'standing' : 'lying',
			...blades.sizes,
			to: [-75, 75]
		}
	};
	return way === 'formula' ? defaultFormula(input) : spelled[way];
}
