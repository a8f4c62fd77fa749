import type { Group } from '$core/project/group-schema';
import { pathTo, removeAt } from '$core/project/typed-path';
import { groupOf, membersOf, newGroup, outOfGroup, putInGroup, type Grouped } from '$lib/edits/groups';
import type { Desk } from '$lib/state/desk.svelte';
import type { Act, ActGroup } from '$lib/state/sheet-state.svelte';

/** What a mass or a zone offers of being worked on together with others. */
export function groupActions(
	desk: Desk,
	list: Grouped,
	{ id, name }: { id: string; name: string }
): ActGroup {
	const { document } = desk.project;
	const now = groupOf(document, list, id);
	const make = (zones: readonly string[]) => {
		const members = { masses: list === 'masses' ? [id] : [], zones: [...zones] };
		const { group, edits } = newGroup(document, name, members);
		desk.do(`group ${group.name}`, ...edits);
	};
	const onIt =
		list === 'masses'
			? document.zones.flatMap((zone) => (zone.faces.some(({ mass }) => mass === id) ? [zone.id] : []))
			: [];
	return {
		label: 'Group',
		acts: [
			{ label: 'a new one', act: () => make(list === 'zones' ? [id] : []) },
			...(onIt.length ? [{ label: 'a new one, with its zones', act: () => make(onIt) }] : []),
			...document.groups
				.filter((group) => group !== now)
				.map((group) => ({
					label: group.name,
					act: () => desk.do(`${name} to ${group.name}`, ...putInGroup(document, list, id, group))
				})),
			...(now
				? [
						{
							label: `none: out of ${now.name}`,
							act: () => desk.do(`${name} out of ${now.name}`, ...outOfGroup(document, list, id))
						}
					]
				: [])
		]
	};
}

/** What can be done with all masses and zones of a group at once. */
export function actionsOnGroup(desk: Desk, group: Group): Act[] {
	const { visibility, project } = desk;
	const { document } = project;
	const { masses, zones } = membersOf(document, group);
	const { hidden } = visibility;
	const isHidden = isGroupHidden(desk, group);
	const without = (list: readonly string[], of: readonly string[]) => list.filter((id) => !of.includes(id));
	const paths = [...masses.map((id) => pathTo('masses', id)), ...zones.map((id) => pathTo('zones', id))];
	const isLocked = paths.length > 0 && paths.every((path) => visibility.isLocked(path));
	return [
		{
			label: isHidden ? 'Show them' : 'Leave them out of the picture',
			act: () =>
				visibility.set({
					...hidden,
					masses: [...without(hidden.masses, masses), ...(isHidden ? [] : masses)],
					zones: [...without(hidden.zones, zones), ...(isHidden ? [] : zones)]
				})
		},
		{
			label: 'Show them alone',
			act: () => {
				const others = (all: readonly { id: string }[], own: readonly string[]) =>
					without(
						all.map(({ id }) => id),
						own
					);
				visibility.set({
					...hidden,
					masses: others(document.masses, masses),
					zones: others(document.zones, zones)
				});
			}
		},
		{
			label: isLocked ? 'Unlock them' : 'Lock them',
			act: () => {
				for (const path of paths) if (visibility.isLocked(path) === isLocked) visibility.lock(path);
			}
		},
		{
			label: 'Dissolve the group',
			act: () => desk.do(`group ${group.name} dissolved`, removeAt(pathTo('groups', group.id)))
		}
	];
}

/** Whether none of a group is in the picture. */
export function isGroupHidden({ visibility, project }: Desk, group: Group): boolean {
	const { masses, zones } = membersOf(project.document, group);
	return (
		masses.length + zones.length > 0 &&
		masses.every((id) => visibility.isHidden('masses', id)) &&
		zones.every((id) => visibility.isHidden('zones', id))
	);
}
