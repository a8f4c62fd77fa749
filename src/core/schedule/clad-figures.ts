import type { Model } from '../cladding/model';
import { pieceQuantities } from '../cladding/quantities';
import { costOf } from '../cost/cost';
import { kindsOf } from '../like/kinds';
import type { Steps } from '../units/steps';

/** What a zone comes to with all that is put on it, to compare it with others. m, kg, the currency of the project. */
export interface CladFigures {
	readonly pieces: number;
	/** Cells that no rule takes. */
	readonly waiting: number;
	/** Different ones, of pieces on cells. */
	readonly kinds: number;
	readonly barLength: number;
	readonly mass: number;
	readonly flagged: number;
	readonly cost: number;
}

/**
 * Add up what the first zone of a model comes to.
 *
 * ```ts
 * const { pieces, kinds } = atOnce(cladFigures(model));
 * ```
 */
export function* cladFigures(model: Model): Steps<CladFigures> {
	let [pieces, barLength, mass, flagged] = [0, 0, 0, 0];
	const zone = model.zones[0]?.model;
	for (const { group } of zone?.groups ?? []) {
		const quantities = pieceQuantities(group);
		pieces += group.sites.length;
		flagged += group.flags.rows().length;
		for (let row = 0; row < group.sites.length; row++) {
			mass += quantities.mass[row]!;
			barLength += quantities.barLength[row]! / 1000;
		}
	}
	const { kinds, of } = yield* kindsOf(model, model.project.like);
	const own = new Set((of[0] ?? []).flatMap((cells) => [...cells]));
	const { zones } = yield* costOf(model);
	const waiting = zone?.assignments.reduce((sum, { untaken }) => sum + untaken, 0) ?? 0;
	return {
		pieces,
		waiting,
		kinds: kinds.filter(({ variant }, kind) => variant !== null && own.has(kind)).length,
		barLength,
		mass,
		flagged,
		cost: zones.get(zone?.zone.id ?? '') ?? 0
	};
}
