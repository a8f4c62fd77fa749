import { amountOf } from '$core/condition/amount';
import { columnValues, everySite } from '$core/field/column';
import { followable } from '$core/field/followed';
import { fieldsOver } from '$core/field/fields';
import type { Named } from '$core/named/named-values';
import type { ConditionOf } from '$core/project/condition-schema';
import { onPages, sourceOf } from '$lib/check/measures';
import type { ZoneView } from '$lib/state/model.svelte';

/** Values as near as this to a bound are borderline, as a share of it. */
export const MARGIN = 0.05;

/**
 * The cells of each face whose field is within a margin of one of its bounds, on either side: they change sides with
 * little. Of a bound of nothing the margin is a share of all that there is.
 * @returns null where a page does not know the field
 */
export function borderline(zone: ZoneView, condition: ConditionOf<'range'>, named: Named): number[][] | null {
	const field = fieldsOver('cell', followable(zone.followed)).find(({ name }) => name === condition.field);
	if (!field?.needs.every((need) => onPages.includes(need))) return null;
	const bounds = [condition.at_least, condition.at_most].flatMap((amount) =>
		amount === null ? [] : [amountOf(amount, field.kind, named)]
	);
	const values = zone.faces.map(({ cells: { count } }, f) =>
		columnValues(field.column(sourceOf(zone, f), everySite(count)), count)
	);
	const most = values.reduce((sum, one) => one.reduce((a, b) => Math.max(a, Math.abs(b)), sum), 0);
	return values.map((one) =>
		[...one.keys()].filter((c) =>
			bounds.some((bound) => Math.abs(one[c]! - bound) <= MARGIN * (Math.abs(bound) || most))
		)
	);
}
