import type { ClauseGroup, ZoneModel } from './model';
import { siteSetOf, type SiteSet } from './sites';

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

/**
 * The sites of a face that a group of pieces hangs on.
 *
 * ```ts
 * siteOf(zoneModel, group).address(3);
 * ```
 */
export const siteOf = (zone: ZoneModel, { face, group }: ClauseGroup): SiteSet =>
	siteSetOf(zone.faces[face]!, group.over);
