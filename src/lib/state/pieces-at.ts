import type { ModelView } from './model.svelte';
import type { Found } from './selection.svelte';
import type { ToldGroup } from './model.svelte';

/** A piece as the interface has it: its group, and its row there. */
export interface PieceView {
	readonly group: ToldGroup;
	readonly row: number;
}

/** The pieces that hang on a site: first the one that has it, then those beside it. */
export function piecesAt(view: ModelView, found: Found): PieceView[] {
	const pieces = view.zones[found.zone]!.groups.flatMap((group): PieceView[] => {
		if (group.face !== found.face || group.over !== found.kind) return [];
		const row = group.sites.indexOf(found.index);
		return row < 0 ? [] : [{ group, row }];
	});
	return pieces.sort((a, b) => Number(a.group.beside) - Number(b.group.beside));
}
