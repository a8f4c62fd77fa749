import { NO_CELL } from '$core/pattern/edges';
import type { GridSite } from '$core/cladding/sites';
import type { ModelView } from './model.svelte';
import { find } from './selection.svelte';

/** The sites of one face that are shown alone. */
export type ShownAlone = Readonly<Record<GridSite, ReadonlySet<number>>>;

/** What is shown of every face, by zone and face, when some addresses are isolated; cells bring their rims and corners. */
export function shownAlone(
	view: ModelView,
	addresses: readonly string[]
): (zone: number, face: number) => ShownAlone {
	const byFace = new Map<string, Record<GridSite, Set<number>>>();
	const of = (zone: number, face: number) => {
		const key = `${zone} ${face}`;
		const known = byFace.get(key) ?? {
			cell: new Set(),
			line: new Set(),
			node: new Set(),
			chain: new Set()
		};
		byFace.set(key, known);
		return known;
	};
	for (const address of addresses) {
		const one = find(view, address);
		if (one) of(one.zone, one.face)[one.kind].add(one.index);
	}
	for (const [z, zone] of view.zones.entries())
		for (const [f, { edges }] of zone.faces.entries()) {
			const alone = of(z, f);
			if (!alone.cell.size) continue;
			for (let e = 0; e < edges.count; e++)
				for (const cell of [edges.left[e]!, edges.right[e]!])
					if (cell !== NO_CELL && alone.cell.has(cell)) {
						alone.line.add(e);
						alone.node.add(edges.from[e]!).add(edges.to[e]!);
					}
		}
	return of;
}
