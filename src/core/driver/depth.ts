import { depthNames, depthsOf } from '../field/depth';
import { refuse } from '../units/problem';
import { followable, NOTHING_FOLLOWED } from '../field/followed';
import type { NodeGrid } from '../grid/node-grid';
import type { Vector } from '../geometry/vector';
import { NOTHING_NAMED, type Named } from '../named/named-values';
import type { PartInput } from '../project/part-definition';
import type { LayerDepth } from '../project/schema';
import { checkDriver } from './check';
import { drive } from './drive';
import { everySite } from '../field/column';

/**
 * The depth of a layer as a value that drivers can give.
 *
 * ```ts
 * const { label } = depthInput;
 * ```
 */
export const depthInput = {
	name: 'depth',
	label: 'Depth',
	kind: 'length',
	default: -900,
	scope: 'per piece'
} as const satisfies PartInput;

/** What a depth names, as texts: a formula, or the words of a driver. */
export const textsOfDepth = (depth: LayerDepth): string[] =>
	typeof depth === 'string'
		? [depth]
		: [...depth.to, ...(depth.is === 'follows' ? [depth.field, ...depth.from] : [])].map(String);

/**
 * The depth at every node of a grid (mm), by a formula or a driver.
 *
 * ```ts
 * const depths = drivenDepths('-900 mm', grid, 'gull.skin', new Map(), pathTo('zones', zone.id, 'layer'));
 * ```
 * @param address of the face @param guides those that it follows (mm) @param at the path of the layer
 * @throws ProblemError
 */
export function drivenDepths(
	depth: LayerDepth,
	grid: NodeGrid,
	address: string,
	guides: ReadonlyMap<string, readonly Vector[]>,
	at: string,
	named: Named = NOTHING_NAMED
): Float64Array {
	if (typeof depth === 'string') return depthsOf(depth, grid, guides, at, named);
	const followed = { ...NOTHING_FOLLOWED, guides };
	// What is known of nodes only when there are cells on them is not known yet.
	const known = Object.keys(depthNames([...guides.keys()]));
	if (depth.is === 'follows' && !known.includes(depth.field))
		refuse(
			`${at}/depth/field`,
			`the depth of a layer cannot follow "${depth.field}"; known: ${known.join(', ')}`
		);
	checkDriver(depth, depthInput, 'length', 'node', followable(followed), named, `${at}/depth`);
	const count = grid.columns * grid.rows;
	const around = { followed, levels: [], slots: [], named, suns: new Map() };
	const asked = { over: 'node' as const, count, source: { grid, address }, around };
	return drive(depth, depthInput, 'length', asked, everySite(count)).values;
}
