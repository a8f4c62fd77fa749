import type { Edit } from '$core/project/edits';
import { pathTo, removeAt, setAt } from '$core/project/typed-path';
import type { Fit } from '$core/survey/fit';
import type { Desk } from '$lib/state/desk.svelte';
import { newMoves } from './new-moves';

/**
 * Move the nodes of zones to where they were measured, in one step that can be taken back.
 * @param fits by zone, in the order of the document
 * @returns what was moved; null where that was refused
 */
export function fitToSurvey(
	desk: Desk,
	fits: readonly (Fit | null)[]
): { readonly moved: number; readonly following: number } | null {
	const edits: Edit[] = [];
	let [moved, following] = [0, 0];
	desk.model.view.zones.forEach(({ id }, z) => {
		const fit = fits[z];
		const zone = desk.project.document.zones.find((one) => one.id === id);
		if (!fit || !zone || !fit.moved) return;
		moved += fit.moved;
		following += fit.following;
		const before = zone.moves.find(({ aim }) => aim === 'survey');
		if (before) edits.push(removeAt(pathTo('zones', id, 'moves', before.id)));
		const rest = zone.moves.filter((one) => one !== before);
		const { moves, edit } = newMoves({ ...zone, moves: rest }, 'survey');
		edits.push(edit, setAt(pathTo('zones', id, 'moves', moves.id, 'faces'), [...fit.faces]));
	});
	return edits.length && desk.do('fitted to a survey', ...edits) ? { moved, following } : null;
}
