import type { Zone } from '$core/project/schema';
import type { Lens } from '$lib/state/desk.svelte';
import type { ZoneView } from '$lib/state/model.svelte';
import { sequence, sequenceStep, shareIn, valuesOf, type Range } from '$lib/check/measures';

/** How cells are coloured: by what a lens looks at. The model and the map use the same colours. */
export interface Paint {
	readonly lens: Lens;
	/** The key of a measure. */
	readonly measure: string;
	readonly range: Range;
	/** Colours that somebody else has chosen, over those of the measure. */
	readonly chosen: ChosenColours | null;
}

/** A palette, and the place in it of every cell by zone and face of the view. */
export interface ChosenColours {
	readonly palette: readonly string[];
	readonly of: readonly (readonly Uint8Array[])[];
}

/** What cells of a zone's rules are painted in, one after the other; as many as can be told apart. */
export const CLAUSE_TONES = ['#B5D2CB', '#D9CBA6', '#B9CDD8', '#CFC3B4', '#C4D3A8', '#D8BFB0'];
const OPEN = '#F1EDE2';
export const BY_HAND = '#EFCF9B';
const NOT_MADE = '#DFA99E';
const PLAIN = '#EFEBE1';

/** A palette and, for every cell of a face, its place in it. */
export interface CellColours {
	readonly palette: readonly string[];
	readonly of: Uint8Array;
}

/** @param z the place of the zone in the view */
export function cellColours(zone: ZoneView, z: number, f: number, paint: Paint): CellColours {
	const face = zone.faces[f]!;
	const of = new Uint8Array(face.cells.count);
	if (paint.lens === 'check') {
		const chosen = paint.chosen?.of[z]?.[f];
		if (chosen?.length === of.length) return { palette: paint.chosen!.palette, of: chosen };
		const values = valuesOf(zone, f, paint.measure);
		for (let c = 0; c < of.length; c++)
			of[c] = Number.isNaN(values[c]!) ? sequence.length : sequenceStep(shareIn(paint.range, values[c]!));
		return { palette: [...sequence, PLAIN], of };
	}
	if (paint.lens === 'form' || paint.lens === 'set-out') return { palette: [PLAIN], of };
	const assignment = zone.assignments[f];
	const tones = CLAUSE_TONES.length;
	if (assignment?.rule.length === of.length)
		for (let c = 0; c < of.length; c++) {
			const rule = assignment.rule[c]!;
			if (assignment.exception[c]! >= 0) of[c] = tones + 1;
			else of[c] = rule < 0 ? tones : rule % tones;
		}
	for (const c of notMade(zone, f)) of[c] = tones + 2;
	return { palette: [...CLAUSE_TONES, OPEN, BY_HAND, NOT_MADE], of };
}

/** Of every cell of a face whether it is drawn itself, and whether there is a piece on it. */
export interface Standing {
	readonly standing: Uint8Array;
	readonly covered: Uint8Array;
	/** It stands behind another, or has no cells: only its lines are drawn where it carries nothing. */
	readonly behind: boolean;
}

/**
 * Which cells are drawn themselves where pieces are shown: those that no rule takes, and those whose pieces are still to
 * come or could not be made. Cells that are left open are open.
 * @param said the zone as the document says it, for what its rules put
 */
export function standingCells(zone: ZoneView, f: number, said: Zone | undefined): Standing {
	const behind = said !== undefined && said.on.is !== 'faces';
	const standing = new Uint8Array(zone.faces[f]!.cells.count).fill(behind ? 0 : 1);
	for (const { face, over, beside, sites } of zone.groups)
		if (face === f && over === 'cell' && !beside) for (const cell of sites) standing[cell] = 0;
	for (const cell of notMade(zone, f)) standing[cell] = 1;
	const covered = new Uint8Array(standing.length).fill(behind ? 0 : 1);
	if (behind) {
		for (const { face, over, sites } of zone.groups)
			if (face === f && over === 'cell') for (const cell of sites) covered[cell] = 1;
	} else for (let c = 0; c < standing.length; c++) covered[c] = 1 - standing[c]!;
	const assignment = zone.assignments[f];
	if (!said || assignment?.rule.length !== standing.length) return { standing, covered, behind };
	const isOpen = said.rules.map(({ put }) => put === 'open');
	const isOpened = said.exceptions.map(({ put }) => put === 'open');
	for (let c = 0; c < standing.length; c++) {
		const [rule, byHand] = [assignment.rule[c]!, assignment.exception[c]!];
		if (byHand >= 0 && !isOpened[byHand] ? false : byHand >= 0 || (rule >= 0 && isOpen[rule]))
			standing[c] = 0;
	}
	return { standing, covered, behind };
}

/** Cells of a face whose pieces could not be made: they stand in their place. */
export function notMade({ groups }: ZoneView, f: number): Set<number> {
	const cells = groups.filter(({ face, over }) => face === f && over === 'cell');
	return new Set(cells.flatMap(({ failed }) => [...failed]));
}
