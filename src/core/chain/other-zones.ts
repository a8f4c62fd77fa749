import type { Project, Zone } from '../project/schema';
import type { SettingOut } from '../project/setting-out-schema';
import { pathTo } from '../project/typed-path';
import { refuse } from '../units/problem';
import type { Run } from './stage';

/** A zone that another stands on. @param at where it is named @throws ProblemError */
export function zoneNamed({ project }: Run, id: string, at: string): Zone {
	const zone = project.zones.find((one) => one.id === id);
	if (zone) return zone;
	const known = project.zones.map(({ name }) => name).join(', ');
	return refuse(at, `the zone "${id}" is not there any more; there are ${known}`);
}

/**
 * The setting-out of a zone: its own, or that of the zone it is set out as, which may be set out as a further one.
 *
 * ```ts
 * const { across } = settingOutOf(project, zone);
 * ```
 * @throws ProblemError
 */
export function settingOutOf({ zones }: Pick<Project, 'zones'>, zone: Zone): SettingOut {
	const at = pathTo('zones', zone.id, 'setOutAs');
	const passed = new Set([zone.id]);
	let from = zone;
	while (from.setOutAs !== null) {
		const { setOutAs } = from;
		const next = zones.find(({ id }) => id === setOutAs);
		if (!next)
			return refuse(at, `the zone "${setOutAs}" that ${from.name} is set out as is not there any more`);
		if (passed.has(next.id))
			return refuse(
				at,
				from === zone
					? `${zone.name} cannot be set out as itself; give it its own`
					: `${zone.name} and ${from.name} are set out as each other; give one of them its own`
			);
		passed.add(next.id);
		from = next;
	}
	return from.settingOut;
}

/** The zone on faces that a zone is, or lies behind. */
export function rootOf({ zones }: Project, zone: Zone): Zone | null {
	if (zone.on.is === 'faces') return zone;
	if (zone.on.is !== 'layer') return null;
	const { of } = zone.on;
	const parent = zones.find(({ id }) => id === of);
	return parent?.on.is === 'faces' ? parent : null;
}
