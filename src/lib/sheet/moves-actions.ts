import type { MoveAim } from '$core/project/moves-schema';
import type { Zone } from '$core/project/schema';
import { below, pathTo, setAt } from '$core/project/typed-path';
import { newMoves } from '$lib/edits/new-moves';
import type { Desk } from '$lib/state/desk.svelte';
import type { Act, ActGroup } from '$lib/state/sheet-state.svelte';

/** Look how nodes are moved best for a clause, and move them. @param id of the clause */
export async function findAgain(desk: Desk, zoneId: string, id: string): Promise<void> {
	const document = desk.project.kept;
	const zone = document.zones.find((one) => one.id === zoneId);
	const moves = zone?.moves.find((one) => one.id === id);
	if (!zone || !moves) return;
	const path = pathTo('zones', zoneId, 'moves', id);
	const found = await desk.moves.look(document, zone, moves, path);
	// The clause may have gone while they were looked for.
	if (
		!found ||
		!desk.project.kept.zones.some((one) => one.id === zoneId && one.moves.some((m) => m.id === id))
	)
		return;
	desk.do(`${zone.name}: nodes moved`, setAt(below(path, 'faces'), [...found.faces]));
}

const offers: readonly { readonly aim: MoveAim; readonly label: string }[] = [
	{ aim: 'flat', label: 'cells are flatter' },
	{ aim: 'conical', label: 'cells are flat, and bars of one depth meet' },
	{ aim: 'translation', label: 'cells are parallelograms, flat by nature' },
	{ aim: 'alike', label: 'fewer kinds of cells are left' }
];

/** Nodes of a zone can be moved so that its cells come out better. */
export const moveOffers = (desk: Desk, zone: Zone): (Act | ActGroup)[] => [
	{
		label: 'Move nodes so that …',
		acts: offers.map(({ aim, label }) => ({
			label,
			act() {
				const { moves, edit } = newMoves(zone, aim);
				if (!desk.do(`${zone.name}: nodes moved so that ${label}`, edit)) return;
				desk.selection.clause = pathTo('zones', zone.id, 'moves', moves.id);
				void findAgain(desk, zone.id, moves.id);
			}
		}))
	}
];
