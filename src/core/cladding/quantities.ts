import type { ElementTable } from '../part/element-table';
import type { PieceGroup } from './pieces';

/** What the pieces of a group come to, one value per piece. kg, mm², mm. */
export interface PieceQuantities {
	readonly mass: Float64Array;
	readonly glassArea: Float64Array;
	/** Length of its bars. */
	readonly barLength: Float64Array;
	/** Of what it is cut to length from: its bars, or connectors where it has no bars. */
	readonly cutLength: Float64Array;
}

const MM3_PER_M3 = 1e9;
/** kg of so many mm³ at kg/m³. */
const massOf = (volume: number, density: number): number => (volume / MM3_PER_M3) * density;

/**
 * kg of one instance of an element, by its volume and its material's density.
 *
 * ```ts
 * const kilograms = elementMass(group.group, group.group.run.elements[0]!, 0);
 * ```
 */
export function elementMass(group: PieceGroup, table: ElementTable, instance: number): number {
	return massOf(table.volume[instance]!, group.ready.materials[table.element]!.density);
}

/**
 * Sums over the elements of each piece, by row.
 *
 * ```ts
 * const { mass: kilograms } = pieceQuantities(group.group);
 * ```
 */
export function pieceQuantities(group: PieceGroup): PieceQuantities {
	const before = known.get(group);
	if (before) return before;
	const sums = addUp(group);
	known.set(group, sums);
	return sums;
}

/** Limits, costs and lists ask for the same sums. */
const known = new WeakMap<PieceGroup, PieceQuantities>();

function addUp(group: PieceGroup): PieceQuantities {
	const n = group.sites.length;
	const mass = new Float64Array(n);
	// Most groups have no bars, or no glass: what they have none of is one column.
	const none: Float64Array = new Float64Array(n);
	let [glassArea, barLength, connectorLength] = [none, none, none];
	const definitions = group.ready.elements;
	for (const table of group.run.elements) {
		const { category } = definitions[table.element]!;
		const { density, glass } = group.ready.materials[table.element]!;
		addTo(mass, table, table.volume, massOf(1, density));
		if (category === 'plate' && glass) glassArea = addTo(glassArea, table, table.area, 1, none);
		if (category === 'bar') barLength = addTo(barLength, table, table.length, 1, none);
		if (category === 'connector') connectorLength = addTo(connectorLength, table, table.length, 1, none);
	}
	const cutLength =
		connectorLength === none ? barLength : barLength.map((bars, row) => bars || connectorLength[row]!);
	return { mass, glassArea, barLength, cutLength };
}

/** Add what the instances of an element have, times a factor, to sums by row; where there are none yet, to new ones. */
function addTo(
	sums: Float64Array,
	{ row, count }: ElementTable,
	of: Float64Array,
	factor: number,
	none: Float64Array | null = null
): Float64Array {
	const to = sums === none ? new Float64Array(sums.length) : sums;
	for (let k = 0; k < count; k++) to[row[k]!]! += of[k]! * factor;
	return to;
}
