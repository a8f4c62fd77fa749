import type { NodeGrid } from '../grid/node-grid';
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
	/** Exceptions that were put at the same place again: the address they had, and where they are now. */
	readonly moved: ReadonlyMap<string, string>;
}

/** What cells are assigned by. */
export interface AssignedFace {
	readonly address: string;
	readonly cells: Cells;
	readonly slots: readonly string[];
	readonly grid: NodeGrid;
	/** Cells that are left open in any case. */
	readonly left: ReadonlySet<number>;
}

/** What a rule looks at of a cell. */
interface CellLook {
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

function matches(rule: Rule, cell: CellLook): boolean {
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

/** Whether a part can hang on a cell of so many corners; nothing, left open, always can. */
export function takes(part: PartDefinition | null, corners: number): boolean {
	if (!part) return true;
	if (part.anchor.kind !== 'ring' && part.anchor.kind !== 'double ring') return false;
	return part.anchor.corners === 'any' || part.anchor.corners === corners;
}

function checkRules(zone: Zone, slots: readonly string[]): void {
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

/**
 * First match wins, in the order of the rules; a rule passes over cells its part has no use for.
 * @param partOf the part a rule puts, null when it leaves cells open
 * @throws ProblemError at a rule that can never match
 */
export function assignRules(
	zone: Zone,
	{ address: face, cells, slots, grid, left }: AssignedFace,
	partOf: (rule: Rule) => PartDefinition | null
): Assignment {
	checkRules(zone, slots);
	const parts = zone.rules.map(partOf);
	const rule = new Int32Array(cells.count).fill(NO_RULE);
	const exception = new Int32Array(cells.count).fill(-1);
	const taken = new Uint32Array(zone.rules.length);
	const passed = new Uint32Array(zone.rules.length);
	const byAddress = new Map(zone.exceptions.map((one, k) => [one.id, k]));
	let untaken = 0;
	for (let c = 0; c < cells.count; c++) {
		const corners = cells.start[c + 1]! - cells.start[c]!;
		const look: CellLook = {
			kind: kindOf(cells, c),
			corners,
			course: cells.course[c]!,
			bay: cells.bay[c]!,
			slot: slots[cells.polygon[c]!] ?? '',
			ordinal: cells.slot[c]!
		};
		if (!left.has(c))
			for (let k = 0; k < zone.rules.length; k++) {
				if (!matches(zone.rules[k]!, look)) continue;
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
	const lost = [...byAddress].filter(([address]) => address.startsWith(`${face}/`));
	const moved = new Map<string, string>();
	for (const [address, k] of lost) {
		const place = zone.exceptions[k]!.place;
		const c = place ? cellAt(cells, grid, place, address) : -1;
		if (c < 0 || exception[c] !== -1) continue;
		exception[c] = k;
		if (rule[c] === NO_RULE) untaken--;
		else taken[rule[c]!]!--;
		moved.set(address, cellAddress(face, cells, c));
	}
	const waiting = lost.map(([address]) => address).filter((address) => !moved.has(address));
	return { rule, exception, taken, passed, untaken, waiting, moved };
}

/** The cell at a place of a face: in the step it falls into the one of the same slot, or else the first. */
function cellAt(
	cells: Cells,
	{ across, up }: NodeGrid,
	[s, t]: readonly [number, number],
	address: string
): number {
	const step = (share: number, steps: number) => Math.min(steps, Math.max(1, Math.floor(share * steps) + 1));
	const [bay, course] = [step(s, across.steps), step(t, up.steps)];
	const slot = Number(address.split('/').at(-1));
	let first = -1;
	for (let c = 0; c < cells.count; c++) {
		if (cells.course[c] !== course || cells.bay[c] !== bay) continue;
		if (cells.slot[c] === slot) return c;
		if (first < 0) first = c;
	}
	return first;
}
