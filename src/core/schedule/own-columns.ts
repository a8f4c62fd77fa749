import type { Table } from '../project/brought-schema';
import type { OwnColumn } from '../project/schedules-schema';
import { isInFile } from '../project/stored';
import { dimensionOf, dimensionInWords, sameDimension, type NumberKind } from '../units/dimension';
import { checkFormula } from '../units/formula/check';
import { evaluateColumns } from '../units/formula/evaluate';
import { FormulaError, numberOf, type Expression, type FormulaType } from '../units/formula/expression';
import { typesOf, type Named } from '../named/named-values';
import {
	cellOf,
	cellsOf,
	columnOf,
	numberHead,
	textHead,
	type Cell,
	type Column,
	type ColumnHead
} from './column';
import type { Listed } from './query';

/** Kinds that what a formula comes to is listed as. */
const kinds = ['ratio', 'length', 'area', 'volume', 'mass', 'angle'] as const satisfies readonly NumberKind[];
const summed: readonly NumberKind[] = ['length', 'area', 'volume', 'mass', 'ratio'];

/** Before the keys of columns of a project's own, so that no other has the same. */
const OWN = 'own ';
/** The key of a column of a project's own. */
export const keyOfOwn = (id: string): string => OWN + id;

const IDENTIFIER = /^[a-z][a-z0-9_]*$/;

/**
 * What a column is called in formulas: its key, or its title where that is no word.
 *
 * ```ts
 * nameOfColumn({ key: 'set Depth length', title: 'Depth' }); // depth
 * ```
 */
export function nameOfColumn({ key, title }: Pick<ColumnHead, 'key' | 'title'>): string {
	const own = key.startsWith(OWN) ? key.slice(OWN.length) : key;
	if (IDENTIFIER.test(own)) return own;
	const word = title
		.toLowerCase()
		.replace(/[^a-z0-9]+/g, '_')
		.replace(/^_+|_+$/g, '');
	return IDENTIFIER.test(word) ? word : `column_${word}`;
}

/** Columns of numbers by their names in formulas; of two of one name the first. */
function numbersIn(heads: readonly ColumnHead[]): Map<string, ColumnHead & { readonly kind: NumberKind }> {
	const found = new Map<string, ColumnHead & { readonly kind: NumberKind }>();
	for (const head of heads) {
		const name = nameOfColumn(head);
		if (head.kind !== 'text' && !found.has(name)) found.set(name, { ...head, kind: head.kind });
	}
	return found;
}

/** What a formula of columns is: what it reckons, and the kind of what it comes to. */
interface ReckonedColumn {
	readonly expression: Expression;
	/** A switch is listed as yes or no. */
	readonly kind: NumberKind;
}

/**
 * Check a formula of the columns of a list.
 *
 * ```ts
 * const { kind } = checkColumnFormula('area * 1.1', makeSchedule(model, 'panels').heads, NOTHING_NAMED); // area
 * ```
 * @throws FormulaError with a sentence
 */
export function checkColumnFormula(
	formula: string,
	heads: readonly ColumnHead[],
	named: Named
): ReckonedColumn {
	const names: Record<string, FormulaType> = { ...typesOf(named) };
	for (const [name, { kind }] of numbersIn(heads)) names[name] = numberOf(dimensionOf(kind));
	const expression = checkFormula(formula, { names, functions: {} });
	const { type } = expression;
	if (type.is === 'switch') return { expression, kind: 'switch' };
	const kind =
		type.is === 'number' ? kinds.find((one) => sameDimension(dimensionOf(one), type.dimension)) : undefined;
	if (kind) return { expression, kind };
	throw new FormulaError(
		`"${formula}" comes to ${type.is === 'number' ? dimensionInWords(type.dimension) : 'no number'}, which no column is in; divide by a unit, as in mass / (area / (1 m * 1 m))`
	);
}

/** A column of a project's own, or why it is empty. */
export interface MadeOwnColumn {
	readonly head: ColumnHead;
	readonly make: () => Column;
	readonly problem: string | null;
}

/** Columns that number the elements or points of a piece. */
const numbers = ['blade', 'number', 'point'];

/**
 * What a row is known by where values are written by hand: the address of its piece, and the number of its element.
 *
 * ```ts
 * rowName(makeSchedule(model, 'panels'), 0); // gull/gull.skin/C01/B01/1
 * ```
 */
export function rowName(list: Listed, row: number): string {
	const address = list.column('address');
	const number = numbers.map((key) => list.column(key)).find((one) => one !== undefined);
	const piece = address ? String(cellOf(address, row)) : '';
	return number ? `${piece}/${cellOf(number, row)}` : piece;
}

