import type { Rule, Zone } from '../project/schema';
import { refuse } from '../units/problem';

/** What a rule looks at of a cell. */
export interface CellLook {
	readonly kind: string;
	readonly corners: number;
	readonly course: number;
	readonly bay: number;
	readonly slot: string;
	/** Counts the slots of its step from 1. */
	readonly ordinal: number;
}

/** Whether a cell is one of every so many, counted from the first: of a row of cells, courses shifted by one. */
function isEvery(
	{ step, from, by }: NonNullable<Rule['every']>,
	{ course, bay, ordinal }: CellLook
): boolean {
	const n = by === 'bays' ? bay : by === 'courses' ? course : bay + course + ordinal - 2;
	return (n - from) % step === 0;
}

/** Whether a rule asks for a cell. */
export function matches(rule: Rule, cell: CellLook): boolean {
	const { kind, corners, course } = cell;
	if (rule.muted) return false;
	// What stands in an end strip is whole, only smaller: a rule that wants it apart comes first.
	const isAsked = rule.cells === kind || (rule.cells === 'whole' && kind === 'strip');
	if (rule.cells !== 'all' && !isAsked) return false;
	if (rule.corners !== 'any' && rule.corners !== corners) return false;
	if (rule.slot !== 'any' && rule.slot !== cell.slot) return false;
	if (rule.every && !isEvery(rule.every, cell)) return false;
	return !rule.courses || (course >= rule.courses[0] && course <= rule.courses[1]);
}

/** @throws ProblemError at a rule that can never match */
export function checkRules(zone: Zone, slots: readonly string[]): void {
	zone.rules.forEach((rule) => {
		const at = `zones/${zone.id}/rules/${rule.id}`;
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
