import { cellKinds, type Cells } from '../pattern/cells';
import type { Rule, Zone } from '../project/schema';
import { refuse } from '../units/problem';
import { pathTo } from '../project/typed-path';

/** Of every so many, counted from the first: of a row of cells, courses shifted by one. */
const countedBy: Record<NonNullable<Rule['every']>['by'], (cells: Cells, c: number) => number> = {
	bays: ({ bay }, c) => bay[c]!,
	courses: ({ course }, c) => course[c]!,
	cells: ({ bay, course, slot }, c) => bay[c]! + course[c]! + slot[c]! - 2
};

/**
 * Whether a rule asks for a cell, by its number.
 * @param slots names of the pattern's polygons
 */
export function asksFor(
	{ muted, cells: wanted, corners, slot, every, courses }: Rule,
	cells: Cells,
	slots: readonly string[]
): (c: number) => boolean {
	if (muted) return () => false;
	const { kind, start, course, polygon } = cells;
	// What stands in an end strip is whole, only smaller: a rule that wants it apart comes first.
	const isAsked = cellKinds.map(
		(one) => wanted === 'all' || wanted === one || (wanted === 'whole' && one === 'strip')
	);
	const inSlot = slots.map((name) => slot === 'any' || slot === name);
	const counted = every && countedBy[every.by];
	return (c) => {
		if (!isAsked[kind[c]!]) return false;
		if (corners !== 'any' && start[c + 1]! - start[c]! !== corners) return false;
		if (slot !== 'any' && !inSlot[polygon[c]!]) return false;
		if (every && (counted!(cells, c) - every.from) % every.step !== 0) return false;
		return !courses || (course[c]! >= courses[0] && course[c]! <= courses[1]);
	};
}

/** @throws ProblemError at a rule that can never match */
export function checkRules(zone: Pick<Zone, 'id' | 'rules'>, slots: readonly string[]): void {
	zone.rules.forEach((rule) => {
		const at = pathTo('zones', zone.id, 'rules', rule.id);
		if (rule.corners !== 'any' && rule.corners < 3)
			refuse(
				`${at}/corners`,
				`cells with ${rule.corners} corners do not exist; 3 or more, or "any", is accepted`
			);
		if (
			rule.every &&
			!(Number.isInteger(rule.every.step) && rule.every.step >= 1 && Number.isInteger(rule.every.from))
		)
			refuse(
				`${at}/every`,
				`every ${rule.every.step} from ${rule.every.from} cannot be; whole numbers from 1 on are accepted`
			);
		if (rule.slot !== 'any' && !slots.includes(rule.slot))
			refuse(
				`${at}/slot`,
				`the pattern has no slot "${rule.slot}"; it has ${[...new Set(slots)].join(', ')}`,
				[{ label: 'any slot', path: `${at}/slot`, value: 'any' }]
			);
		if (rule.courses && !(rule.courses[0] >= 1 && rule.courses[1] >= rule.courses[0]))
			refuse(
				`${at}/courses`,
				`courses ${rule.courses[0]} to ${rule.courses[1]} cannot be; courses count from 1 at the foot, the first before the last`
			);
	});
}
