import type { PieceGroup } from '../cladding/pieces';
import type { ElementTable } from '../part/element-table';
import type { ClauseGroup, Model, ZoneModel } from '../cladding/model';
import type { Role } from '../project/part-definition';
import { flagSentence } from '../units/flag';
import { markPrefix } from '../cladding/marks';
import { siteSetOf, type GridSite } from '../cladding/sites';

/**
 * What stands behind the address and the mark of pieces that are put beside others on the same sites: the name of their
 * rule. Of the others nothing does.
 *
 * ```ts
 * besideName(group); // +screen
 * ```
 */
export const besideName = ({ clause }: Pick<ClauseGroup, 'clause'>): string =>
	clause.kind === 'rule' && clause.rule.also ? `+${clause.rule.id}` : '';

const siteOf = (zone: ZoneModel, { face, group }: ClauseGroup) => siteSetOf(zone.faces[face]!, group.over);

/**
 * Full address of what a piece hangs on: zone, face, course, bay, slot or direction.
 *
 * ```ts
 * pieceAddress(zoneModel, group, 0); // gull/gull.skin/C01/B01/1
 * ```
 */
export const pieceAddress = (zone: ZoneModel, group: ClauseGroup, row: number): string =>
	`${zone.zone.id}/${siteOf(zone, group).address(group.group.sites[row]!)}${besideName(group)}`;

/**
 * The mark of a piece, as it is written on it: that of what it hangs on.
 *
 * ```ts
 * pieceMark(zoneModel, group, 0); // GR-C01-B01
 * ```
 */
export const pieceMark = (zone: ZoneModel, group: ClauseGroup, row: number): string =>
	siteOf(zone, group).mark(
		group.group.sites[row]!,
		markPrefix(zone.zone.code, zone.faces.length, group.face)
	) + besideName(group);

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

/** kg of one instance of an element, by its volume and its material's density. */
export function elementMass(group: PieceGroup, table: ElementTable, instance: number): number {
	const material = group.ready.materials[table.element]!;
	return (table.volume[instance]! / MM3_PER_M3) * material.density;
}

/**
 * Sums over the elements of each piece, by row.
 *
 * ```ts
 * const { mass: kilograms } = pieceQuantities(group.group);
 * ```
 */
export function pieceQuantities(group: PieceGroup): PieceQuantities {
	const n = group.sites.length;
	const mass = new Float64Array(n);
	const glassArea = new Float64Array(n);
	const barLength = new Float64Array(n);
	const connectorLength = new Float64Array(n);
	const definitions = group.ready.elements;
	for (const table of group.run.elements) {
		const { category } = definitions[table.element]!;
		const glass = category === 'plate' && group.ready.materials[table.element]!.glass;
		for (let k = 0; k < table.count; k++) {
			const row = table.row[k]!;
			mass[row]! += elementMass(group, table, k);
			if (glass) glassArea[row]! += table.area[k]!;
			if (category === 'bar') barLength[row]! += table.length[k]!;
			if (category === 'connector') connectorLength[row]! += table.length[k]!;
		}
	}
	const cutLength = barLength.map((bars, row) => bars || connectorLength[row]!);
	return { mass, glassArea, barLength, cutLength };
}

/** What is to be said of a piece, in sentences. */
export const flagTexts = ({ flags }: PieceGroup, row: number): string[] => flags.of(row).map(flagSentence);

/** Rows of the pieces that could not be made, ascending: their cells stand in their place. */
export const failedRows = ({ flags }: PieceGroup): number[] => flags.failed();

/** Groups of a zone that belong to one schedule. */
const isOn =
	(over: GridSite, role?: Role) =>
	({ group }: ClauseGroup) =>
		group.over === over && (role === undefined || group.ready.part.role === role);
export const isBarGroup = isOn('line');
export const isConnectorGroup = isOn('node');
export const isPanelGroup = isOn('cell', 'panel');
export const isStructureGroup = (clause: ClauseGroup): boolean =>
	isOn('cell', 'structure')(clause) || isOn('chain')(clause);

/**
 * How many pieces a model has.
 *
 * ```ts
 * countPieces(model); // of all zones
 * ```
 */
export function countPieces(model: Model): number {
	return model.zones.reduce(
		(sum, { model: zone }) => sum + (zone?.groups ?? []).reduce((n, { group }) => n + group.sites.length, 0),
		0
	);
}
