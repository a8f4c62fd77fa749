import {
	assignRules,
	isAdjusting,
	isBare,
	isClipped,
	NO_EXCEPTION,
	NO_RULE,
	type Assignment
} from '../cladding/assign';
import { inChunks, type Chunk } from '../cladding/chunks';
import type { FaceModel } from '../cladding/model';
import { unfitExceptions } from '../cladding/unfit-exceptions';
import type { PartDefinition } from '../project/part-definition';
import { cellKinds, uncutCells, type Cells } from '../pattern/cells';
import type { Exception, Zone } from '../project/schema';
import type { Asking } from './asking';
import type { Run } from './stage';

/** Cells that a part is made for, and those that it is clipped in. */
export interface CellChunks {
	readonly made: readonly Chunk[];
	readonly clipped: readonly Chunk[];
}

/** What becomes of the cells of a face: it hangs on the cells and the clauses, whatever their places are. */
export interface AssignedCells {
	readonly assignment: Assignment;
	/** The cells of each rule and of each choice by hand. */
	readonly byRule: readonly CellChunks[];
	readonly byHand: readonly CellChunks[];
	/** Cells of a rule on which a choice by hand sets something otherwise. */
	readonly adjusted: readonly {
		readonly rule: number;
		readonly exception: number;
		readonly chunks: CellChunks;
	}[];
	/** Cells whose choice by hand cannot stand there, with the sentence that says so. */
	readonly unfit: ReadonlyMap<number, string>;
	/** Sentences about those of them that no rule puts anything on. */
	readonly open: readonly string[];
}

export function assign(
	{ memo, timed }: Run,
	zone: Zone,
	face: FaceModel,
	f: number,
	parts: readonly (PartDefinition | null)[],
	partByHand: (variant: string) => PartDefinition,
	{ around, under, places }: Asking
): AssignedCells {
	const { rules, exceptions } = zone;
	const { cells, slots, address, slivers, grid } = face;
	const byHand = exceptions.map(({ put }) =>
		put === 'open' || 'as' in put ? null : partByHand(put.variant)
	);
	const hung = [...parts, ...byHand].map((part) => part && [part.label, part.anchor]);
	const steps = [grid.across.steps, grid.up.steps];
	const made = () => {
		const left = new Set(slivers.put === 'open' ? slivers.cells : []);
		const assignment = assignRules(zone, face, left, around, (rule) => parts[rules.indexOf(rule)]!);
		const waits = isBare(zone) ? { untaken: 0 } : null;
		return sorted(zone, face, { ...assignment, ...waits }, partByHand);
	};
	return memo.use(
		['assignment', zone.id, f],
		[
			cells,
			slots,
			address,
			slivers,
			steps,
			zone.on.is,
			rules,
			exceptions,
			hung,
			under,
			places ? face.serial : null
		],
		() => timed('parts', made)
	).value;
}

const CUT = cellKinds.indexOf('cut');

/** The cells of every clause, in chunks. */
function sorted(
	zone: Zone,
	face: FaceModel,
	assignment: Assignment,
	partByHand: (variant: string) => PartDefinition
): AssignedCells {
	const { rule: taken, exception } = assignment;
	const { rules, exceptions } = zone;
	const { cells } = face;
	const whole = uncutCells(cells);
	const unfit = unfitExceptions(zone, face, exception, partByHand);
	const byRule = rules.map((): number[] => []);
	const byHand = exceptions.map((): number[] => []);
	const adjusted = new Map<string, number[]>();
	for (let c = 0; c < taken.length; c++) {
		const chosen = exception[c] === NO_EXCEPTION ? null : zone.exceptions[exception[c]!]!;
		if (chosen && isAdjusting(chosen) && taken[c] !== NO_RULE) {
			const key = `${taken[c]} ${exception[c]}`;
			const known = adjusted.get(key);
			if (known) known.push(c);
			else adjusted.set(key, [c]);
		} else if (chosen && !isAdjusting(chosen) && !unfit.has(c)) byHand[exception[c]!]!.push(c);
		else if (taken[c] !== NO_RULE) byRule[taken[c]!]!.push(c);
	}
	assignment.also.forEach((cells, k) => {
		if (rules[k]!.also) byRule[k] = [...cells];
	});
	const chunks = (list: readonly number[], put: Exception['put']): CellChunks => {
		const clips = isClipped(put);
		const cut = (c: number) => clips && cells.kind[c] === CUT;
		const of = (some: readonly number[], { start }: Cells) =>
			inChunks(some, (c) => start[c + 1]! - start[c]!);
		return {
			made: of(clips ? list.filter((c) => !cut(c)) : list, cells),
			clipped: of(list.filter(cut), whole)
		};
	};
	const sets = [...adjusted].map(([key, cells]) => {
		const [rule, exception] = key.split(' ').map(Number) as [number, number];
		return { rule, exception, chunks: chunks(cells, rules[rule]!.put) };
	});
	const isOpen = (c: number) => taken[c] === NO_RULE || rules[taken[c]!]!.put === 'open';
	const open = [...unfit].filter(([c]) => isOpen(c)).map(([, text]) => text);
	return {
		assignment,
		byRule: rules.map(({ put }, k) => chunks(byRule[k]!, put)),
		byHand: exceptions.map(({ put }, k) => chunks(byHand[k]!, put)),
		adjusted: sets,
		unfit,
		open
	};
}

/** The variant on every cell, a choice by hand before what a rule puts there; null where a cell is open. */
export function variantsOn({ rules, exceptions }: Zone, { assignment }: AssignedCells) {
	const ofRules = rules.map(({ put }) => (put === 'open' ? null : put.variant));
	const ofHands = exceptions.map(({ put }) => (put === 'open' || 'as' in put ? null : put.variant));
	return (c: number): string | null => {
		const chosen = assignment.exception[c]!;
		const rule = assignment.rule[c]!;
		if (chosen !== NO_EXCEPTION && !isAdjusting(exceptions[chosen]!)) return ofHands[chosen]!;
		return rule === NO_RULE ? null : ofRules[rule]!;
	};
}
