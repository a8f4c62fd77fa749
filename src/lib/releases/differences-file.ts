import type { Compared } from '$core/release/compare';
import { writeXlsx } from '$core/exchange/xlsx/write';
import { everySite } from '$core/field/column';
import { columnOf, textHead } from '$core/schedule/column';

/** The differences of two sides as a workbook. @param at the moment that the file says it is of */
export function differencesFile({ differences }: Compared, at: string): Promise<Uint8Array> {
	const column = (key: string, title: string, read: (one: (typeof differences)[number]) => string) =>
		columnOf(textHead(key, title), differences.map(read));
	const columns = [
		column('mark', 'Mark', ({ mark }) => mark),
		column('list', 'List', ({ list }) => list),
		column('is', 'Is', ({ is }) => is),
		column('what', 'What changed', ({ what }) => what.join(', ')),
		column('told', 'From → to', ({ told }) => told),
		column('address', 'Address', ({ address }) => address)
	];
	return writeXlsx([{ name: 'Differences', columns, rows: everySite(differences.length) }], at);
}
