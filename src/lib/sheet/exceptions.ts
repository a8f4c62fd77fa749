import { pathSegment, type Edit } from '$core/project/commands';
import type { Project, Rule } from '$core/project/schema';
import { find } from '$lib/state/selection.svelte';
import type { ModelView } from '$lib/state/model.svelte';

/** Where a cell lies on its face, so that its exception finds the place again when addresses change. */
function placeOf(view: ModelView, address: string): [number, number] | null {
	const found = find(view, address);
	if (found?.kind !== 'cell') return null;
	const face = view.zones[found.zone]!.faces[found.face]!;
	const share = (step: number, steps: number) => Number(((step - 0.5) / steps).toFixed(6));
	return [
		share(face.cells.bay[found.index]!, face.across.steps),
		share(face.cells.course[found.index]!, face.up.steps)
	];
}

/**
 * The edits that put something on cells by hand, or leave them to the rules again.
 * @param addresses zone/face/course/bay/slot of every cell
 * @param put null for what the rules say
 */
export function exceptionEdits(
	document: Project,
	addresses: readonly string[],
	put: Rule['put'] | null,
	view: ModelView
): Edit[] {
	return document.zones.flatMap((zone): Edit[] => {
		// An exception that was put at its place again still goes by the address it was made under.
		const assignments = view.zones.find((one) => one.id === zone.id)?.assignments ?? [];
		const madeAs = new Map(
			assignments.flatMap(({ moved }) => [...moved].map(([old, now]) => [now, old] as const))
		);
		const ids = addresses
			.filter((address) => address.startsWith(`${zone.id}/`))
			.map((address) => address.slice(zone.id.length + 1));
		const list = `zones/${zone.id}/exceptions`;
		const known = ids
			.map((id) => madeAs.get(id) ?? id)
			.filter((id) => zone.exceptions.some((one) => one.id === id));
		const gone = known.map((id): Edit => ({ do: 'remove', path: `${list}/${pathSegment(id)}` }));
		if (put === null) return gone;
		const from = zone.exceptions.length - gone.length;
		const added = ids.map((id, k): Edit => ({
			do: 'insert',
			path: list,
			index: from + k,
			value: { id, place: placeOf(view, `${zone.id}/${id}`), put }
		}));
		return [...gone, ...added];
	});
}
