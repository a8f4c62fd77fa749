import type { ProjectCard } from '$lib/protocol';

/** What a list of projects may be sorted by. */
export const orders = [
	{ value: 'changed', label: 'last changed' },
	{ value: 'name', label: 'name' },
	{ value: 'pieces', label: 'most pieces' }
] as const;
export type Order = (typeof orders)[number]['value'];

const names = new Intl.Collator('en', { numeric: true, sensitivity: 'base' });
const by: Record<Order, (a: ProjectCard, b: ProjectCard) => number> = {
	changed: (a, b) => b.changedAt.localeCompare(a.changedAt),
	name: (a, b) => names.compare(a.name, b.name),
	pieces: (a, b) => b.pieces - a.pieces
};

/** Projects whose names have all words of a text, in an order. */
export function arranged(projects: readonly ProjectCard[], text: string, order: Order): ProjectCard[] {
	const words = text.toLowerCase().split(/\s+/).filter(Boolean);
	return projects
		.filter(({ name }) => words.every((word) => name.toLowerCase().includes(word)))
		.sort(by[order]);
}
