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

/** Addresses of rows of a group, by the zone's place in the view. */
function* addressesOf(
	view: ModelView,
	zone: number,
	group: ToldGroup,
	rows: Iterable<number>
): Iterable<[string, number]> {
	const { face, over: kind, sites } = group;
	for (const row of rows) yield [addressOf(view, { zone, face, kind, index: sites[row]! }), row];
}

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
			for (const [address, row] of addressesOf(view, zone, group, group.flags.keys()))
				if (!refused.has(address)) found.push({ address, badness: group.worst.get(row)!, clause });
		}
	// Two that are refused are as bad as each other: infinite less infinite is no number.
	return found.sort((a, b) => (a.badness === b.badness ? 0 : b.badness - a.badness));
}

/** The pieces that go beyond a limit, those that go furthest first. */
export function piecesBeyond(view: ModelView, limit: string): string[] {
	const found: Omit<FlaggedPiece, 'clause'>[] = [];
	for (const [zone, { groups }] of view.zones.entries())
		for (const group of groups)
			for (const [address, row] of addressesOf(view, zone, group, group.beyond.get(limit) ?? []))
				found.push({ address, badness: group.worst.get(row)! });
	return found.sort((a, b) => b.badness - a.badness).map(({ address }) => address);
}

/** How many pieces go beyond each limit, by its id. */
export function countsBeyond(view: ModelView): ReadonlyMap<string, number> {
	const counts = new Map<string, number>();
	for (const { groups } of view.zones)
		for (const { beyond } of groups)
			for (const [limit, rows] of beyond) counts.set(limit, (counts.get(limit) ?? 0) + rows.length);
	return counts;
}
