import type { Edit } from '$core/project/edits';
import type { PatternOf, SheetChoice } from '$core/project/pattern-schema';
import type { Project, Rule, Zone } from '$core/project/schema';
import { below, insertAt, pathTo, setAt } from '$core/project/typed-path';
import { freshId } from './fresh-id';
import { chosenVariant } from './part-choices';

/** What the web between scattered cells is: nothing, one sheet, or a sheet for each panel of the grid. */
export type SheetsPer = 'none' | 'face' | 'panels';

/** Half of the web that is left between two cells, where there was none (mm). */
const MARGIN = 20;

/** Make the web between scattered cells sheets; the first time a rule puts a part on them. */
export function sheetBetween(
	project: Project,
	zone: Zone,
	pattern: PatternOf<'voronoi'>,
	per: SheetsPer
): Edit[] {
	const at = pathTo('zones', zone.id);
	if (per === 'none') return [setAt(below(at, 'pattern'), { ...pattern, sheet: null })];
	const sheet: SheetChoice = {
		...(pattern.sheet ?? { plain: 60, crossing: 'cut' }),
		per: per === 'face' ? 'face' : { bays: 3, courses: 2 }
	};
	const next = { ...pattern, sheet, margin: pattern.margin || MARGIN };
	const edits: Edit[] = [setAt(below(at, 'pattern'), next)];
	const asks = zone.rules.some(({ where }) =>
		where.of.some((one) => one.is === 'slot' && one.of.includes('sheet'))
	);
	if (asks) return edits;
	const known = project.variants.find(({ part }) => part === 'pierced-sheet');
	const variant = chosenVariant(project, known?.id ?? 'part pierced-sheet', zone.name);
	const rule: Rule = {
		id: freshId('sheets', zone.rules),
		muted: false,
		where: { is: 'all', of: [{ is: 'slot', of: ['sheet'] }] },
		also: false,
		put: { variant: variant.id, values: {} }
	};
	return [...edits, ...variant.edits, insertAt(pathTo('zones', zone.id, 'rules'), 0, rule)];
}
