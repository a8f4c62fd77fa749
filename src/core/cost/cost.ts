import type { ClauseGroup, Model } from '../cladding/model';
import { elementMass } from '../cladding/quantities';
import { kindsOf, type Kinds } from '../like/kinds';
import type { Rate } from '../project/rates-schema';
import { scales } from '../units/scale';
import type { Steps } from '../units/steps';

/** What one rate comes to: how many m², m, kg, pieces or kinds, and their cost. */
export interface RateCost {
	readonly amount: number;
	readonly cost: number;
}

/** What a model costs, in the currency of its project. */
export interface Cost {
	readonly total: number;
	/** By the ids of rates that are not muted. */
	readonly rates: ReadonlyMap<string, RateCost>;
	/** By the ids of zones. */
	readonly zones: ReadonlyMap<string, number>;
}

const MM_PER_M = 1000;

/** How much of what a rate is for a group has; kinds are counted over all groups. */
function amountIn({ material, part, per }: Rate, { group }: ClauseGroup): number {
	const { ready, run, sites } = group;
	if (part !== null && ready.part.id !== part) return 0;
	if (per === 'piece' && material === null) return sites.length;
	let sum = 0;
	for (const table of run.elements) {
		if (material !== null && ready.materials[table.element]!.id !== material) continue;
		const { category } = ready.elements[table.element]!;
		for (let k = 0; k < table.count; k++)
			switch (per) {
				case 'area':
					if (category === 'plate') sum += table.area[k]! / scales.area.size;
					break;
				case 'length':
					if (category !== 'plate') sum += table.length[k]! / MM_PER_M;
					break;
				case 'mass':
					sum += elementMass(group, table, k);
					break;
				default:
					sum++;
			}
	}
	return sum;
}

/** Kinds of pieces on cells that a rate is for, by the zone in which each comes first. */
function kindsIn({ part }: Rate, { zones, project }: Model, { kinds, of }: Kinds): Map<string, number> {
	const partOf = new Map(project.variants.map(({ id, part: own }) => [id, own]));
	const seen = new Uint8Array(kinds.length);
	const found = new Map<string, number>();
	for (const [z, { model }] of zones.entries())
		for (const cells of of[z] ?? [])
			for (const kind of cells) {
				if (seen[kind]) continue;
				seen[kind] = 1;
				const { variant } = kinds[kind]!;
				if (variant === null || (part !== null && partOf.get(variant) !== part)) continue;
				found.set(model!.zone.id, (found.get(model!.zone.id) ?? 0) + 1);
			}
	return found;
}

/**
 * What a model costs by the rates of its project.
 *
 * ```ts
 * const { total } = atOnce(costOf(model));
 * ```
 * @returns in steps, since kinds may have to be found
 */
export function* costOf(model: Model): Steps<Cost> {
	const { rates: all } = model.project.cost;
	const asked = all.filter(({ muted }) => !muted);
	const kinds = asked.some(({ per }) => per === 'kind') ? yield* kindsOf(model, model.project.like) : null;
	const zones = new Map<string, number>();
	const rates = new Map<string, RateCost>();
	let total = 0;
	for (const rate of asked) {
		const inKinds = rate.per === 'kind' ? kindsIn(rate, model, kinds!) : null;
		let amount = 0;
		for (const { model: zone } of model.zones) {
			if (!zone) continue;
			const { id } = zone.zone;
			const own = inKinds
				? (inKinds.get(id) ?? 0)
				: zone.groups.reduce((sum, group) => sum + amountIn(rate, group), 0);
			amount += own;
			zones.set(id, (zones.get(id) ?? 0) + own * rate.rate);
			yield amount;
		}
		rates.set(rate.id, { amount, cost: amount * rate.rate });
		total += amount * rate.rate;
	}
	return { total, rates, zones };
}
