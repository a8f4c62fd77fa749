import type { PieceGroup } from '../cladding/pieces';
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
export const isLouverGroup = isOn('cell', 'louver');
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
