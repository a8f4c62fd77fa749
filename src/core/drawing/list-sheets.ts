import type { Model } from '../cladding/model';
import type { Column } from '../schedule/column';
import { makeSchedule } from '../schedule/table';
import { once } from '../units/once';
import { sheetNumber, type Planned, type BookSettings } from './planned';
import { roomOf, sheetOf, type Titles } from './sheet';
import { BETWEEN, blocksOf, drawTable, tableOf, widthOfTable } from './table';

/** Whether anything stands in a column. */
const isSaid = (column: Column) =>
	column.kind === 'text' ? column.text !== '' : column.numbers.some((one) => !Number.isNaN(one));

/**
 * A list on as many sheets as it needs.
 * @param keys of its columns; those that nothing stands in are left out @param letter that its numbers begin with
 */
export function listSheets(
	model: Model,
	list: 'bars' | 'nodes',
	keys: readonly string[],
	letter: string,
	title: string,
	settings: BookSettings,
	titles: Titles
): Planned[] {
	const schedule = makeSchedule(model, list);
	if (!schedule.rows) return [];
	const table = once(() => {
		const columns = keys.flatMap((key): Column[] => {
			const column = schedule.column(key);
			return column && isSaid(column) ? [column] : [];
		});
		return tableOf(
			columns,
			Array.from({ length: schedule.rows }, (_, row) => row)
		);
	});
	const room = roomOf(settings.paper);
	const layout = once(() => blocksOf(table(), room));
	const count = () => Math.ceil(schedule.rows / (layout().beside * layout().rows));
	const draw = () =>
		Array.from({ length: count() }, (_, page) => {
			const { beside, rows } = layout();
			const name = `${title}${count() > 1 ? `, ${page + 1} of ${count()}` : ''}`;
			return sheetOf(
				settings.paper,
				titles,
				{ number: sheetNumber(letter, page + 1, 3), title: name, scale: '' },
				(ink, { left, foot, height }) => {
					for (let block = 0; block < beside; block++) {
						const from = (page * beside + block) * rows;
						if (from >= schedule.rows) break;
						const to = Math.min(schedule.rows, from + rows);
						drawTable(
							ink,
							table(),
							left + block * (widthOfTable(table()) + BETWEEN),
							foot + height,
							from,
							to
						);
					}
				}
			);
		});
	return [
		{
			number: sheetNumber(letter, 1, 3),
			title,
			group: list,
			get count() {
				return count();
			},
			draw
		}
	];
}
