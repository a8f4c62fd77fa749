import type { Zone } from '$core/project/schema';
import { pathTo } from '$core/project/typed-path';
import type { ModelView } from './model.svelte';
import type { Found } from './selection.svelte';

/** The path of the clause that puts what stands on a site there; null where none does. */
export function clauseOf(
	view: ModelView,
	zones: readonly Zone[],
	found: Omit<Found, 'address'>
): string | null {
	const { id, assignments, groups } = view.zones[found.zone]!;
	const zone = zones.find((one) => one.id === id);
	if (!zone) return null;
	if (found.kind === 'cell') {
		const { rule, exception } = assignments[found.face] ?? {};
		if ((exception?.[found.index] ?? -1) >= 0) return pathTo('zones', id, 'exceptions');
		const taking = zone.rules[rule?.[found.index] ?? -1];
		return taking ? pathTo('zones', id, 'rules', taking.id) : null;
	}
	const group = groups.find(
		({ face, over, sites }) => face === found.face && over === found.kind && sites.includes(found.index)
	);
	if (!group) return null;
	return found.kind === 'line'
		? pathTo('zones', id, 'runs', group.clause.id)
		: pathTo('zones', id, 'nodes', group.clause.id);
}
