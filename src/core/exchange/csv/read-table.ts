import type { Table } from '../../project/brought-schema';
import { MOST_TABLE_ROWS } from '../../project/brought-schema';

/** What is taken of a table, and what is to be known of it. */
export interface ReadTable extends Pick<Table, 'by' | 'columns'> {
	readonly rows: [string, ...(number | null)[]][];
	/** Names that stand in it more than once. */
	readonly twice: readonly string[];
	/** Heads of columns without a number in them. */
	readonly left: readonly string[];
}

const isMark = (text: string) => /^[A-Z][A-Z0-9]{0,5}(\.\d+)?-C\d+-B\d+[a-z]*$/.test(text);
const isAddress = (text: string) => /^[^/\s]+\/C\d+\/B\d+\/\d+$/.test(text);
/**
 * What stands in a cell of a table.
 *
 * ```ts
 * asText(12); // '12'
 * ```
 */
export const asText = (value: unknown): string =>
	typeof value === 'string' || typeof value === 'number' ? String(value).trim() : '';

/**
 * A number as tables have it: 1 234.5, 1,234.5 or 12,5; null for anything else.
 *
 * ```ts
 * asNumber('1,234.5'); // 1234.5
 * ```
 */
export function asNumber(value: unknown): number | null {
	if (typeof value === 'number') return Number.isFinite(value) ? value : null;
	if (typeof value !== 'string') return null;
	let text = value.replace(/[\s\u00a0\u202f]/g, '').replace('−', '-');
	text = /^-?\d+,\d{1,2}$/.test(text) ? text.replace(',', '.') : text.replace(/,(?=\d{3}\b)/g, '');
	return /^[-+]?(\d+\.?\d*|\.\d+)(e[-+]?\d+)?$/i.test(text) ? Number(text) : null;
}

/** A head as a name that formulas can use, unlike those before it. */
function nameOf(head: string, taken: ReadonlySet<string>): string {
	const base =
		head
			.toLowerCase()
			.replace(/[^a-z0-9]+/g, '_')
			.replace(/^[^a-z]+|_+$/g, '')
			.slice(0, 60) || 'column';
	let name = base;
	for (let n = 2; taken.has(name); n++) name = `${base}_${n}`;
	return name;
}

/**
 * A table whose rows name cells by their mark or address, from its lines: heads first, the names of cells in the column
 * where most are.
 *
 * ```ts
 * const { columns, rows } = readTable([['mark', 'batch'], ['GR-C01-B02', 4]]);
 * ```
 * @throws Error with a sentence when no column names cells, or none has numbers
 */
export function readTable(lines: readonly (readonly unknown[])[]): ReadTable {
	const [heads, ...body] = lines.filter((line) => line.some((value) => asText(value) !== ''));
	if (!heads || !body.length) throw new Error('it has no rows under its heads');
	if (body.length > MOST_TABLE_ROWS)
		throw new Error(`it has ${body.length} rows; at most ${MOST_TABLE_ROWS} are taken`);
	const counted = heads.flatMap((_, column) =>
		(
			[
				['mark', isMark],
				['address', isAddress]
			] as const
		).map(([by, is]) => ({
			by,
			column,
			count: body.reduce((sum, line) => sum + Number(is(asText(line[column]))), 0)
		}))
	);
	const best = counted.reduce((most, one) => (one.count > most.count ? one : most));
	if (!best.count)
		throw new Error(
			'none of its columns names cells; a column of marks, as in GR-C01-B02, or of addresses, as in gull.skin/C01/B02/1, is wanted'
		);
	const taken = new Set<string>();
	const columns: Table['columns'] = [];
	const from: number[] = [];
	const left: string[] = [];
	heads.forEach((head, column) => {
		if (column === best.column) return;
		const label = asText(head) || `column ${column + 1}`;
		if (!body.some((line) => asNumber(line[column]) !== null)) {
			left.push(label);
			return;
		}
		const id = nameOf(label, taken);
		taken.add(id);
		columns.push({ id, label: label.slice(0, 200) });
		from.push(column);
	});
	if (!columns.length) throw new Error('none of its columns has numbers that cells could follow');
	const rows = body
		.filter((line) => asText(line[best.column]) !== '')
		.map((line): ReadTable['rows'][number] => [
			asText(line[best.column]),
			...from.map((column) => asNumber(line[column]))
		]);
	const seen = new Set<string>();
	const twice = new Set<string>();
	for (const [name] of rows) (seen.has(name) ? twice : seen).add(name);
	return { by: best.by, columns, rows, twice: [...twice], left };
}
