import type { Zone } from '$core/project/schema';

/** Faces, across, up, what steps follow, pattern: the clauses that every zone has. */
const FIRST = 5;

/** Numbers of a zone's clauses within its part of the sheet, counted from 1. */
export interface ClauseNumbers {
	readonly slivers: number;
	readonly layer: number;
	readonly exceptions: number;
	readonly rule: (index: number) => number;
	readonly run: (index: number) => number;
	readonly nodes: (index: number) => number;
}

export function clauseNumbers(zone: Zone): ClauseNumbers {
	const slivers = FIRST + 1;
	const layer = slivers + (zone.slivers ? 1 : 0);
	const rules = layer + (zone.layer ? 1 : 0);
	const exceptions = rules + zone.rules.length;
	const runs = exceptions + (zone.exceptions.length ? 1 : 0);
	const nodes = runs + zone.runs.length;
	return {
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
