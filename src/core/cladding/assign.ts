import type { Cells } from '../pattern/cells';
import type { PartDefinition } from '../project/part-definition';
import type { Rule, Zone } from '../project/schema';
import { refuse } from '../units/problem';
import { cellAddress, kindOf } from './address';

export const NO_RULE = -1;

/** Which rule takes each cell. */
export interface Assignment {
	/** Index of the rule, or NO_RULE. */
	readonly rule: Int32Array;
	/** Index of the exception that overrides it, or -1. */
	readonly exception: Int32Array;
	/** Cells taken by each rule, exceptions not counted. */
	readonly taken: Uint32Array;
	/** Cells a rule would have taken, had its part the right number of corners. */
	readonly passed: Uint32Array;
	readonly untaken: number;
	/** Exceptions whose address is not there (any more). */
	readonly waiting: readonly string[];
}

function matches(rule: Rule, kind: string, corners: number, course: number): boolean {
	if (rule.muted) return false;
	if (rule.cells !== 'all' && rule.cells !== kind) return false;
	if (rule.corners !== 'any' && rule.corners !== corners) return false;
	return !rule.courses || (course >= rule.courses[0] && course <= rule.courses[1]);
}

function takes(part: PartDefinition | null, corners: number): boolean {
	if (!part) return true;
	if (part.anchor.kind !== 'ring') return false;
	return part.anchor.corners === 'any' || part.anchor.corners === corners;
}

function checkRules(zone: Zone): void {
	zone.rules.forEach((rule) => {
		const at = `zones/${zone.id}/rules/${rule.id}`;
		if (rule.corners !== 'any' && rule.corners < 3)
			refuse(
				`${at}/corners`,
				`cells with ${rule.corners} corners do not exist; 3 or more, or "any", is accepted`
			);
		if (rule.courses && !(rule.courses[0] >= 1 && rule.courses[1] >= rule.courses[0]))
			refuse(
				`${at}/courses`,
				`courses ${rule.courses[0]} to ${rule.courses[1]} cannot be; courses count from 1 at the foot, the first before the last`
			);
	});
}

/**
 * First match wins, in the order of the rules; a rule passes over cells its part has no use for.
 * @param partOf the part a rule puts, null when it leaves cells open
 * @throws ProblemError at a rule that can never match
 */
export function assignRules(
	zone: Zone,
	face: string,
	cells: Cells,
	partOf: (rule: Rule) => PartDefinition | null
): Assignment {
	checkRules(zone);
	const parts = zone.rules.map(partOf);
	const rule = new Int32Array(cells.count).fill(NO_RULE);
	const exception = new Int32Array(cells.count).fill(-1);
	const taken = new Uint32Array(zone.rules.length);
	const passed = new Uint32Array(zone.rules.length);
	const byAddress = new Map(zone.exceptions.map((one, k) => [one.id, k]));
	let untaken = 0;
	for (let c = 0; c < cells.count; c++) {
		const corners = cells.start[c + 1]! - cells.start[c]!;
		const kind = kindOf(cells, c);
		for (let k = 0; k < zone.rules.length; k++) {
			if (!matches(zone.rules[k]!, kind, corners, cells.course[c]!)) continue;
			if (takes(parts[k]!, corners)) {
				rule[c] = k;
				break;
			}
			passed[k]!++;
		}
		if (byAddress.size > 0) {
			const address = cellAddress(face, cells, c);
			const found = byAddress.get(address);
			if (found !== undefined) {
				exception[c] = found;
				byAddress.delete(address);
				continue;
			}
		}
		if (rule[c] === NO_RULE) untaken++;
		else taken[rule[c]!]!++;
	}
	const waiting = [...byAddress.keys()].filter((address) => address.startsWith(`${face}/`));
	return { rule, exception, taken, passed, untaken, waiting };
}
