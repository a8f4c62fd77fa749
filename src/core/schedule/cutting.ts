import { cutLengths } from '../cutting/lengths';
import { cutSheets } from '../cutting/sheets';
import { stockLengthOf, stockSheetOf } from '../cutting/shipped';
import { pointAt, type Vector } from '../geometry/vector';
import { rectangleAlong } from '../measure/smallest-rectangle';
import type { ElementTable } from '../part/element-table';
import type { Material } from '../project/material-schema';
import type { StockSettings } from '../project/stock-schema';
import { formatNumber } from '../units/quantity';
import { numberHead, textHead, type Cell } from './column';
import { stockReader } from './columns';
import { asColumns } from './gathered';
import { elementsOf } from './refs';
import { BETWEEN_ADDRESSES } from './listed';
import type { GroupSource } from './sources';

/** Things that are cut from one stock. Lists have one value for each. */
interface ToCut {
	/** As it is ordered: "hollow box 60 × 140 × 4". */
	readonly stock: string;
	readonly material: Material;
	readonly marks: string[];
	/** Of the pieces they are for. */
	readonly addresses: string[];
	/** mm */
	readonly long: number[];
	readonly short: number[];
}

/** As the saw is set: to a tenth of a millimetre. */
const mm = (value: number) => value.toFixed(1);

/**
 * Elements of a category by what they are cut from, in building order.
 * @param sizesOf the long and the short side of one, or its length (mm)
 */
function toCut(
	sources: readonly GroupSource[],
	category: 'bar' | 'plate',
	sizesOf: (source: GroupSource, table: ElementTable, at: number, row: number) => readonly [number, number]
): ToCut[] {
	const found = new Map<string, ToCut>();
	for (const source of sources) {
		const refs = elementsOf(source, category);
		const [marks, addresses] = [source.marks(), source.addresses()];
		const { tables, table, at, row, count } = refs;
		const stockOf = stockReader();
		let last = null as ToCut | null;
		for (let k = 0; k < row.length; k++) {
			const own = tables[table[k]!]!;
			const stock = stockOf(own, at[k]!);
			if (stock === null) continue;
			const material = source.group.ready.materials[own.element]!;
			if (last?.stock !== stock || last.material.id !== material.id) {
				const name = `${material.id} ${stock}`;
				last = found.get(name) ?? { stock, material, marks: [], addresses: [], long: [], short: [] };
				found.set(name, last);
			}
			const [long, short] = sizesOf(source, own, at[k]!, row[k]!);
			if (!(long > 0)) continue;
			last.marks.push(`${marks[row[k]!]!}-${count[k]!}`);
			last.addresses.push(addresses[row[k]!]!);
			last.long.push(long);
			last.short.push(short);
		}
	}
	return [...found.values()].filter(({ marks }) => marks.length);
}

/** The points of an element, where it has its own. */
function pointsOf({ shape }: ElementTable, at: number): Vector[] {
	const [from, to] =
		shape.is === 'made'
			? [at * shape.verticesEach, (at + 1) * shape.verticesEach]
			: shape.is === 'own'
				? [shape.firstVertex[at]!, shape.firstVertex[at + 1]!]
				: [0, 0];
	const points: Vector[] = [];
	for (let k = from; k < to; k++) points.push(pointAt((shape as { positions: Float32Array }).positions, k));
	return points;
}

/** The smallest rectangle around a plate, as it lies in its cell; of a plate on no cell, of no points of its own, none. */
function plateSides(
	{ face, group }: GroupSource,
	table: ElementTable,
	at: number,
	row: number
): readonly [number, number] {
	if (group.over !== 'cell') return [0, 0];
	return rectangleAlong(pointsOf(table, at), pointAt(face.measures.normal, group.sites[row]!));
}

/** Things by the number of what they are cut from; those that do not fit on it under -1. */
function byNumber(of: Int32Array): Map<number, number[]> {
	const found = new Map<number, number[]>();
	for (let k = 0; k < of.length; k++) {
		const list = found.get(of[k]!);
		if (list) list.push(k);
		else found.set(of[k]!, [k]);
	}
	return new Map([...found].sort(([a], [b]) => (a < 0 ? 1 : b < 0 ? -1 : a - b)));
}

