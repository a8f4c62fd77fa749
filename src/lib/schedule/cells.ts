import type { Column } from '$core/schedule/table';
import { formatLength, formatNumber, formatQuantity, type LengthDisplay } from '$core/units/quantity';

/** The unit a column's head carries, so that its cells need not. */
export function headUnit(column: Column, display: LengthDisplay): string {
	switch (column.kind) {
		case 'length':
			return display === 'ft-in' ? '' : display;
		case 'area':
			return 'm²';
		case 'angle':
			return '°';
		case 'mass':
			return 'kg';
		default:
			return '';
	}
}

/** A value as the table shows it. */
export function cellText(column: Column, value: string | number | null, display: LengthDisplay): string {
	if (value === null) return '';
	if (typeof value === 'string' || column.kind === 'text') return String(value);
	if (column.kind === 'length')
		return display === 'ft-in'
			? formatLength(value, display)
			: formatLength(value, display).replace(/ m+$/, '');
	if (column.kind === 'count') return formatNumber(value);
	return formatQuantity(value, column.kind, display).replace(/ ?(m²|m³|kg|°)$/, '');
}
