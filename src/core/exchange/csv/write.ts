import Papa from 'papaparse';
import type { Column, Schedule } from '../../schedule/table';
import type { NumberKind } from '../../units/dimension';
import { scales } from '../../units/scale';

/** Decimals of written numbers: what a workshop reads. */
const decimals: Record<NumberKind, number> = {
	length: 1,
	angle: 2,
	area: 4,
	volume: 6,
	mass: 2,
	ratio: 4,
	count: 0,
	switch: 0
};

function heading(column: Column): string {
	const unit = column.kind === 'text' ? '' : scales[column.kind].plain;
	return unit ? `${column.title} (${unit})` : column.title;
}

function cell(column: Column, row: number): string | number {
	const value = column.values[row];
	if (value === null || value === undefined) return '';
	if (typeof value === 'string' || column.kind === 'text') return value;
	return Number((value / scales[column.kind].size).toFixed(decimals[column.kind]));
}

/** Rows that are written at a time, so that a long schedule is not held twice. */
const BLOCK = 2000;

/**
 * A schedule as RFC 4180 text. Text that a spreadsheet would take for a formula is guarded.
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
	const newline = '\r\n';
	const lines = (data: (string | number)[][]) => Papa.unparse(data, { newline, escapeFormulae: true });
	const blocks = [lines([chosen.map(heading)])];
	for (let from = 0; from < count; from += BLOCK)
		blocks.push(
			lines(
				Array.from({ length: Math.min(BLOCK, count - from) }, (_, k) => {
					const row = rows?.[from + k] ?? from + k;
					return chosen.map((column) => cell(column, row));
				})
			)
		);
	return blocks.join(newline);
}
