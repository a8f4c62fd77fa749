import type { Edit } from '$core/project/edits';
import type { OwnColumn } from '$core/project/schedules-schema';
import { below, insertAt, pathTo, removeAt, setAt } from '$core/project/typed-path';

/** What is written in rows of a column that is filled by hand, by their names; the empty text takes it away. */
export function writtenByHand(
	{ id: column, by }: OwnColumn,
	changes: Iterable<readonly [name: string, value: string | number]>
): Edit[] {
	if (by.is !== 'hand') return [];
	const path = below(pathTo('schedules', 'columns', column), 'by', 'values');
	const known = new Set(by.values.map(({ id }) => id));
	let count = by.values.length;
	return Array.from(changes).flatMap(([id, value]): Edit[] => {
		if (value === '') return known.has(id) ? [removeAt(below(path, id))] : [];
		return [known.has(id) ? setAt(below(path, id, 'value'), value) : insertAt(path, count++, { id, value })];
	});
}
