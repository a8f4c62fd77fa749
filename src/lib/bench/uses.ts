import type { Project, Zone } from '$core/project/schema';
import { formatNumber } from '$core/units/quantity';
import type { ModelView } from '$lib/state/model.svelte';

/** The variants that the clauses of a zone put, one for each clause; choices by hand of a variant are one. */
function variantsPut({ rules, runs, nodes, exceptions }: Zone): string[] {
	const byHand = exceptions.flatMap(({ put }) => (put !== 'open' && 'variant' in put ? [put.variant] : []));
	return [
		...rules.flatMap(({ put }) => (put === 'open' ? [] : [put.variant])),
		...[...runs, ...nodes].map(({ variant }) => variant),
		...new Set(byHand)
	];
}

/**
 * Where a part is put, in words: in how many clauses, and, once the model has been made, how many pieces of it stand; null
 * where it is not put.
 */
export function usesInWords(
	document: Project,
	{ zones, partial }: Pick<ModelView, 'zones' | 'partial'>,
	part: string
): string | null {
	const variants = new Set(document.variants.filter((one) => one.part === part).map(({ id }) => id));
	const clauses = document.zones.flatMap(variantsPut).filter((variant) => variants.has(variant)).length;
	if (!clauses) return null;
	const put = `in ${clauses} ${clauses === 1 ? 'clause' : 'clauses'}`;
	if (partial || !zones.length) return put;
	const pieces = zones
		.flatMap(({ groups }) => groups)
		.reduce((sum, { variantId, sites }) => sum + (variants.has(variantId) ? sites.length : 0), 0);
	return `${put} · ${formatNumber(pieces)} ${pieces === 1 ? 'piece' : 'pieces'}`;
}
