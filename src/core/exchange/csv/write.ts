import { decimals, headingOf } from '../../schedule/listed';
import { rowsOf, wordsOf, type Column } from '../../schedule/column';
import { scales } from '../../units/scale';

/** What a spreadsheet would take for a formula. */
const FORMULA = /^[=+\-@\t\r]/;
/** What has to stand in quotes (RFC 4180, 2.6), and blanks that readers would take away. */
const NEEDS_QUOTES = /[",\r\n]|^\s|\s$/;

function textCell(value: string): string {
	const guarded = FORMULA.test(value) ? `'${value}` : value;
	return NEEDS_QUOTES.test(guarded) ? `"${guarded.replaceAll('"', '""')}"` : guarded;
}

/** A column's values as they are written. */
function writer(column: Column): (row: number) => string {
	if (column.kind === 'text') {
		const words = wordsOf(column).map(textCell);
		return (row) => words[column.of[row]!]!;
	}
	const { kind, numbers } = column;
	const { size } = scales[kind];
	const digits = decimals[kind];
	return (row) => {
		const value = numbers[row]!;
		return Number.isNaN(value) ? '' : String(Number((value / size).toFixed(digits)));
	};
}

/**
 * Columns of a schedule as RFC 4180 text. Text that a spreadsheet would take for a formula is guarded.
 *
 * ```ts
 * const text = scheduleCsv(makeSchedule(model, 'panels').columns);
 * ```
 * @param rows the rows and their order; all in building order when left out
 */
export function scheduleCsv(columns: readonly Column[], rows?: Uint32Array): string {
	const count = rows?.length ?? (columns[0] ? rowsOf(columns[0]) : 0);
	const writers = columns.map(writer);
	const lines = [columns.map((column) => textCell(headingOf(column))).join()];
	for (let k = 0; k < count; k++) {
		const row = rows?.[k] ?? k;
		let line = writers[0]?.(row) ?? '';
		for (let c = 1; c < writers.length; c++) line += `,${writers[c]!(row)}`;
		lines.push(line);
	}
	return lines.join('\r\n');
}
