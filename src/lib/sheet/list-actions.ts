import type { Moves } from '$core/project/moves-schema';
import type { NodePlacing, Rule, Run, Zone } from '$core/project/schema';
import type { Desk } from '$lib/state/desk.svelte';
import { freshId } from '$lib/edits/fresh-id';
import { hasCells, lineKindsOf } from '$lib/edits/zone-clauses';
import type { Act, ActGroup } from '$lib/state/sheet-state.svelte';
import { below, insertAt, moveAt, pathTo, removeAt, type Path } from '$core/project/typed-path';

const names = { rules: 'rule', runs: 'line run', nodes: 'nodes', moves: 'moves of nodes' } as const;
type Item = Rule | Run | NodePlacing | Moves;

/** Where a clause of a zone's lists stands, and how it is moved. */
export function orderOf(desk: Desk, zone: Zone, list: keyof typeof names, id: string) {
	const items: readonly { id: string }[] = zone[list];
	const move = (to: number) => {
		if (to < items.length)
			desk.do(`${zone.name}: ${names[list]} moved`, moveAt(pathTo('zones', zone.id, list, id), to));
	};
	return { list: `${zone.id}/${list}`, index: items.findIndex((one) => one.id === id), move };
}

/** Whether a zone has places for a clause of another: cells for a rule, lines of its kinds or chains for a run. */
function takes(zone: Zone, list: keyof typeof names, item: Item): boolean {
	// They are of the faces that they were found for.
	if (list === 'moves') return false;
	if (list === 'rules') return hasCells(zone);
	if (list === 'nodes' || !('over' in item)) return true;
	if (item.over === 'chains') return !hasCells(zone) && zone.on.is !== 'web';
	return item.lines.some((kind) => lineKindsOf(zone).includes(kind));
}

/** What can be done with any clause of a zone's lists: mute, move, copy, remove. */
export function listActions(
	desk: Desk,
	zone: Zone,
	list: keyof typeof names,
	item: Item
): (Act | ActGroup)[] {
	const items: readonly { id: string }[] = zone[list];
	const index = items.findIndex((one) => one.id === item.id);
	const path = pathTo('zones', zone.id, list, item.id);
	const name = names[list];
	const move = (to: number) => desk.do(`${zone.name}: ${name} moved`, moveAt(path, to));
	const others = desk.project.document.zones.filter((one) => one.id !== zone.id && takes(one, list, item));
	const copyTo = (other: Zone) =>
		insertAt(pathTo('zones', other.id, list) as Path<(typeof item)[]>, other[list].length, {
			...item,
			id: freshId(item.id, other[list])
		});
	const copies = (): Act[] => [
		...(others.length > 1
			? [
					{
						label: `all ${others.length} of these`,
						act: () => desk.do(`${name} copied to ${others.length} zones`, ...others.map(copyTo))
					}
				]
			: []),
		...others.map((other) => ({
			label: other.name,
			act: () => desk.do(`${name} copied to ${other.name}`, copyTo(other))
		}))
	];
	return [
		{
			label: item.muted ? 'Unmute' : 'Mute',
			act: () =>
				desk.set(
					below(path, 'muted'),
					!item.muted,
					`${zone.name}: ${name} ${item.muted ? 'unmuted' : 'muted'}`
				)
		},
		{ label: 'Move up', act: () => move(index - 1), disabled: index === 0 && 'It is the first' },
		{
			label: 'Move down',
			act: () => move(index + 1),
			disabled: index === items.length - 1 && 'It is the last'
		},
		...(others.length ? [{ label: 'Copy to', acts: copies() }] : []),
		{ label: 'Remove', act: () => desk.do(`${zone.name}: ${name} removed`, removeAt(path)) }
	];
}