function byFormula({ id, title }: OwnColumn, formula: string, list: Listed, named: Named): MadeOwnColumn {
	const { expression, kind } = checkColumnFormula(formula, list.heads, named);
	const numbers = numbersIn(list.heads);
	const values = (): Float64Array =>
		evaluateColumns(
			expression,
			(name) => {
				const head = numbers.get(name);
				const column = head && list.column(head.key);
				if (column && column.kind !== 'text') return column.numbers;
				return new Float64Array(list.rows).fill(named.get(name)!.value);
			},
			list.rows
		);
	if (kind === 'switch') {
		const head = textHead(keyOfOwn(id), title);
		return {
			head,
			problem: null,
			make: () =>
				columnOf(
					head,
					Array.from(values(), (one) => (one ? 'yes' : 'no'))
				)
		};
	}
	const head = numberHead(keyOfOwn(id), title, kind, summed.includes(kind));
	// What cannot be reckoned, as a division by nought, is no number of a list.
	const make = () => ({ ...head, numbers: values().map((one) => (Number.isFinite(one) ? one : NaN)) });
	return { head, problem: null, make };
}

function byRows(
	head: ColumnHead,
	values: ReadonlyMap<string, Cell>,
	names: () => Iterable<readonly string[]>
) {
	const make = () => {
		const cells: Cell[] = [];
		for (const all of names()) cells.push(values.get(all.find((one) => values.has(one)) ?? '') ?? null);
		return columnOf(head, cells);
	};
	return { head, make, problem: null };
}

function byTable(
	{ id, title }: OwnColumn,
	of: { readonly table: string; readonly column: string },
	tables: readonly Table[],
	list: Listed
): MadeOwnColumn {
	const head = numberHead(keyOfOwn(id), title, 'ratio', true);
	const table = tables.find((one) => one.id === of.table);
	const at = table?.columns.findIndex((one) => one.id === of.column) ?? -1;
	if (!table || at < 0)
		throw new FormulaError(
			table ? `the table ${table.name} has no column ${of.column}` : `there is no table "${of.table}"`
		);
	if (isInFile(table.rows)) throw new FormulaError(`the rows of the table ${table.name} are not at hand`);
	const values = new Map(
		table.rows.map((row) => [row[0], (row[at + 1] as number | null | undefined) ?? null])
	);
	/** A table knows cells without their zone. */
	const called = (address: string): string[] => [address, address.slice(address.indexOf('/') + 1)];
	const column = list.column(table.by === 'mark' ? 'mark' : 'address');
	return byRows(head, values, () =>
		(column ? cellsOf(column) : []).map((cell) =>
			table.by === 'mark' ? [String(cell)] : called(String(cell))
		)
	);
}

/**
 * The columns that a project has of its own for a list, each of those before it. One that cannot be filled stays empty
 * and says why.
 *
 * ```ts
 * const [price] = ownColumns(makeSchedule(model, 'panels'), project.schedules.columns, [], NOTHING_NAMED);
 * ```
 * @param list with the columns that it has by itself @param tables with their rows
 */
export function ownColumns(
	list: Listed & { readonly name: string },
	columns: readonly OwnColumn[],
	tables: readonly Table[],
	named: Named
): MadeOwnColumn[] {
	const made: MadeOwnColumn[] = [];
	const soFar = (): Listed => ({
		rows: list.rows,
		heads: [...list.heads, ...made.map(({ head }) => head)],
		column: (key) => made.find(({ head }) => head.key === key)?.make() ?? list.column(key)
	});
	for (const column of columns) {
		if (column.list !== list.name) continue;
		const { by, id, title } = column;
		try {
			if (by.is === 'formula') made.push(byFormula(column, by.formula, soFar(), named));
			else if (by.is === 'table') made.push(byTable(column, by, tables, list));
			else
				made.push(
					byRows(
						by.holds === 'number'
							? numberHead(keyOfOwn(id), title, 'ratio', true)
							: textHead(keyOfOwn(id), title),
						new Map(by.values.map((one) => [one.id, one.value])),
						() => Array.from({ length: list.rows }, (_, row) => [rowName(list, row)])
					)
				);
		} catch (error) {
			if (!(error instanceof FormulaError)) throw error;
			const head = textHead(keyOfOwn(id), title);
			const make = () => columnOf(head, new Array<Cell>(list.rows).fill(null));
			made.push({ head, make, problem: error.message });
		}
	}
	return made;
}
