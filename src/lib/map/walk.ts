import { addressOf, find } from '$lib/state/selection.svelte';
import type { Desk } from '$lib/state/desk.svelte';
import { flatLayout } from '$core/measure/flat-layout';
import { neighbour, type Way } from './neighbours';

/** Go from the last chosen cell to its neighbour; the first cell of the zone on the map when none is chosen. */
export function walk(desk: Desk, way: Way, extend: boolean): void {
	const { view } = desk.model;
	const from = desk.selection.last ? find(view, desk.selection.last) : null;
	if (!from || from.kind !== 'cell') {
		const zone = view.zones.findIndex((one) => one.id === desk.activeZone);
		if (view.zones[zone]?.faces[0]?.cells.count)
			desk.selection.choose([addressOf(view, { zone, face: 0, kind: 'cell', index: 0 })]);
		return;
	}
	const face = view.zones[from.zone]!.faces[from.face]!;
	const to = neighbour(face, flatLayout(face), from.index, way);
	if (to === null) return;
	const address = addressOf(view, { ...from, index: to });
	if (extend) desk.selection.extend([address]);
	else desk.selection.choose([address]);
}
