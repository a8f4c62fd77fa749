import type { Edit } from '$core/project/edits';
import type { Rate, RateUnit } from '$core/project/rates-schema';
import type { Project } from '$core/project/schema';
import { insertAt, pathTo } from '$core/project/typed-path';
import { freshId } from './fresh-id';

/** What a rate is for, in words: costs so much … */
export const rateWords: Readonly<Record<RateUnit, string>> = {
	area: 'per m² of plates',
	length: 'per m of bars',
	mass: 'per kg',
	piece: 'a piece',
	kind: 'for every kind of pieces'
};

/** A rate that costs nothing yet. */
export function newRate(
	{ cost: { rates } }: Project,
	of: { readonly material?: string; readonly part?: string },
	per: RateUnit
): { rate: Rate; edit: Edit } {
	const rate: Rate = {
		id: freshId('rate', rates),
		material: of.material ?? null,
		part: of.part ?? null,
		per,
		rate: 0,
		muted: false
	};
	return { rate, edit: insertAt(pathTo('cost', 'rates'), rates.length, rate) };
}

const decimals = (value: number) => (Math.abs(value) < 100 && value % 1 ? 2 : 0);

/** An amount of money: 1 284 €. */
export const money = (value: number, currency: string): string =>
	`${value.toLocaleString('en-GB', { maximumFractionDigits: decimals(value) }).replaceAll(',', '\u202f')} ${currency}`;
