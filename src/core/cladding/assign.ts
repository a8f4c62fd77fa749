import type { NodeGrid } from '../grid/node-grid';
import type { Cells } from '../pattern/cells';
import type { PartDefinition } from '../project/part-definition';
import type { Exception, Rule, Zone } from '../project/schema';
import { cellAddress, cellOfAddress } from './address';
import { asksFor, checkRules } from './rules';
import { hangsOn } from './sites';

export const NO_RULE = -1;
/** No choice was made by hand. */
export const NO_EXCEPTION = -1;

/** Which rule takes each cell. */
export interface Assignment {
	/** Index of the rule, or NO_RULE. */
	readonly rule: Int32Array;
	/** Index of the exception that overrides it, or NO_EXCEPTION. */
	readonly exception: Int32Array;
	/** Cells taken by each rule, exceptions not counted. */
	readonly taken: Uint32Array;
	/** Cells a rule would have taken, had its part the right number of corners. */
	readonly passed: Uint32Array;
	readonly untaken: number;
	/** Addresses of exceptions that are not there (any more). */
	readonly waiting: readonly string[];
	/** Those that were put at the same place again: the address they had, and where they are now. */
	readonly moved: ReadonlyMap<string, string>;
}

/** What cells are assigned by. */
export interface AssignedFace {
	readonly address: string;
	readonly cells: Cells;
	readonly slots: readonly string[];
	readonly grid: Pick<NodeGrid, 'across' | 'up'>;
	/** Cells that are left open in any case. */
	readonly left: ReadonlySet<number>;
}

/**
 * First match wins, in the order of the rules; a rule passes over cells its part has no use for. Choices by hand come
 * after all rules.
 *
 * ```ts
 * const { rule, untaken } = assignRules(zone, { ...faceModel, left: new Set() }, () => part); // of every cell, and how many have none
 * ```
 * @param partOf the part a rule puts, null when it leaves cells open
 * @throws ProblemError at a rule that can never match
 */
export function assignRules(
	zone: Pick<Zone, 'id' | 'rules' | 'exceptions'>,
	face: AssignedFace,
	partOf: (rule: Rule) => PartDefinition | null
): Assignment {
	const { cells, slots, left } = face;
	checkRules(zone, slots);
	const rules = zone.rules.map((rule) => {
		const part = partOf(rule);
		return {
			asks: asksFor(rule, cells, slots),
			// Nothing, left open, can be on any cell.
			takes: (corners: number) => !part || hangsOn(part, 'cell', corners)
		};
	});
	const rule = new Int32Array(cells.count).fill(NO_RULE);
	const passed = new Uint32Array(rules.length);
	for (let c = 0; c < cells.count; c++) {
		if (left.has(c)) continue;
		const corners = cells.start[c + 1]! - cells.start[c]!;
		for (let k = 0; k < rules.length; k++) {
			if (!rules[k]!.asks(c)) continue;
			if (rules[k]!.takes(corners)) {
				rule[c] = k;
				break;
			}
			passed[k]!++;
		}
	}
	const byHand = chosenByHand(zone.exceptions, face);
	const taken = new Uint32Array(zone.rules.length);
	let untaken = 0;
	for (let c = 0; c < cells.count; c++) {
		if (byHand.exception[c] !== NO_EXCEPTION) continue;
		if (rule[c] === NO_RULE) untaken++;
		else taken[rule[c]!]!++;
	}
	return { rule, taken, passed, untaken, ...byHand };
}

/** The exception of every cell: the one at its address, or one that lost its address and was made at its place. */
function chosenByHand(
	exceptions: readonly Exception[],
	{ address: face, cells, grid }: AssignedFace
): Pick<Assignment, 'exception' | 'waiting' | 'moved'> {
	const exception = new Int32Array(cells.count).fill(NO_EXCEPTION);
	const lost: { readonly address: string; readonly k: number; readonly place: readonly number[] | null }[] =
		[];
	const within = `${face}/`;
	for (const [k, { sites }] of exceptions.entries())
		for (const { id, place } of sites) {
			if (!id.startsWith(within)) continue;
			const c = cellOfAddress(cells, id.slice(within.length));
			if (c >= 0) exception[c] = k;
			else lost.push({ address: id, k, place });
		}
	const moved = new Map<string, string>();
	const waiting: string[] = [];
	for (const { address, k, place } of lost) {
		const c = place ? cellAtPlace(cells, grid, place as [number, number], address) : -1;
		if (c < 0 || exception[c] !== NO_EXCEPTION) waiting.push(address);
		else {
			exception[c] = k;
			moved.set(address, cellAddress(face, cells, c));
		}
	}
	return { exception, waiting, moved };
}

/** The cell at a place of a face: in the step it falls into the one of the same slot, or else the first. */
function cellAtPlace(
	cells: Cells,
	{ across, up }: AssignedFace['grid'],
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
