import type { PieceGroup } from '../cladding/pieces';
import type { ClauseGroup, Model, ZoneModel } from '../cladding/model';
import type { Role } from '../project/part-definition';
import { flagSentence } from '../units/flag';
import { besideName, siteOf } from '../cladding/beside';
import type { GridSite } from '../cladding/sites';

/**
 * Full address of what a piece hangs on: zone, face, course, bay, slot or direction.
 *
 * ```ts
 * pieceAddress(zoneModel, group, 0); // gull/gull.skin/C01/B01/1
 * ```
 */
export const pieceAddress = (zone: ZoneModel, group: ClauseGroup, row: number): string =>
	`${zone.zone.id}/${siteOf(zone, group).address(group.group.sites[row]!)}${besideName(group)}`;

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
