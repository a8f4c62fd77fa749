import { decimals as listed, headingOf } from '$core/schedule/listed';
import { cellOf, type Column, type ColumnHead } from '$core/schedule/column';
import type { ScheduleName } from '$core/project/schedules-schema';
import { scales } from '$core/units/scale';
import { alignedNumber, formatLength, formatNumber, type LengthDisplay } from '$core/units/quantity';

/** The unit a column's head carries, so that its cells need not. */
export function headUnit({ kind }: Pick<ColumnHead, 'kind'>, display: LengthDisplay): string {
	if (kind === 'text') return '';
	if (kind === 'length') return display === 'ft-in' ? '' : display;
	return scales[kind].unit;
}

const decimals: Partial<Record<ColumnHead['kind'], number>> = {
	area: 2,
	angle: 1,
	mass: 1,
	volume: 4,
	ratio: 3
};

/** A value as the table shows it, its decimals always the same so that a column lines up. */
export function cellText(
	column: Pick<ColumnHead, 'kind'>,
	value: string | number | null,
	display: LengthDisplay
): string {
	if (value === null) return '';
	if (typeof value === 'string' || column.kind === 'text') return String(value);
	if (column.kind === 'count') return formatNumber(value);
	if (column.kind === 'length') {
		if (display === 'ft-in') return formatLength(value, display);
		return display === 'm' ? alignedNumber(value / 1000, 3) : alignedNumber(value, 1);
	}
	return alignedNumber(value / scales[column.kind].size, decimals[column.kind] ?? 2);
}

/** Sums of lengths are read in metres where pieces are in millimetres. */
export const metres = (display: LengthDisplay): LengthDisplay => (display === 'mm' ? 'm' : display);

const widths: Record<string, string> = {
	mark: '128px',
	marks: '190px',
	cut: '200px',
	number: '78px',
	pieces: '66px',
	node: '136px',
	zone: '98px',
	part: '104px',
	variant: '82px',
	address: '178px',
	course: '66px',
	bay: '52px',
	blade: '60px',
	cell: '62px',
	corners: '72px',
	element: '112px',
	material: '104px',
	stock: '158px',
	thickness: '112px',
	long_side: '104px',
	short_side: '106px',
	materials: '118px',
	longest_edge: '124px',
	shortest_edge: '124px',
	smallest_angle: '124px',
	picture: '74px',
	named: '250px',
	kind: '66px',
	edges: '272px',
	each_mass: '120px',
	sites: '64px',
	start: '92px',
	end: '92px',
	flags: 'minmax(180px,1fr)'
};
/** A column's width in CSS. Columns that parts bring along are as wide as their heads ask for. */
export const widthOf = ({ key, kind, title }: ColumnHead): string =>
	widths[key] ?? `${Math.max(kind === 'text' ? 78 : 88, (kind === 'text' ? 30 : 46) + 7 * title.length)}px`;

/** Rows as text that a spreadsheet takes: heads with their units first, columns apart by tabs, numbers without blanks. */
export const asText = (columns: readonly Column[], rows: readonly number[]): string =>
	[
		columns.map(headingOf),
		...rows.map((row) =>
			columns.map((column) => {
				const { kind } = column;
				const value = cellOf(column, row) ?? '';
				return typeof value === 'number' && kind !== 'text'
					? (value / scales[kind].size).toFixed(listed[kind])
					: String(value).replace(/[\t\n]/g, ' ');
			})
		)
	]
		.map((line) => line.join('\t'))
		.join('\n');

/** Columns that are told under another name where figures are reckoned. */
const figures: Readonly<Record<string, string>> = {
	long_side: 'sheet.long',
	short_side: 'sheet.short',
	mass: 'piece.mass',
	length: 'bar.length'
};
const fieldsOf: Partial<Record<ScheduleName, 'cell' | 'line' | 'node'>> = {
	panels: 'cell',
	louvers: 'cell',
	structure: 'cell',
	bars: 'line',
	connectors: 'node'
};
/** The figure that a column of a list shows, by its id; null of columns that nothing is reckoned for. */
export function figureOf(list: ScheduleName, { key, kind }: Pick<ColumnHead, 'key' | 'kind'>): string | null {
	const over = fieldsOf[list];
	return !over || kind === 'text' || kind === 'count' ? null : (figures[key] ?? `${over}.${key}`);
}
