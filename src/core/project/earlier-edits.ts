import { conditionOfEarlier, earlierKeys, EVERYWHERE, type EarlierKey } from './condition-schema';
import type { Edit } from './edits';
import { isContainer, valueAt } from './paths';

/*
 * Commands of the log speak of places as they were when they were made. Up to version 7 a rule had one value for each
 * of five things that can be asked of a cell; now each is one of its conditions.
 */

const earlierPlace = new RegExp(`^(zones/[^/]+/rules/[^/]+)/(${earlierKeys.join('|')})(?:/([a-z]+|[01]))?$`);

/** Which of today's conditions an earlier value is. */
function isOf(key: EarlierKey, condition: unknown): boolean {
	if (!isContainer(condition) || Array.isArray(condition)) return false;
	if (key === 'courses') return condition['is'] === 'range' && condition['field'] === 'course';
	return condition['is'] === (key === 'cells' ? 'kind' : key);
}

/** Where a part of an earlier value stands in its condition of today. */
const partOf = (key: EarlierKey, part: string) =>
	key === 'courses' ? (part === '0' ? 'at_least' : 'at_most') : part;

/**
 * An edit as it is made today; one that speaks of today's places is left as it is.
 *
 * ```ts
 * editOfToday(project, { do: 'set', path: 'zones/gull/rules/edge/cells', value: 'cut' }); // sets its condition
 * ```
 */
export function editOfToday(document: unknown, edit: Edit): Edit {
	const found = edit.do === 'set' ? earlierPlace.exec(edit.path) : null;
	if (!found || edit.do !== 'set') return edit;
	const [, rule, key, part] = found as unknown as [string, string, EarlierKey, string | undefined];
	const where = valueAt(document, `${rule}/where`) as typeof EVERYWHERE | undefined;
	if (!where) return edit;
	const at = where.of.findIndex((one) => isOf(key, one));
	if (part !== undefined)
		return at < 0 ? edit : { ...edit, path: `${rule}/where/of/${at}/${partOf(key, part)}` };
	const condition = conditionOfEarlier(key, edit.value);
	const of = [
		...where.of.slice(0, at < 0 ? where.of.length : at),
		condition,
		...where.of.slice(at < 0 ? where.of.length : at + 1)
	];
	return { ...edit, path: `${rule}/where`, value: { ...where, of: of.filter((one) => one !== null) } };
}
