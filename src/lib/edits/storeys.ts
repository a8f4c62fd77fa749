import { amountOf } from '$core/condition/amount';
import { nameInFormulas } from '$core/field/followed';
import { namesForBound } from '$core/named/bound-values';
import type { Edit } from '$core/project/edits';
import type { Project } from '$core/project/schema';
import { insertAt, pathTo } from '$core/project/typed-path';
import { freshId } from './fresh-id';

/** Levels of one go at most. */
const MOST_STOREYS = 200;

/** "4 × 3600 mm" or "4 × storey": how many, and how high each. */
export const readStoreys = (text: string): { count: number; height: string } | null => {
	const found = text.trim().match(/^(\d{1,3})\s*[×x*]\s*(.+)$/i);
	const count = Number(found?.[1]);
	return found && count >= 1 && count <= MOST_STOREYS ? { count, height: found[2]!.trim() } : null;
};

/**
 * The edits that put levels above the last one, each a storey higher; where a named value says how high, they follow it.
 * @throws FormulaError when the height is no length
 */
export function storeyEdits(project: Project, { count, height }: { count: number; height: string }): Edit[] {
	const names = namesForBound(project);
	const text = /^[\d.]+$/.test(height) ? `${height} mm` : height;
	const storey = amountOf(text, 'length', names);
	const isNamed = /[a-z_]{3,}/i.test(text.replace(/\b(mm|cm|m|ft|inch)\b/g, ''));
	const levels = [...project.levels];
	const edits: Edit[] = [];
	let bound = project.bound.length;
	for (let k = 0; k < count + Number(!project.levels.length); k++) {
		const last = levels.at(-1);
		const id = freshId('level', levels);
		const level = {
			id,
			name: last ? `Level ${levels.length}` : 'Ground',
			height: last ? last.height + storey : 0
		};
		edits.push(insertAt(pathTo('levels'), levels.length, level));
		levels.push(level);
		if (!last || !isNamed) continue;
		const value = `level.${nameInFormulas(last.id)} + ${text}`;
		edits.push(
			insertAt(pathTo('bound'), bound++, { id: pathTo('levels', id, 'height'), kind: 'length', value })
		);
	}
	return edits;
}
