import type { Model } from '$core/cladding/model';
import type { Given, PieceMeasure } from '$core/limit/measure';
import { measuresFor } from '$core/limit/measures';

/** What is reckoned of one piece, with how. */
export interface ReckonedFigure extends Pick<PieceMeasure, 'id' | 'label' | 'kind' | 'how'> {
	readonly lacks: string | null;
	/** Null where it has none. */
	readonly value: number | null;
	/** What it is reckoned from here. */
	readonly given: readonly Given[];
}

/** All that is reckoned of a piece. @param serial of its group @throws Error when the model has another one by now */
export function reckonedOf({ zones, project }: Model, serial: number, row: number): ReckonedFigure[] {
	for (const { model: zone } of zones)
		for (const clause of zone?.groups ?? []) {
			if (clause.serial !== serial) continue;
			const { group, face } = clause;
			return measuresFor([group.ready.part], project)
				.filter(({ over }) => over === null || over === group.over)
				.map(({ id, label, kind, how, lacks, read, given }) => {
					// Every value counts as beyond a bound that nothing can stay within: it is reckoned exactly.
					const exact = { than: 'most', bound: -Infinity } as const;
					const value = read(zone!.faces[face]!, group, exact, () => true)[row]!;
					return {
						id,
						label,
						kind,
						how,
						lacks: lacks ?? null,
						value: Number.isFinite(value) ? value : null,
						given: (Number.isFinite(value) ? given?.(zone!.faces[face]!, group, row) : undefined) ?? []
					};
				});
		}
	throw new Error('the model has changed since');
}
