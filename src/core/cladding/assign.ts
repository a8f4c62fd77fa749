import { heldNowhere, holds, inFours, type Held } from '../condition/holds';
import type { AskedSites, Surroundings } from '../condition/sites';
import type { FieldSource } from '../field/field';
import type { NodeGrid } from '../grid/node-grid';
import { uncutCells, type Cells } from '../pattern/cells';
import type { PartDefinition } from '../project/part-definition';
import type { Exception, Rule, Zone } from '../project/schema';
import { cellAddress, cellOfAddress } from './address';
import { hangsOn } from './sites';

export const NO_RULE = -1;
/** No choice was made by hand. */
export const NO_EXCEPTION = -1;

/**
 * Whether a choice by hand leaves its cells to the rules and only sets what they put there otherwise.
 *
 * ```ts
 * if (isAdjusting(zone.exceptions[0]!)) tell('as the rules say, but');
 * ```
 */
export const isAdjusting = ({ put }: Pick<Exception, 'put'>): boolean => put !== 'open' && 'as' in put;

/**
 * Whether what is put on cells is made for the whole cell and cut as trims cut it.
 *
 * ```ts
 * if (isClipped(zone.rules[0]!.put)) await loadSolids();
 * ```
 */
export const isClipped = (put: Exception['put']): boolean =>
	put !== 'open' && 'cut' in put && put.cut === 'clip';

/** Which rule takes each cell. */
export interface Assignment {
	/** Index of the rule, or NO_RULE. */
	readonly rule: Int32Array;
	/** Index of the exception that overrides it, or NO_EXCEPTION. */
	readonly exception: Int32Array;
	/** Cells that each rule asks for, whoever takes them. */
	readonly asked: Uint32Array;
	/** Cells taken by each rule, exceptions not counted; of one that is put there *also*, those it is put on. */
	readonly taken: Uint32Array;
	/** Cells a rule would have taken, had its part the right number of corners. */
	readonly passed: Uint32Array;
	/** Cells that each rule passed over and trims cut, on which its part could be clipped. */
	readonly clippable: readonly Uint32Array[];
	/** The cells of rules that take none away, by the index of the rule; empty for the others. */
	readonly also: readonly Uint32Array[];
	/** For a rule that asks for cells and has none: the first rule before it that has one of them, or NO_RULE. */
	readonly takenBy: Int32Array;
	readonly untaken: number;
	/** Addresses of exceptions that are not there (any more). */
	readonly waiting: readonly string[];
	/** Those that were put at the same place again: the address they had, and where they are now. */
	readonly moved: ReadonlyMap<string, string>;
}

/**
 * Whether a zone's cells are no cells of the facade: it stands behind another, and no rule puts anything on them.
 *
 * ```ts
 * if (isBare(zone)) tell('only its lines and nodes carry something');
 * ```
 */
export const isBare = ({ on, rules }: Pick<Zone, 'on' | 'rules'>): boolean =>
	on.is !== 'faces' && rules.length === 0;

/** What cells are assigned by. */
export interface AssignedFace extends Partial<FieldSource> {
	readonly address: string;
	readonly cells: Cells;
	readonly grid: NodeGrid;
}

/**
 * First match wins, in the order of the rules; a rule passes over cells its part has no use for, and one that is put
 * *also* takes none away. Choices by hand come after all rules.
 *
 * ```ts
 * const { rule, untaken } = assignRules(zone, faceModel, new Set(), around, () => part); // of every cell, and how many have none
 * ```
 * @param left cells that are left open in any case
 * @param around what conditions name; they have been checked
 * @param partOf the part a rule puts, null when it leaves cells open
 */
