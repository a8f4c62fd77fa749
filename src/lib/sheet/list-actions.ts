import type { NodePlacing, Rule, Run, Zone } from '$core/project/schema';
import type { Desk } from '$lib/state/desk.svelte';
import { freshId } from '$lib/edits/fresh-id';
import { below, insertAt, moveAt, pathTo, removeAt, type Path } from '$core/project/typed-path';

const names = { rules: 'rule', runs: 'line run', nodes: 'nodes' } as const;

/** Where a clause of a zone's lists stands, and how it is moved. */
export function orderOf(desk: Desk, zone: Zone, list: keyof typeof names, id: string) {
	const items: readonly { id: string }[] = zone[list];
	const move = (to: number) => {
		if (to < items.length)
			desk.do(`${zone.name}: ${names[list]} moved`, moveAt(pathTo('zones', zone.id, list, id), to));
	};
	return { list: `${zone.id}/${list}`, index: items.findIndex((one) => one.id === id), move };
}

/** What can be done with any clause of a zone's lists: mute, move, copy, remove. */
export function listActions(
	desk: Desk,
	zone: Zone,
	list: keyof typeof names,
	item: Rule | Run | NodePlacing
) {
	const items: readonly { id: string }[] = zone[list];
	const index = items.findIndex((one) => one.id === item.id);
	const path = pathTo('zones', zone.id, list, item.id);
	const name = names[list];
	const move = (to: number) => desk.do(`${zone.name}: ${name} moved`, moveAt(path, to));
	const others = desk.project.document.zones.filter((one) => one.id !== zone.id);
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
		...others.map((other) => ({
			label: `Copy to ${other.name}`,
			act: () =>
				desk.do(
					`${name} copied to ${other.name}`,
					insertAt(pathTo('zones', other.id, list) as Path<(typeof item)[]>, other[list].length, {
						...item,
						id: freshId(item.id, other[list])
					})
				)
		})),
		{ label: 'Remove', act: () => desk.do(`${zone.name}: ${name} removed`, removeAt(path)) }
	];
}
