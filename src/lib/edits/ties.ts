import { settingOutOf } from '$core/chain/other-zones';
import type { Project, Zone } from '$core/project/schema';

/** The setting-out that a zone has: its own where what it is set out as is not there. */
export function settingOutFor(document: Project, zone: Zone): Zone['settingOut'] {
	try {
		return settingOutOf(document, zone);
	} catch {
		return zone.settingOut;
	}
}

/** Zones that a zone can be set out as: those on faces that are not set out as it, by themselves or by others. */
export function tiesFor({ zones }: Project, zone: Zone): Zone[] {
	const leadsHere = (one: Zone): boolean => {
		const passed = new Set<string>();
		for (let at: Zone | undefined = one; at && !passed.has(at.id);) {
			if (at.id === zone.id) return true;
			passed.add(at.id);
			const next: string | null = at.setOutAs;
			at = zones.find(({ id }) => id === next);
		}
		return false;
	};
	return zones.filter((one) => one.on.is === 'faces' && !leadsHere(one));
}
