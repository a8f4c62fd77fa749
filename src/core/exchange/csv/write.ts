import { decimals, headingOf } from '../../schedule/listed';
import type { Column, Schedule } from '../../schedule/table';
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
function writer({ kind, values }: Column): (row: number) => string {
	if (kind === 'text')
		return (row) => {
			const value = values[row] ?? null;
			return value === null ? '' : textCell(String(value));
		};
	const { size } = scales[kind];
	const digits = decimals[kind];
	return (row) => {
		const value = values[row] ?? null;
		if (value === null) return '';
		return typeof value === 'string' ? textCell(value) : String(Number((value / size).toFixed(digits)));
	};
}

/**
 * A schedule as RFC 4180 text. Text that a spreadsheet would take for a formula is guarded.
 *
 * ```ts
 * const text = scheduleCsv(makeSchedule(model, 'panels'), undefined, ['mark', 'area']);
 * ```
 * @param rows the rows and their order; all in building order when left out
 * @param columns keys of the columns; all when left out
 */
export function scheduleCsv(
	schedule: Schedule,
	rows?: ArrayLike<number>,
	columns?: readonly string[]
): string {
	const chosen = schedule.columns.filter((column) => !columns || columns.includes(column.key));
	const count = rows?.length ?? schedule.rows;
	const writers = chosen.map(writer);
	const lines = [chosen.map((column) => textCell(headingOf(column))).join()];
	for (let k = 0; k < count; k++) {
		const row = rows?.[k] ?? k;
		let line = writers[0]?.(row) ?? '';
		for (let c = 1; c < writers.length; c++) line += `,${writers[c]!(row)}`;
		lines.push(line);
	}
	return lines.join('\r\n');
}
