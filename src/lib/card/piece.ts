import type { ModelView } from '$lib/state/model.svelte';
import type { Found } from '$lib/state/selection.svelte';
import type { GroupView } from '$lib/worker/views';

/** A piece as the interface has it: its group, and its row there. */
export interface PieceView {
	readonly group: GroupView;
	readonly row: number;
}

/** The piece that hangs on a site, or null. */
export function pieceAt(view: ModelView, found: Found): PieceView | null {
	for (const group of view.zones[found.zone]!.groups) {
		if (group.face !== found.face || group.over !== found.kind) continue;
		const row = group.sites.indexOf(found.index);
		if (row >= 0) return { group, row };
	}
	return null;
}
