import { columnValues, everySite } from '$core/field/column';
import type { Field, FieldSource, Need } from '$core/field/field';
import { followable, NOTHING_FOLLOWED, type Followed } from '$core/field/followed';
import { SOME_SUN } from '$core/field/sun';
import { fieldsOver } from '$core/field/fields';
import type { NumberKind } from '$core/units/dimension';
import type { ModelView, ZoneView } from '$lib/state/model.svelte';
import { interpolateCividis } from 'd3-scale-chromatic';

/** What the model and the map can be coloured by. */
export interface CheckMeasure {
	readonly key: string;
	readonly label: string;
	readonly kind: NumberKind;
}

/** What a page has of a face; other fields are read where models are computed. */
export const onPages: readonly Need[] = [
	'cells',
	'measures',
	'edges',
	'folds',
	'grid',
	'address',
	'sun',
	'guides',
	'pictures',
	'tables'
];
/** Fields of cells that a page can read. */
const cellFields = (followed: Followed): readonly Field[] =>
	fieldsOver('cell', followable(followed)).filter(
		({ needs, kind }) => kind !== 'switch' && needs.every((need) => onPages.includes(need))
	);
/** Whether a page can read a field of cells of a zone: while a model comes, what its clauses follow may still be away. */
export const isOnPage = ({ followed }: ZoneView, { id }: Field): boolean =>
	cellFields(followed).some((one) => one.id === id);
const asMeasure = ({ id, label, kind }: Field): CheckMeasure => ({ key: id, label, kind });
/** What fields are read from on a page: a face, the sun over it, and what can be followed. */
export const sourceOf = ({ faces, suns, followed }: ZoneView, f: number): Partial<FieldSource> => ({
	...faces[f]!,
	...followed,
	sun: suns[f] ?? SOME_SUN
});
/** The key of what is counted only when somebody looks at it, or a clause follows it. */
export const HOURS_OF_SUN = 'cell.hours_of_sun';
/** What is looked at first. */
export const firstMeasure: CheckMeasure = asMeasure(cellFields(NOTHING_FOLLOWED)[0]!);

/** Groups of pieces on the cells of one face, or of any. */
const onCells = ({ groups }: ZoneView, f?: number) =>
	groups.filter(({ over, face }) => over === 'cell' && (f === undefined || face === f));

/** Fields of cells, then what the parts on them measure, each name and kind once. */
export function checkMeasures(view: ModelView): CheckMeasure[] {
	const found = new Map<string, CheckMeasure>();
	for (const { measures } of view.zones.flatMap((zone) => onCells(zone)))
		for (const { key, label, kind } of measures) found.set(key, { key, label: label.toLowerCase(), kind });
	const [zone] = view.zones;
	return [...cellFields(zone?.followed ?? NOTHING_FOLLOWED).map(asMeasure), ...found.values()];
}

/** Values that were read of a zone as it stands: those that colour it, make the histogram and are chosen by. */
const read = new WeakMap<ZoneView, Map<string, Float64Array>>();

/** A measure's value for every cell of a face; NaN where a cell has none. */
export function valuesOf(zone: ZoneView, f: number, key: string): Float64Array {
	const known = read.get(zone) ?? new Map<string, Float64Array>();
	read.set(zone, known);
	const name = `${f} ${key}`;
	const values = known.get(name) ?? readValues(zone, f, key);
	known.set(name, values);
	return values;
}

function readValues(zone: ZoneView, f: number, key: string): Float64Array {
	const face = zone.faces[f]!;
	const { count } = face.cells;
	if (zone.bare) return new Float64Array(count).fill(NaN);
	const field = cellFields(zone.followed).find(({ id }) => id === key);
	if (key === HOURS_OF_SUN && !zone.suns[f]?.hours) return new Float64Array(count).fill(NaN);
	if (field) return columnValues(field.column(sourceOf(zone, f), everySite(count)), count);
	const values = new Float64Array(count).fill(NaN);
	for (const { sites, measures } of onCells(zone, f))
		measures.find((one) => one.key === key)?.values.forEach((value, row) => (values[sites[row]!] = value));
	return values;
}

export interface Range {
	readonly low: number;
	readonly high: number;
}

/** Lowest and highest value over all zones. */
export function rangeOf(view: ModelView, key: string): Range {
	let low = Infinity;
	let high = -Infinity;
	for (const zone of view.zones)
		for (const f of zone.faces.keys())
			for (const value of valuesOf(zone, f, key)) {
				if (value < low) low = value;
				if (value > high) high = value;
			}
	return low <= high ? { low, high } : { low: 0, high: 0 };
}

/** Where a value stands in a range, 0..1; the middle when the range is a point. */
export function shareIn({ low, high }: Range, value: number): number {
	return high - low > 1e-9 * Math.max(1, Math.abs(high)) ? (value - low) / (high - low) : 0.5;
}

const STEPS = 64;
/** One perceptual, colour-blind-safe sequence, in steps so that drawing can gather equal colours. */
export const sequence = Array.from({ length: STEPS }, (_, k) => interpolateCividis(k / (STEPS - 1)));
export const sequenceStep = (share: number) =>
	Math.min(STEPS - 1, Math.max(0, Math.round(share * (STEPS - 1))));

export interface Bin {
	readonly from: number;
	readonly to: number;
	readonly count: number;
}

/** How many values lie in each equal step of a range; what is not a number lies in none. */
export function binsOf(lists: Iterable<Iterable<number>>, range: Range, bins: number): Bin[] {
	const counts = new Array<number>(bins).fill(0);
	for (const values of lists)
		for (const value of values)
			if (!Number.isNaN(value)) counts[Math.min(bins - 1, Math.floor(shareIn(range, value) * bins))]!++;
	const step = (range.high - range.low) / bins;
	return counts.map((count, k) => ({ from: range.low + k * step, to: range.low + (k + 1) * step, count }));
}

/** Cells per equal step of a measure's range. */
export const histogram = (view: ModelView, key: string, range: Range): Bin[] =>
	binsOf(
		view.zones.flatMap((zone) => zone.faces.map((_, f) => valuesOf(zone, f, key))),
		range,
		16
	);
