import type { Project, Zone } from '../project/schema';
import { refuse } from '../units/problem';
import type { Run } from './stage';

/** A zone that another stands on. @param at where it is named @throws ProblemError */
export function zoneNamed({ project }: Run, id: string, at: string): Zone {
	const zone = project.zones.find((one) => one.id === id);
	if (zone) return zone;
	const known = project.zones.map(({ name }) => name).join(', ');
	return refuse(at, `the zone "${id}" is not there any more; there are ${known}`);
}

/** The zone on faces that a zone is, or lies behind. */
export function rootOf({ zones }: Project, zone: Zone): Zone | null {
	if (zone.on.is === 'faces') return zone;
	if (zone.on.is !== 'layer') return null;
	const { of } = zone.on;
	const parent = zones.find(({ id }) => id === of);
	return parent?.on.is === 'faces' ? parent : null;
}
