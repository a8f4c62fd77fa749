import { pathSegment, type Edit } from '$core/project/commands';
import type { Project, Rule } from '$core/project/schema';

/**
 * The edits that put something on cells by hand, or leave them to the rules again.
 * @param addresses zone/face/course/bay/slot of every cell
 * @param put null for what the rules say
 */
export function exceptionEdits(
	document: Project,
	addresses: readonly string[],
	put: Rule['put'] | null
): Edit[] {
	return document.zones.flatMap((zone): Edit[] => {
		const ids = addresses
			.filter((address) => address.startsWith(`${zone.id}/`))
			.map((address) => address.slice(zone.id.length + 1));
		const list = `zones/${zone.id}/exceptions`;
		const known = ids.filter((id) => zone.exceptions.some((one) => one.id === id));
		const gone = known.map((id): Edit => ({ do: 'remove', path: `${list}/${pathSegment(id)}` }));
		if (put === null) return gone;
		const from = zone.exceptions.length - gone.length;
		const added = ids.map((id, k): Edit => ({
			do: 'insert',
			path: list,
			index: from + k,
			value: { id, put }
		}));
		return [...gone, ...added];
	});
}
