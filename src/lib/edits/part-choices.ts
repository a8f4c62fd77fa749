import { partsOf } from '$core/cladding/kit';
import { hangsOn, type GridSite } from '$core/cladding/sites';
import type { Edit } from '$core/project/edits';
import type { Project, Variant } from '$core/project/schema';
import { insertAt, pathTo } from '$core/project/typed-path';
import type { ModelView } from '$lib/state/model.svelte';
import { freshId } from './fresh-id';

/** What may be chosen for sites of a kind: a variant that is there, or a part that gets one. */
export interface PartChoice {
	/** The variant's id, or `part ID` for a part that has none yet or gets another. */
	readonly value: string;
	readonly part: string;
	readonly label: string;
	readonly about: string;
	readonly pieces: number;
}

/** How many pieces each variant makes. */
function piecesOf({ zones }: ModelView): ReadonlyMap<string, number> {
	const counts = new Map<string, number>();
	for (const { variantId, sites } of zones.flatMap(({ groups }) => groups))
		counts.set(variantId, (counts.get(variantId) ?? 0) + sites.length);
	return counts;
}

/** How a variant is called where one is chosen: by its part alone while that has no other. */
export function choiceLabel(project: Project, id: string): string {
	const variant = project.variants.find((one) => one.id === id);
	if (!variant) return id;
	const label = partsOf(project).find((part) => part.id === variant.part)?.label ?? variant.part;
	const alone = project.variants.filter(({ part }) => part === variant.part).length === 1;
	return alone ? label : `${label} · ${variant.name}`;
}

/** The variants there are, most used first, and the parts of the kit that fit, each with what it is for. */
export function partChoices(
	project: Project,
	over: GridSite,
	view: ModelView
): { readonly here: readonly PartChoice[]; readonly kit: readonly PartChoice[] } {
	const counts = piecesOf(view);
	const parts = partsOf(project).filter((part) => hangsOn(part, over));
	const here = project.variants.flatMap((variant): PartChoice[] => {
		const part = parts.find(({ id }) => id === variant.part);
		if (!part) return [];
		const label = choiceLabel(project, variant.id);
		const pieces = counts.get(variant.id) ?? 0;
		return [{ value: variant.id, part: part.id, label, about: part.use, pieces }];
	});
	const has = (id: string) => project.variants.some(({ part }) => part === id);
	const kit = parts.map(({ id, label, use }): PartChoice => ({
		value: `part ${id}`,
		part: id,
		label: has(id) ? `${label}, with values of its own` : label,
		about: use,
		pieces: 0
	}));
	return {
		here: [...here].sort((a, b) => b.pieces - a.pieces),
		// Those that are not in use yet come first.
		kit: [...kit.filter(({ part }) => !has(part)), ...kit.filter(({ part }) => has(part))]
	};
}

/**
 * The variant that a choice comes to, with the edit that makes it where it is not there yet.
 * @param zone what a new one is called after
 */
export function chosenVariant(
	project: Project,
	value: string,
	zone: string
): { readonly id: string; readonly edits: readonly Edit[] } {
	if (!value.startsWith('part ')) return { id: value, edits: [] };
	const part = value.slice('part '.length);
	const id = freshId(part, project.variants);
	const names = new Set(project.variants.filter((one) => one.part === part).map(({ name }) => name));
	const base = names.size ? zone.toLowerCase() : 'plain';
	let name = base;
	for (let n = 2; names.has(name); n++) name = `${base} ${n}`;
	const variant: Variant = { id, name, part, values: {} };
	return { id, edits: [insertAt(pathTo('variants'), project.variants.length, variant)] };
}
