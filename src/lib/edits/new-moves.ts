import type { Edit } from '$core/project/edits';
import type { MoveAim, Moves } from '$core/project/moves-schema';
import type { Zone } from '$core/project/schema';
import { insertAt, pathTo } from '$core/project/typed-path';
import { freshId } from './fresh-id';

/** A clause that moves the nodes of a zone; what it moves is looked for next. */
export function newMoves(zone: Zone, aim: MoveAim): { readonly moves: Moves; readonly edit: Edit } {
	const moves: Moves = {
		id: freshId('moves', zone.moves),
		muted: false,
		aim,
		most: 20,
		within: 1,
		kinds: null,
		keeps: { rims: true, levels: false, openings: true },
		faces: []
	};
	return { moves, edit: insertAt(pathTo('zones', zone.id, 'moves'), zone.moves.length, moves) };
}