/** Addresses of some things, those of one piece once; none has such a mark in it. */
const eachOnce = (things: readonly number[], addresses: readonly string[]) =>
	[...new Set(things.map((k) => addresses[k]!))].join(BETWEEN_ADDRESSES);

const common = [textHead('stock', 'Stock'), textHead('material', 'Material')];

/** Bars cut from stock lengths: a row for each of these, and one for those that none is long enough for. */
export function lengthPlan(sources: readonly GroupSource[], settings: StockSettings) {
	const rows: Cell[][] = [];
	for (const { stock, material, marks, addresses, long } of toCut(
		sources,
		'bar',
		(_source, { length }, at) => [length[at]!, 0]
	)) {
		const length = stockLengthOf(settings, material.id);
		const lengths = Float64Array.from(long);
		for (const [number, bars] of byNumber(cutLengths(lengths, length, settings.saw).of)) {
			bars.sort((a, b) => lengths[b]! - lengths[a]! || a - b);
			const own = bars.reduce((sum, bar) => sum + lengths[bar]!, 0);
			const used = Math.min(length, own + settings.saw * bars.length);
			const fits = number >= 0;
			rows.push([
				stock,
				material.label,
				fits ? number + 1 : null,
				fits ? length : null,
				bars.length,
				bars.map((bar) => mm(lengths[bar]!)).join(' + '),
				bars.map((bar) => marks[bar]!).join(', '),
				eachOnce(bars, addresses),
				own,
				fits ? length - used : null,
				fits ? '' : `longer than the stock of ${formatNumber(length)} mm`
			]);
		}
	}
	return asColumns(
		[
			...common,
			numberHead('number', 'Number', 'count'),
			numberHead('stock_length', 'Stock length', 'length', true),
			numberHead('pieces', 'Bars', 'count', true),
			textHead('cut', 'Cut to'),
			textHead('marks', 'Marks'),
			textHead('address', 'Addresses'),
			numberHead('length', 'Length of bars', 'length', true),
			numberHead('left', 'Left over', 'length', true),
			textHead('flags', 'Flags')
		],
		rows
	);
}

/** Plates cut from stock sheets: a row for each of these, and one for those that none is large enough for. */
export function sheetPlan(sources: readonly GroupSource[], settings: StockSettings) {
	const rows: Cell[][] = [];
	for (const { stock, material, marks, addresses, long, short } of toCut(sources, 'plate', plateSides)) {
		const sheet = stockSheetOf(settings, material.id);
		const plan = cutSheets(Float64Array.from(long), Float64Array.from(short), sheet, settings.gap);
		for (const [number, plates] of byNumber(plan.of)) {
			const fits = number >= 0;
			const own = plates.reduce((sum, k) => sum + long[k]! * short[k]!, 0);
			const placed = (k: number) =>
				fits
					? `${marks[k]!} at ${mm(plan.x[k]!)}, ${mm(plan.y[k]!)}${plan.turned[k] ? ' turned' : ''}`
					: marks[k]!;
			rows.push([
				stock,
				material.label,
				fits ? number + 1 : null,
				fits ? sheet[0] : null,
				fits ? sheet[1] : null,
				plates.length,
				plates.map(placed).join('; '),
				eachOnce(plates, addresses),
				own,
				fits ? 1 - own / (sheet[0] * sheet[1]) : null,
				fits ? '' : `larger than the sheet of ${formatNumber(sheet[0])} × ${formatNumber(sheet[1])} mm`
			]);
		}
	}
	return asColumns(
		[
			...common,
			numberHead('number', 'Number', 'count'),
			numberHead('sheet_long', 'Sheet long', 'length'),
			numberHead('sheet_short', 'Sheet short', 'length'),
			numberHead('pieces', 'Plates', 'count', true),
			textHead('marks', 'Marks and places'),
			textHead('address', 'Addresses'),
			numberHead('area', 'Area of plates', 'area', true),
			numberHead('waste', 'Waste', 'ratio'),
			textHead('flags', 'Flags')
		],
		rows
	);
}
