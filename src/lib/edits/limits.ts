import { shippedLimits } from '$core/limit/shipped';
import type { Edit } from '$core/project/edits';
import type { Limit } from '$core/project/limit-schema';
import type { Project } from '$core/project/schema';
import { insertAt, pathTo, removeAt, setAt } from '$core/project/typed-path';
import { freshId } from './fresh-id';

/** The limit that ships under the same name, if one does. */
export const shippedAs = (id: string): Limit | undefined => shippedLimits.find((one) => one.id === id);

/** A limit put otherwise: one that ships is the project's own from then on. */
export function changeLimit({ limits }: Project, limit: Limit, next: Partial<Limit>): Edit {
	const changed = { ...limit, ...next };
	const isOwn = limits.some(({ id }) => id === limit.id);
	return isOwn
		? setAt(pathTo('limits', limit.id), changed)
		: insertAt(pathTo('limits'), limits.length, changed);
}

/** Take a limit of the project's own away: one that ships is as it was. */
export const dropLimit = ({ id }: Limit): Edit => removeAt(pathTo('limits', id));

/** A new limit of a measure. */
export function newLimit({ limits }: Project, of: string, bound: number): { limit: Limit; edit: Edit } {
	const limit: Limit = {
		id: freshId('limit', [...shippedLimits, ...limits]),
		of,
		than: 'most',
		bound,
		material: null,
		part: null,
		zone: null,
		muted: false,
		source: 'Of this project'
	};
	return { limit, edit: insertAt(pathTo('limits'), limits.length, limit) };
}
