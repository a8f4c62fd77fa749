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

/**
 * Pieces on cells by their kinds, in the order of the kinds.
 *
 * ```ts
 * const [first] = piecesByKind(sourcesOf(model));
 * ```
 */
export function piecesByKind(sources: readonly GroupSource[]): PiecesOfKind[] {
	const [first] = sources;
	if (!first) return [];
	const { kinds, of } = first.kinds();
	const found = new Map<number, { source: GroupSource; row: number; marks: string[] }>();
	for (const source of sources) {
		const { group, clause, z, marks } = source;
		if (group.over !== 'cell' || besideName(clause)) continue;
		const called = marks();
		group.sites.forEach((site, row) => {
			const kind = of[z]![clause.face]![site]!;
			const known = found.get(kind) ?? { source, row, marks: [] };
			found.set(kind, known);
			known.marks.push(called[row]!);
		});
	}
	return kinds.flatMap((kind, k) => (found.has(k) ? [{ kind, ...found.get(k)! }] : []));
}
