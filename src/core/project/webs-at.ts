import type { Zone } from './schema';

/**
 * Webs that end at the nodes of a zone.
 *
 * ```ts
 * const asks = websAt(project.zones, zone.id).length > 0;
 * ```
 */
export const websAt = (zones: readonly Zone[], zone: Zone['id']): readonly Zone[] =>
	zones.filter(({ on }) => on.is === 'web' && (on.from === zone || on.to === zone));
