import type { Project } from '$core/project/schema';
import type { ModelView } from '$lib/state/model.svelte';

/** How many clauses put a part, and how many pieces of it stand in the model. */
export function usesOf(
	document: Project,
	view: ModelView,
	part: string
): { readonly clauses: number; readonly pieces: number } {
	const variants = new Set(document.variants.filter((one) => one.part === part).map(({ id }) => id));
	const clauses = document.zones.reduce(
		(sum, zone) =>
			sum +
			zone.rules.filter(({ put }) => put !== 'open' && variants.has(put.variant)).length +
			zone.runs.filter((run) => variants.has(run.variant)).length,
		0
	);
	const groups = view.zones.flatMap((zone) => zone.groups);
	const pieces = groups
		.filter((group) => variants.has(group.variantId))
		.reduce((sum, { sites }) => sum + sites.length, 0);
	return { clauses, pieces };
}
