import type { LineKind } from '$core/project/line-kinds';
import type { Zone } from '$core/project/schema';
import type { Standing } from '$core/project/standing-schema';

/** Numbers of a zone's clauses within its part of the sheet, counted from 1; the first says what it stands on. */
export interface ClauseNumbers {
	/** Of what every kind of zone has or has not: steps across and up, what they follow, the pattern. */
	readonly across: number;
	readonly up: number;
	readonly along: number;
	readonly moves: (index: number) => number;
	readonly pattern: number;
	readonly slivers: number;
	readonly layer: number;
	readonly exceptions: number;
	readonly rule: (index: number) => number;
	readonly run: (index: number) => number;
	readonly nodes: (index: number) => number;
}

/** Whether a zone has cells. */
export const hasCells = ({ on }: Pick<Zone, 'on'>): boolean => on.is === 'faces' || on.is === 'layer';

const linesOf: Readonly<Record<Standing['is'], readonly LineKind[]>> = {
	faces: ['bay', 'course', 'diagonal', 'rim'],
	layer: ['bay', 'course', 'diagonal', 'rim'],
	web: ['upright', 'diagonal'],
	path: ['gap'],
	chains: ['gap']
};
/** The kinds of lines that a zone has. */
export const lineKindsOf = ({ on }: Pick<Zone, 'on'>): readonly LineKind[] => linesOf[on.is];

export function clauseNumbers(zone: Zone): ClauseNumbers {
	let last = 1;
	const next = (has: boolean) => (has ? ++last : last);
	const onFaces = zone.on.is === 'faces';
	const across = next(onFaces || zone.on.is === 'path');
	// One that is set out as another says it in one clause.
	const own = onFaces && zone.setOutAs === null;
	const up = next(own);
	const along = next(own);
	const moves = last + 1;
	if (onFaces) last += zone.moves.length;
	const pattern = next(hasCells(zone));
	const slivers = next(zone.slivers !== null && hasCells(zone));
	const layer = next(zone.layer !== null && hasCells(zone));
	const rules = last + 1;
	const exceptions = rules + zone.rules.length;
	const runs = exceptions + (zone.exceptions.length ? 1 : 0);
	const nodes = runs + zone.runs.length;
	return {
		across,
		up,
		along,
		moves: (index) => moves + index,
		pattern,
		slivers,
		layer,
		exceptions,
		rule: (index) => rules + index,
		run: (index) => runs + index,
		nodes: (index) => nodes + index
	};
}

/** The part of the sheet that a zone has: masses are the first. */
export const zonePart = (index: number): number => index + 2;
