import { NO_CELL } from '$core/pattern/edges';
import type { ModelView } from './model.svelte';
import { find } from './selection.svelte';

/** The cells and edges of one face that are shown alone. */
export interface ShownAlone {
	readonly cells: ReadonlySet<number>;
	readonly edges: ReadonlySet<number>;
}

/** What is shown of every face, by zone and face, when some addresses are isolated; cells bring their rims. */
export function shownAlone(
	view: ModelView,
	addresses: readonly string[]
): (zone: number, face: number) => ShownAlone {
	const byFace = new Map<string, { cells: Set<number>; edges: Set<number> }>();
	const of = (zone: number, face: number) => {
		const key = `${zone} ${face}`;
		const known = byFace.get(key) ?? { cells: new Set<number>(), edges: new Set<number>() };
		byFace.set(key, known);
		return known;
	};
	for (const address of addresses) {
		const one = find(view, address);
		if (one) of(one.zone, one.face)[one.kind === 'cell' ? 'cells' : 'edges'].add(one.index);
	}
	for (const [z, zone] of view.zones.entries())
		for (const [f, { edges }] of zone.faces.entries()) {
			const alone = of(z, f);
			if (!alone.cells.size) continue;
			for (let e = 0; e < edges.count; e++)
				for (const cell of [edges.left[e]!, edges.right[e]!])
					if (cell !== NO_CELL && alone.cells.has(cell)) alone.edges.add(e);
		}
	return of;
}
