import type { Lens } from '$lib/state/desk.svelte';
import type { ZoneView } from '$lib/state/model.svelte';
import { sequence, sequenceStep, shareIn, valuesOf, type Range } from '$lib/check/measures';

/** How cells are coloured: by what a lens looks at. The model and the map use the same colours. */
export interface Paint {
	readonly lens: Lens;
	/** The key of a measure. */
	readonly measure: string;
	readonly range: Range;
}

const CLAUSE_TONES = ['#B5D2CB', '#D9CBA6', '#B9CDD8', '#CFC3B4', '#C4D3A8', '#D8BFB0'];
const OPEN = '#F1EDE2';
const BY_HAND = '#EFCF9B';
const NOT_MADE = '#DFA99E';
const PLAIN = '#E9E6DC';

/** A palette and, for every cell of a face, its place in it. */
export interface CellColours {
	readonly palette: readonly string[];
	readonly of: Uint8Array;
}

export function cellColours(zone: ZoneView, f: number, paint: Paint): CellColours {
	const face = zone.faces[f]!;
	const of = new Uint8Array(face.cells.count);
	if (paint.lens === 'check') {
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

/** Cells of a face whose pieces could not be made: they stand in their place. */
export function notMade({ groups }: ZoneView, f: number): Set<number> {
	const cells = groups.filter(({ face, over }) => face === f && over === 'cell');
	return new Set(cells.flatMap(({ failed }) => [...failed]));
}
