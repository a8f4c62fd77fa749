import type { Vector } from '../geometry/vector';
import type { NodeGrid } from '../grid/node-grid';
import { dimensionOf, LENGTH } from '../units/dimension';
import { checkFormula } from '../units/formula/check';
import { FormulaError, numberOf } from '../units/formula/expression';
import { evaluateColumns } from '../units/formula/evaluate';
import { NOTHING_NAMED, typesOf, type Named } from '../named/named-values';
import { refuse } from '../units/problem';
import { columnValues, everySite } from './column';
import type { Field } from './field';
import { fieldsOver } from './fields';
import { NOTHING_TO_FOLLOW } from './followed';

/** A depth further from the face than this is a mistake (mm). */
const DEEPEST = 1e6;

/** The fields that a depth may follow: those that nodes have before cells are laid, and how far guides are. */
const fieldsOfDepth = (guides: readonly string[]): readonly Field[] => [
	...fieldsOver('node', { ...NOTHING_TO_FOLLOW, guides }).filter(({ needs }) =>
		needs.every((need) => need === 'grid' || need === 'guides')
	)
];

/**
 * What the formula of a depth may name.
 *
 * ```ts
 * const known = Object.keys(depthNames(['wave'])); // height, …, distance.wave
 * ```
 * @param guides ids of the guides there are
 */
export const depthNames = (guides: readonly string[]) =>
	Object.fromEntries(fieldsOfDepth(guides).map(({ name, kind }) => [name, numberOf(dimensionOf(kind))]));

/**
 * The depth at every node of the grid (mm).
 *
 * ```ts
 * const depths = depthsOf('-900 mm + height / 10', grid, guides, pathTo('zones', zone.id, 'layer'));
 * ```
 * @param guides those that it follows, as lines (mm) @param at the path of the layer
 * @throws ProblemError for a formula that cannot be read, or has no usable value somewhere
 */
export function depthsOf(
	formula: string,
	grid: NodeGrid,
	guides: ReadonlyMap<string, readonly Vector[]>,
	at: string,
	named: Named = NOTHING_NAMED
): Float64Array {
	const known = [...guides.keys()];
	const expression = (() => {
		try {
			return checkFormula(formula, {
				names: { ...typesOf(named), ...depthNames(known) },
				functions: {},
				expected: numberOf(LENGTH)
			});
		} catch (error) {
			if (error instanceof FormulaError) return refuse(`${at}/depth`, error.message);
			throw error;
		}
	})();
	const { columns, rows } = grid;
	const count = columns * rows;
	const nodes = everySite(count);
	const fields = fieldsOfDepth(known);
	const column = (name: string) => {
		const own = named.get(name);
		if (own) return new Float64Array(count).fill(own.value);
		return columnValues(fields.find((one) => one.name === name)!.column({ grid, guides }, nodes), count);
	};
	const depths = evaluateColumns(expression, column, count);
	const unusable = depths.findIndex((depth) => !(Math.abs(depth) <= DEEPEST));
	if (unusable >= 0) {
		const [bay, course] = [(unusable % columns) + 1, Math.floor(unusable / columns) + 1];
		refuse(`${at}/depth`, `"${formula}" has no usable value at bay ${bay}, course ${course}`);
	}
	return depths;
}
