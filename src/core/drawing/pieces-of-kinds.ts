import { besideName } from '../cladding/beside';
import type { Kind } from '../like/kinds';
import type { GroupSource } from '../schedule/sources';

/** The pieces of one kind; the first stands for all of them. */
export interface PiecesOfKind {
	readonly kind: Kind;
	readonly source: GroupSource;
	readonly row: number;
	readonly marks: readonly string[];
}

/** What pieces hang on that are told by kinds. */
export type KindsOver = 'cell' | 'line' | 'node';

/** All kinds there are, and which of them each piece of a group is of. */
function kindsOver(
	over: KindsOver,
	{ kinds, barKinds, nodeKinds }: GroupSource
): { readonly all: readonly Kind[]; readonly of: (source: GroupSource) => (row: number) => number } {
	if (over === 'cell') {
		const { kinds: all, of } = kinds();
		return {
			all,
			of:
				({ z, clause, group }) =>
				(row) =>
					of[z]![clause.face]![group.sites[row]!]!
		};
	}
	const { kinds: all, of } = over === 'line' ? barKinds() : nodeKinds();
	return {
		all,
		of:
			({ clause }) =>
			(row) =>
				of.get(clause)![row]!
	};
}

/**
 * Pieces on cells, along lines or on nodes by their kinds, in the order of the kinds.
 *
 * ```ts
 * const [first] = piecesByKind(sourcesOf(model), 'line');
 * ```
 */
export function piecesByKind(sources: readonly GroupSource[], over: KindsOver): PiecesOfKind[] {
	const own = sources.filter(({ group, clause }) => group.over === over && !besideName(clause));
	if (!own.length) return [];
	const { all, of } = kindsOver(over, own[0]!);
	const found = new Map<number, { source: GroupSource; row: number; marks: string[] }>();
	for (const source of own) {
		const kindOf = of(source);
		for (const [row, mark] of source.marks().entries()) {
			const known = found.get(kindOf(row)) ?? { source, row, marks: [] };
			found.set(kindOf(row), known);
			known.marks.push(mark);
		}
	}
	return all.flatMap((kind, k) => (found.has(k) ? [{ kind, ...found.get(k)! }] : []));
}
