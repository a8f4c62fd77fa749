import type { Zone } from '$core/project/schema';
import { isWithin } from '$core/project/paths';
import { pathTo, removeAt } from '$core/project/typed-path';
import {
	chainsOn,
	chainThrough,
	gridBeside,
	stationsAlong,
	webTo,
	type NewStanding
} from '$lib/edits/new-standing';
import { removal } from '$lib/edits/removal';
import { usersOf } from '$lib/edits/users';
import type { Desk } from '$lib/state/desk.svelte';
import { find } from '$lib/state/selection.svelte';
import type { Act, ActGroup } from '$lib/state/sheet-state.svelte';
import { groupActions } from './group-actions';
import { shownActions } from './shown-actions';

/** Make a zone that stands on another; it is worked on next. */
export function make(desk: Desk, { zone, edits }: NewStanding): void {
	if (!desk.do(`${zone.name} added`, ...edits)) return;
	desk.activeZone = zone.id;
	desk.selection.clause = `${pathTo('zones', zone.id)}/on`;
}

/** Names of the chosen nodes of a zone's first face, as they were chosen. */
function chosenNodes(desk: Desk, zone: Zone): string[] {
	return desk.selection.addresses.flatMap((address) => {
		const found = find(desk.model.view, address);
		const isHere = found?.kind === 'node' && found.face === 0 && address.startsWith(`${zone.id}/`);
		return isHere ? (address.split('/N/')[1] ?? []) : [];
	});
}

/** What can be made from a zone, as it is offered; it can be looked at before it is taken. */
export interface Offer {
	readonly label: string;
	readonly note: string;
	readonly made: () => NewStanding;
}

/** What can be made from a zone: grids behind and before it, lines to it, stations along it. */
export function madeFromZone(desk: Desk, zone: Zone): Offer[] {
	// As it stands without what is only looked at.
	const { zones } = desk.project.done;
	const { on } = zone;
	const stations: Offer = {
		label: 'Stations along a rim',
		note: 'posts, and rails in the gaps between them',
		made: () => stationsAlong(zone, zones)
	};
	const state = desk.model.view.zones.find(({ id }) => id === zone.id);
	const nodes = chosenNodes(desk, zone);
	const chains: Offer =
		nodes.length > 1
			? {
					label: `A chain through the ${nodes.length} chosen nodes`,
					note: 'one tube through all, in the order they were chosen',
					made: () => chainThrough(zone, zones, nodes)
				}
			: {
					label: 'Chains through its nodes',
					note: 'tubes from node to node, turned and mirrored, woven',
					made: () => chainsOn(zone, zones, state?.faces[0])
				};
	if (on.is === 'faces')
		return [
			{
				label: 'A grid behind it',
				note: '600 mm inside, with its own pattern, bars and panels',
				made: () => gridBeside(zone, zones, 'behind')
			},
			{
				label: 'A grid before it',
				note: '600 mm outside: a screen, a second skin',
				made: () => gridBeside(zone, zones, 'before')
			},
			stations,
			chains
		];
	if (on.is === 'layer')
		return [
			{
				label: 'A web to the grid it stands on',
				note: 'uprights and diagonals from node to node',
				made: () => webTo(zone, on, zones)
			},
			stations,
			chains
		];
	return [];
}

/** What the first clause of a zone offers. */
export function zoneActions(desk: Desk, zone: Zone): (Act | ActGroup)[] {
	const { document } = desk.project;
	const path = pathTo('zones', zone.id);
	const standing = standingOn(zone, document.zones);
	return [
		...madeFromZone(desk, zone).map(({ label, made }) => ({ label, act: () => make(desk, made()) })),
		groupActions(desk, 'zones', zone),
		...shownActions(
			desk,
			'zones',
			zone.id,
			document.zones.map(({ id }) => id)
		),
		removal(desk, {
			label: 'Remove the zone',
			name: zone.name,
			edit: removeAt(path),
			users: () => usersOf(document, 'zones', zone.id).filter((user) => !isWithin(user.path, path)),
			...(standing.length && {
				together: {
					label: standing.length > 1 ? 'Remove them too' : 'Remove it too',
					edits: standing.map(({ id }) => removeAt(pathTo('zones', id)))
				}
			})
		})
	];
}

/** The zones that would have nothing left to stand on. */
function standingOn(zone: Zone, zones: readonly Zone[]): Zone[] {
	const next = zones.filter(({ on }) =>
		on.is === 'layer'
			? on.of === zone.id
			: on.is === 'web'
				? on.from === zone.id || on.to === zone.id
				: on.is === 'chains'
					? on.of === zone.id
					: on.is === 'path' &&
						(on.along.is === 'guide' ? on.along.towards?.of === zone.id : on.along.of === zone.id)
	);
	return [...new Set(next.flatMap((one) => [...standingOn(one, zones), one]))];
}
