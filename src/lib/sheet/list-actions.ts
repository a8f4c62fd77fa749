import type { Rule, Run, Zone } from '$core/project/schema';
import type { Workbench } from '$lib/state/workbench.svelte';
import { freshId } from './words';

/** What can be done with any clause of a zone's lists: mute, move, copy, remove. */
export function listActions(workbench: Workbench, zone: Zone, list: 'rules' | 'runs', item: Rule | Run) {
	const items: readonly { id: string }[] = zone[list];
	const index = items.findIndex((one) => one.id === item.id);
	const path = `zones/${zone.id}/${list}/${item.id}`;
	const name = list === 'rules' ? 'rule' : 'line run';
	const move = (to: number) => workbench.do(`${zone.name}: ${name} moved`, { do: 'move', path, index: to });
	const others = workbench.project.document.zones.filter((one) => one.id !== zone.id);
	return [
		{
			label: item.muted ? 'Unmute' : 'Mute',
			act: () =>
				workbench.set(
					`${path}/muted`,
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
				workbench.do(`${name} copied to ${other.name}`, {
					do: 'insert',
					path: `zones/${other.id}/${list}`,
					index: other[list].length,
					value: { ...item, id: freshId(item.id, other[list]) }
				})
		})),
		{ label: 'Remove', act: () => workbench.do(`${zone.name}: ${name} removed`, { do: 'remove', path }) }
	];
}
