import type { Project } from '../project/schema';
import { pathTo } from '../project/typed-path';
import { checkFormula } from '../units/formula/check';
import { evaluateConstant } from '../units/formula/evaluate';
import { FormulaError, type FormulaType } from '../units/formula/expression';
import { ProblemError, refuse } from '../units/problem';

/** Values of the whole project by their names, in kernel units. */
export type Named = ReadonlyMap<string, { readonly type: FormulaType; readonly value: number }>;
export const NOTHING_NAMED: Named = new Map();

/** What formulas are made of. */
const words = new Set(['pi', 'true', 'false', 'and', 'or', 'not', 'cell', 'line', 'node']);

/**
 * The named values of a project in their order, each of those above it.
 *
 * ```ts
 * const { value } = namedValues([{ id: 'storey', value: '3.6 m' }], fieldNames).get('storey')!; // 3600
 * ```
 * @param taken names that mean something else in formulas @throws ProblemError at the one that cannot be
 */
export function namedValues(list: Project['named'], taken: ReadonlySet<string>): Named {
	const named = new Map<string, { type: FormulaType; value: number }>();
	for (const { id, value } of list) {
		if (taken.has(id) || words.has(id))
			refuse(pathTo('named', id), `"${id}" means something else in formulas; give the value another name`);
		try {
			const expression = checkFormula(value, { names: typesOf(named), functions: {} });
			named.set(id, { type: expression.type, value: evaluateConstant(expression, value, valueIn(named)) });
		} catch (error) {
			if (error instanceof FormulaError) refuse(pathTo('named', id, 'value'), error.message);
			throw error;
		}
	}
	return named;
}

/**
 * The same for what can do without: none where one of them cannot be, which is said elsewhere.
 *
 * ```ts
 * const storey = namedOrNone(project).get('storey');
 * ```
 */
export function namedOrNone({ named }: Pick<Project, 'named'>): Named {
	try {
		return namedValues(named, new Set());
	} catch (error) {
		if (error instanceof ProblemError) return NOTHING_NAMED;
		throw error;
	}
}

/**
 * What formulas may name of them.
 *
 * ```ts
 * checkFormula('2 * storey', { names: typesOf(named), functions: {} });
 * ```
 */
export const typesOf = (named: Named): Record<string, FormulaType> =>
	Object.fromEntries([...named].map(([name, { type }]) => [name, type]));

/**
 * Their values, for what was checked with their types.
 *
 * ```ts
 * evaluateConstant(checkFormula('2 * storey', { names: typesOf(named), functions: {} }), '2 * storey', valueIn(named));
 * ```
 */
export const valueIn =
	(named: Named) =>
	(name: string): number | undefined =>
		named.get(name)?.value;

/**
 * Those that some texts name, so that what hangs on no other stays when another changes.
 *
 * ```ts
 * const { size } = namedIn(['2 * storey'], named);
 * ```
 */
export const namedIn = (texts: readonly string[], named: Named): Named =>
	new Map(
		[...named].filter(([name]) => texts.some((text) => new RegExp(`(?<![.\\w])${name}\\b`).test(text)))
	);
