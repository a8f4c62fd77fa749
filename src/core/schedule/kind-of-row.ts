import { besideName } from '../cladding/beside';
import type { Kind } from '../like/kinds';
import type { GroupSource } from './sources';

/**
 * What the pieces of a group are like, among those on the same kind of site; null where nobody looks for it.
 *
 * ```ts
 * const kindOf = kindsOfRows(sourcesOf(model)[0]!);
 * const name = kindOf?.(0).name;
 * ```
 */
export function kindsOfRows(source: GroupSource): ((row: number) => Kind) | null {
	const { group, clause, z, kinds, barKinds, nodeKinds } = source;
	if (group.over === 'cell' && !besideName(clause)) {
		const { kinds: all, of } = kinds();
		const own = of[z]![clause.face]!;
		return (row) => all[own[group.sites[row]!]!]!;
	}
	if (group.over !== 'line' && group.over !== 'node') return null;
	const { kinds: all, of } = group.over === 'line' ? barKinds() : nodeKinds();
	const own = of.get(clause);
	return own ? (row) => all[own[row]!]! : null;
}
