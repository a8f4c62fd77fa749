import { pathTo } from '$core/project/typed-path';
import type { Desk } from '$lib/state/desk.svelte';
import type { Act } from '$lib/state/sheet-state.svelte';

/** What a clause offers of showing and locking its zone or mass. @param all ids of those beside it, its own among them */
export function shownActions(
	{ visibility }: Desk,
	list: 'zones' | 'masses',
	id: string,
	all: readonly string[]
): Act[] {
	const path = pathTo(list, id);
	return [
		{
			label: visibility.isHidden(list, id) ? 'Show it' : 'Leave it out of the picture',
			act: () => visibility.toggle(list, id)
		},
		{ label: 'Show it alone', act: () => visibility.alone(list, id, all) },
		{ label: visibility.isLocked(path) ? 'Unlock it' : 'Lock it', act: () => visibility.lock(path) }
	];
}
