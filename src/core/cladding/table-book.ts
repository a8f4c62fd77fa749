import type { TableBook } from '../field/followed';
import { addressBehind, faceAddress } from '../mass/face';
import type { Cells } from '../pattern/cells';
import type { Table } from '../project/brought-schema';
import type { Zone } from '../project/schema';
import { isInFile } from '../project/stored';
import { cellAddress } from './address';
import { cellMark, markPrefix } from './marks';

/**
 * How the cells of each face are marked, by its address; those of grids behind others too.
 *
 * ```ts
 * prefixesOf(project.zones).get('gull.skin'); // GR
 * ```
 */
export function prefixesOf(zones: readonly Zone[]): ReadonlyMap<string, string> {
	return new Map(
		zones.flatMap((zone) => {
			const { on } = zone;
			const { faces } = (on.is === 'layer' && zones.find(({ id }) => id === on.of)) || zone;
			return faces.map(({ mass, face }, f) => {
				const onFace = faceAddress(mass, face);
				const address = on.is === 'layer' ? addressBehind(onFace, zone.id) : onFace;
				return [address, markPrefix(zone.code, faces.length, f)] as const;
			});
		})
	);
}

/**
 * The name of every cell of a face in a table: its address, or its mark.
 *
 * ```ts
 * const [first] = namesIn(project.tables[0]!, prefixesOf(project.zones), 'gull.skin', cells);
 * ```
 */
export function namesIn(
	{ by }: Pick<Table, 'by'>,
	prefixes: ReadonlyMap<string, string>,
	address: string,
	cells: Cells
): string[] {
	const prefix = prefixes.get(address) ?? '';
	return Array.from({ length: cells.count }, (_, c) =>
		by === 'address' ? cellAddress(address, cells, c) : cellMark(prefix, cells, c)
	);
}

/**
 * The rows of a table, looked up by the names of cells; of two for one cell the later stands.
 *
 * ```ts
 * const [weights] = tableBook(project.tables[0]!, prefixesOf(project.zones)).valuesOn('gull.skin', cells);
 * ```
 */
export function tableBook(table: Table, prefixes: ReadonlyMap<string, string>): TableBook {
	const rows = new Map(isInFile(table.rows) ? [] : table.rows.map((row) => [row[0], row] as const));
	const known = new WeakMap<Cells, { values: readonly Float64Array[]; rows: Uint8Array }>();
	const matched = (address: string, cells: Cells) => {
		const found = known.get(cells);
		if (found) return found;
		const values = table.columns.map(() => new Float64Array(cells.count));
		const has = new Uint8Array(cells.count);
		namesIn(table, prefixes, address, cells).forEach((name, c) => {
			const row = rows.get(name);
			if (!row) return;
			has[c] = 1;
			values.forEach((column, k) => (column[c] = (row[k + 1] as number | null | undefined) ?? 0));
		});
		const made = { values, rows: has };
		known.set(cells, made);
		return made;
	};
	return {
		columns: table.columns.map(({ id }) => id),
		valuesOn: (address, cells) => matched(address, cells).values,
		rowsOn: (address, cells) => matched(address, cells).rows
	};
}
