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
	const glassArea = new Float64Array(n);
	const barLength = new Float64Array(n);
	const connectorLength = new Float64Array(n);
	const definitions = group.ready.elements;
	for (const table of group.run.elements) {
		const { category } = definitions[table.element]!;
		const { density, glass: isGlass } = group.ready.materials[table.element]!;
		const glass = category === 'plate' && isGlass;
		for (let k = 0; k < table.count; k++) {
			const row = table.row[k]!;
			mass[row]! += massOf(table.volume[k]!, density);
			if (glass) glassArea[row]! += table.area[k]!;
			if (category === 'bar') barLength[row]! += table.length[k]!;
			if (category === 'connector') connectorLength[row]! += table.length[k]!;
		}
	}
	const cutLength = barLength.map((bars, row) => bars || connectorLength[row]!);
	return { mass, glassArea, barLength, cutLength };
}