export function assignRules(
	zone: Pick<Zone, 'rules' | 'exceptions'>,
	face: AssignedFace,
	left: ReadonlySet<number>,
	around: Surroundings,
	partOf: (rule: Rule) => PartDefinition | null
): Assignment {
	const { cells } = face;
	const { count } = cells;
	const whole = uncutCells(cells);
	const sites: AskedSites = { over: 'cell', count, source: face, around };
	const [free, open] = [heldNowhere(count).fill(1), heldNowhere(count).fill(1)];
	for (const c of left) free[c] = open[c] = 0;
	const cellsLeft: Takeable = { free, open };
	let most = 0;
	for (const { start } of [cells, whole])
		for (let c = 0; c < count; c++) most = Math.max(most, start[c + 1]! - start[c]!);
	const rule = new Int32Array(count).fill(NO_RULE);
	const asked = new Uint32Array(zone.rules.length);
	const taken = new Uint32Array(zone.rules.length);
	const passed = new Uint32Array(zone.rules.length);
	const clippable: Uint32Array[] = [];
	const takenBy = new Int32Array(zone.rules.length).fill(NO_RULE);
	const also: Uint32Array[] = [];
	zone.rules.forEach((one, k) => {
		const held = one.muted ? heldNowhere(count) : holds(one.where, sites);
		// What is clipped hangs on cells as they were before.
		const { start } = isClipped(one.put) ? whole : cells;
		const fits = cornersThatFit(partOf(one), most);
		// Nothing, left open, can be on any cell.
		const found = one.also
			? beside(held, cellsLeft, start, fits)
			: take(held, cellsLeft, start, fits, rule, k);
		asked[k] = found.asked;
		taken[k] = found.taken;
		passed[k] = found.passed.length;
		if (!one.also && found.asked > 0 && found.taken === 0) takenBy[k] = firstBefore(held, cellsLeft, rule);
		also.push(found.beside);
		clippable.push(found.passed.filter((c) => fits[whole.start[c + 1]! - whole.start[c]!]));
	});
	const byHand = chosenByHand(zone.exceptions, face);
	let untaken = count;
	zone.rules.forEach((one, k) => {
		if (!one.also) untaken -= taken[k]!;
	});
	// What is chosen by hand is nobody's.
	if (zone.exceptions.length)
		for (let c = 0; c < count; c++) {
			if (byHand.exception[c] === NO_EXCEPTION) continue;
			if (isAdjusting(zone.exceptions[byHand.exception[c]!]!)) continue;
			if (rule[c] === NO_RULE) untaken--;
			else taken[rule[c]!]!--;
		}
	return { rule, asked, taken, passed, clippable, also, takenBy, untaken, ...byHand };
}

/** What a rule came to. */
interface Found {
	readonly asked: number;
	readonly passed: Uint32Array;
	readonly taken: number;
	readonly beside: Uint32Array;
}
const NO_CELLS = new Uint32Array();

/** Yes in how many of four. */
const countOf = (four: number) => Math.imul(four, 0x01010101) >>> 24;

/** Take the cells where a rule holds and no other was before it. Hot: one loop for each rule, four cells a turn. */
function take(
	held: Held,
	{ free, open }: Takeable,
	start: Uint32Array,
	fits: Uint8Array,
	rule: Int32Array,
	k: number
): Found {
	const [asks, frees, opens] = [inFours(held), inFours(free), inFours(open)];
	const fours = asks.length;
	let asked = 0;
	const passed: number[] = [];
	let taken = 0;
	for (let f = 0; f < fours; f++) {
		const four = asks[f]! & frees[f]!;
		if (four === 0) continue;
		asked += countOf(four);
		if ((four & opens[f]!) === 0) continue;
		for (let c = 4 * f; c < 4 * f + 4; c++) {
			if (!held[c] || !open[c]) continue;
			if (!fits[start[c + 1]! - start[c]!]) passed.push(c);
			else {
				rule[c] = k;
				open[c] = 0;
				taken++;
			}
		}
	}
	return { asked, passed: Uint32Array.from(passed), taken, beside: NO_CELLS };
}

/** The rule that has the first cell of those that another asks for; NO_RULE where none has any. */
function firstBefore(held: Held, { free, open }: Takeable, rule: Int32Array): number {
	for (let c = 0; c < held.length; c++) if (held[c] && free[c] && !open[c]) return rule[c]!;
	return NO_RULE;
}

/** Cells that may be taken at all, and those that no rule has yet. */
interface Takeable {
	readonly free: Held;
	readonly open: Held;
}

/** The cells that a rule puts something on beside others. */
function beside(held: Held, { free }: Takeable, start: Uint32Array, fits: Uint8Array): Found {
	const found: number[] = [];
	const passed: number[] = [];
	let asked = 0;
	for (let c = 0; c < held.length; c++) {
		if ((held[c]! & free[c]!) === 0) continue;
		asked++;
		if (fits[start[c + 1]! - start[c]!]) found.push(c);
		else passed.push(c);
	}
	return { asked, passed: Uint32Array.from(passed), taken: found.length, beside: Uint32Array.from(found) };
}

/** Whether a part can be on so many corners, for every number there is. */
function cornersThatFit(part: PartDefinition | null, most: number): Uint8Array {
	return Uint8Array.from({ length: most + 1 }, (_, corners) =>
		Number(!part || hangsOn(part, 'cell', corners))
	);
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
