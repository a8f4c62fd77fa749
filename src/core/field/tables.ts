import { gather } from './column';
import { field, type Field } from './field';
import { nameInFormulas, type Followable } from './followed';
import type { SiteKind } from './site-kind';

/**
 * Columns of tables at cells, `table.BATCHES_WEIGHT`, and whether a cell has a row, `table.BATCHES`.
 *
 * ```ts
 * const names = tableFields('cell', [{ id: 'batches', columns: ['weight'] }]).map(({ name }) => name);
 * ```
 */
export const tableFields = (over: SiteKind, tables: Followable['tables']): Field[] =>
	over !== 'cell'
		? []
		: tables.flatMap(({ id, columns }) => {
				const name = `table.${nameInFormulas(id)}`;
				return [
					...columns.map((column, k) =>
						field(
							over,
							`${name}_${column}`,
							`${column} of table ${id}`,
							'ratio',
							['cells', 'address', 'tables'],
							({ cells, address, tables }, sites) =>
								gather(sites, tables.get(id)!.valuesOn(address, cells)[k]!),
							({ tables }) => tables?.get(id)
						)
					),
					field(
						over,
						name,
						`row in table ${id}`,
						'switch',
						['cells', 'address', 'tables'],
						({ cells, address, tables }, sites) => gather(sites, tables.get(id)!.rowsOn(address, cells)),
						({ tables }) => tables?.get(id)
					)
				];
			});
