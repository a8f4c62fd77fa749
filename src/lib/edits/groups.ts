import type { Edit } from '$core/project/edits';
import type { Group } from '$core/project/group-schema';
import type { Project } from '$core/project/schema';
import { insertAt, moveAt, pathTo, setAt } from '$core/project/typed-path';
import { freshId } from './fresh-id';

/** Lists of the document whose members can be worked on together. */
export type Grouped = 'masses' | 'zones';

/** What is put into a group, by its ids. */
type Members = Pick<Group, Grouped>;

/** The group of a mass or a zone. */
export const groupOf = ({ groups }: Project, list: Grouped, id: string): Group | undefined =>
	groups.find((group) => group[list].includes(id));

/** The members that are there, in the order of the document. */
export function membersOf(document: Project, group: Group): Members {
	const there = (list: Grouped) => document[list].flatMap(({ id }) => (group[list].includes(id) ? [id] : []));
	return { masses: there('masses'), zones: there('zones') };
}

/** The same groups without some members. */
const without = ({ groups }: Project, { masses, zones }: Members): Group[] =>
	groups.map((group) => ({
		...group,
		masses: group.masses.filter((id) => !masses.includes(id)),
		zones: group.zones.filter((id) => !zones.includes(id))
	}));

/**
 * Members of a group stand next to each other in the document, so that they do on the sheet: those that come stand
 * behind those that are there, and those that leave behind what they leave. The others stay as they are.
 * @param groups as they will be @param coming what joins or leaves one
 */
function moved(
	document: Project,
	groups: readonly Group[],
	list: Grouped,
	coming: readonly string[]
): Edit[] {
	const groupOfId = (id: string) => groups.find((group) => group[list].includes(id));
	const order = document[list].map(({ id }) => id);
	const edits: Edit[] = [];
	const inOrder = document[list].flatMap(({ id }) => (coming.includes(id) ? [id] : []));
	for (const [k, id] of inOrder.entries()) {
		const from = order.indexOf(id);
		const later = inOrder.slice(k + 1);
		order.splice(from, 1);
		const own = groupOfId(id);
		const mates = order.flatMap((one, at) =>
			own && groupOfId(one) === own && !later.includes(one) ? [at] : []
		);
		// Beside none of its own it stays where it is, unless it stands between members of another group.
		const around = order[from - 1] === undefined ? undefined : groupOfId(order[from - 1]!);
		const within = around && order[from] !== undefined && groupOfId(order[from]) === around;
		const last = within ? order.findLastIndex((one) => groupOfId(one) === around) + 1 : from;
		const to = mates.length ? mates.at(-1)! + 1 : last;
		order.splice(to, 0, id);
		if (to !== from) edits.push(moveAt(pathTo(list, id), to));
	}
	return edits;
}

/** What turns the groups of a document into others, and moves members to where they belong. */
function changed(document: Project, groups: readonly Group[], { masses, zones }: Members): Edit[] {
	const sets = groups.flatMap((group) => {
		const before = document.groups.find(({ id }) => id === group.id);
		if (!before) return [insertAt(pathTo('groups'), document.groups.length, group)];
		return (['masses', 'zones'] as const).flatMap((list) =>
			before[list].length === group[list].length ? [] : [setAt(pathTo('groups', group.id, list), group[list])]
		);
	});
	return [...sets, ...moved(document, groups, 'masses', masses), ...moved(document, groups, 'zones', zones)];
}

/** Put a mass or a zone into a group that is there. */
export function putInGroup(document: Project, list: Grouped, id: string, group: Group): Edit[] {
	const coming: Members = { masses: [], zones: [], [list]: [id] };
	const groups = without(document, coming).map((one) =>
		one.id === group.id ? { ...one, [list]: [...one[list], id] } : one
	);
	return changed(document, groups, coming);
}

/** A new group of masses and zones. */
export function newGroup(document: Project, name: string, members: Members): { group: Group; edits: Edit[] } {
	const taken = document.groups.map((one) => one.name);
	let called = name;
	for (let n = 2; taken.includes(called); n++) called = `${name} ${n}`;
	const group: Group = { id: freshId('group', document.groups), name: called, ...members };
	return { group, edits: changed(document, [...without(document, members), group], members) };
}

/** Take a mass or a zone out of its group; it stands behind what is left of it. */
export function outOfGroup(document: Project, list: Grouped, id: string): Edit[] {
	const leaving: Members = { masses: [], zones: [], [list]: [id] };
	return changed(document, without(document, leaving), leaving);
}
