import { amountOf } from '../condition/amount';
import { fieldNames } from '../field/fields';
import { nameInFormulas } from '../field/followed';
import type { Edit } from '../project/edits';
import { valueAt } from '../project/paths';
import type { Project } from '../project/schema';
import { pathTo, setAt, type Path } from '../project/typed-path';
import { LENGTH } from '../units/dimension';
import { FormulaError, numberOf } from '../units/formula/expression';
import { ProblemError, type Problem } from '../units/problem';
import { inDegrees } from '../units/scale';
import { namedValues, type Named } from './named-values';

type WithNames = Pick<Project, 'named' | 'levels'>;

/**
 * What formulas of bound numbers may name: the named values of a project, and its levels as `level.SUN_DECK`.
 *
 * ```ts
 * const { value } = namesForBound(project).get('level.eaves')!; // mm
 * ```
 * @throws ProblemError when the named values cannot be
 */
export function namesForBound({ named, levels }: WithNames): Named {
	const names = new Map(namedValues(named, fieldNames));
	for (const { id, height } of levels)
		names.set(`level.${nameInFormulas(id)}`, { type: numberOf(LENGTH), value: height });
	return names;
}

/** What became of the numbers that are bound. */
export interface BoundValues {
	/** What brings them to what their formulas come to. */
	readonly edits: readonly Edit[];
	readonly problems: readonly Problem[];
	/** Ids of those whose number is not there any more. */
	readonly gone: readonly string[];
}

/**
 * Reckon the numbers that are bound. Levels may follow one another; round and round they cannot.
 *
 * ```ts
 * const { edits } = boundValues(project); // none when all of them stand as they should
 * ```
 */
export function boundValues(project: Project): BoundValues {
	if (!project.bound.length) return { edits: [], problems: [], gone: [] };
	const values = new Map<string, number>();
	const problems = new Map<string, Problem>();
	const gone = project.bound.filter(({ id }) => typeof valueAt(project, id) !== 'number').map(({ id }) => id);
	const live = project.bound.filter(({ id }) => !gone.includes(id));
	let levels = project.levels;
	// Each pass settles one level more of a chain of them at least.
	for (let pass = 0; pass <= live.length + 1; pass++) {
		let names: Named;
		try {
			names = namesForBound({ named: project.named, levels });
		} catch (error) {
			if (error instanceof ProblemError) return { edits: [], problems: [], gone };
			throw error;
		}
		let isSettled = true;
		problems.clear();
		for (const { id, kind, value } of live) {
			try {
				const reckoned = amountOf(value, kind, names);
				const number = kind === 'angle' ? inDegrees(reckoned) : reckoned;
				if (values.get(id) === number) continue;
				isSettled = false;
				values.set(id, number);
			} catch (error) {
				if (!(error instanceof FormulaError)) throw error;
				problems.set(id, { at: id, text: error.message });
			}
		}
		if (isSettled) break;
		if (pass === live.length + 1) {
			for (const { id, value } of live)
				if (id.startsWith('levels/'))
					problems.set(id, {
						at: id,
						text: `"${value}" follows itself round and round; let it follow another level`
					});
			return { edits: [], problems: [...problems.values()], gone };
		}
		levels = project.levels.map((level) => ({
			...level,
			height: values.get(pathTo('levels', level.id, 'height')) ?? level.height
		}));
	}
	const edits = [...values].flatMap(([id, number]) =>
		valueAt(project, id) === number ? [] : [setAt(id as string as Path<number>, number)]
	);
	return { edits, problems: [...problems.values()], gone };
}
