import { limitsBeyond, worstBeyond, worstFlags } from '$core/cladding/flag-table';
import { pathTo } from '$core/project/typed-path';
import type { ModelView, ToldGroup } from './model.svelte';
import { piecesAt } from './pieces-at';
import { addressOf, find } from './selection.svelte';

/** A piece that something is told of. */
export interface FlaggedPiece {
	readonly address: string;
	/** How bad the worst of it is. */
	readonly badness: number;
	/** The path of the clause that put it there. */
	readonly clause: string;
}

/** Where the clauses of a zone are that put pieces; those of choices by hand are one. */
const lists = { rule: 'rules', run: 'runs', nodes: 'nodes' } as const;
const clausePath = (zone: string, { kind, id }: ToldGroup['clause']): string =>
	kind === 'exception' ? pathTo('zones', zone, 'exceptions') : pathTo('zones', zone, lists[kind], id);

/** The address of a row of a group, by the zone's place in the view. */
const addressAt = (view: ModelView, zone: number, { face, over: kind, sites }: ToldGroup, row: number) =>
	addressOf(view, { zone, face, kind, index: sites[row]! });

/**
 * Every piece that something is told of, the worst first.
 * @param refused what nobody can make, by address: the worst of all
 */
export function flaggedPieces(view: ModelView, refused: ReadonlyMap<string, unknown>): FlaggedPiece[] {
	const found: FlaggedPiece[] = [];
	for (const address of refused.keys()) {
		const site = find(view, address);
		const [piece] = site ? piecesAt(view, site) : [];
		if (site && piece)
			found.push({
				address,
				badness: Infinity,
				clause: clausePath(view.zones[site.zone]!.id, piece.group.clause)
			});
	}
	for (const [zone, { id, groups }] of view.zones.entries())
		for (const group of groups) {
			const clause = clausePath(id, group.clause);
			const { rows, badness } = worstFlags(group.flags);
			rows.forEach((row, k) => {
				const address = addressAt(view, zone, group, row);
				if (!refused.has(address)) found.push({ address, badness: badness[k]!, clause });
			});
		}
	// Two that are refused are as bad as each other: infinite less infinite is no number.
	return found.sort((a, b) => (a.badness === b.badness ? 0 : b.badness - a.badness));
}

/** The pieces that go beyond a limit, those that go furthest first. */
export function piecesBeyond(view: ModelView, limit: string): string[] {
	const found: Omit<FlaggedPiece, 'clause'>[] = [];
	for (const [zone, { groups }] of view.zones.entries())
		for (const group of groups) {
			const { rows, badness } = worstBeyond(group.flags, limit);
			rows.forEach((row, k) =>
				found.push({ address: addressAt(view, zone, group, row), badness: badness[k]! })
			);
		}
	return found.sort((a, b) => b.badness - a.badness).map(({ address }) => address);
}

/** How many pieces go beyond each limit, by its id. */
export function countsBeyond(view: ModelView): ReadonlyMap<string, number> {
	const counts = new Map<string, number>();
	for (const { groups } of view.zones)
		for (const { flags } of groups)
			for (const limit of limitsBeyond(flags))
				counts.set(limit, (counts.get(limit) ?? 0) + worstBeyond(flags, limit).rows.length);
	return counts;
}
