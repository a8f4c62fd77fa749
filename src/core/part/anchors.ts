import type { Anchor } from '../project/part-definition';
import type { NumberKind } from '../units/dimension';
import type { DomainBuilder, PointRegisters } from './builder';
import { numberValue, type Value } from './values';

/** Measures of the anchor that formulas may name. */
export const ringMeasures: Readonly<Record<string, NumberKind>> = {
	cell_area: 'area',
	cell_perimeter: 'length',
	cell_longest_edge: 'length',
	cell_shortest_edge: 'length',
	cell_smallest_angle: 'angle',
	cell_largest_angle: 'angle',
	cell_warp: 'length',
	cell_height: 'length',
	course: 'count',
	bay: 'count'
};
export const pairMeasures: Readonly<Record<string, NumberKind>> = {
	line_length: 'length',
	line_height: 'length',
	fold: 'angle',
	course: 'count',
	bay: 'count'
};

const point = (b: DomainBuilder, name: string): PointRegisters => ({
	x: b.column(`${name}.x`),
	y: b.column(`${name}.y`),
	z: b.column(`${name}.z`)
});
const constantPoint = (b: DomainBuilder, x: number, y: number, z: number): PointRegisters => ({
	x: b.constant(x),
	y: b.constant(y),
	z: b.constant(z)
});

function measures(b: DomainBuilder, kinds: Readonly<Record<string, NumberKind>>): [string, Value][] {
	return Object.entries(kinds).map(([name, kind]) => [name, numberValue(b.column(name), kind)]);
}

/**
 * What a part is given by its anchor, by name. Columns that no step uses are never loaded.
 * - ring of n: cell, corner1 … n, edge1 … n, for four corners edge3_aligned and edge4_aligned (run the same
 *   way as edges 1 and 2), centre, normal, up
 * - pair: line, start, end, normal, up
 */
export function givenNames(b: DomainBuilder, anchor: Anchor, corners: number): Map<string, Value> {
	const names = new Map<string, Value>();
	names.set('up', { is: 'direction', at: constantPoint(b, 0, 0, 1) });
	names.set('normal', { is: 'direction', at: point(b, 'normal') });
	if (anchor.kind === 'pair') {
		const ends = [point(b, 'start'), point(b, 'end')];
		names.set('line', { is: 'path', points: ends });
		names.set('start', { is: 'point', at: ends[0]! });
		names.set('end', { is: 'point', at: ends[1]! });
		for (const [name, value] of measures(b, pairMeasures)) names.set(name, value);
		return names;
	}
	const ring = Array.from({ length: corners }, (_, k) => point(b, `corner${k + 1}`));
	names.set('cell', { is: 'ring', points: ring });
	names.set('centre', { is: 'point', at: point(b, 'centre') });
	ring.forEach((corner, k) => {
		const next = ring[(k + 1) % corners]!;
		names.set(`corner${k + 1}`, { is: 'point', at: corner });
		names.set(`edge${k + 1}`, { is: 'path', points: [corner, next] });
		if (corners === 4 && k >= 2) names.set(`edge${k + 1}_aligned`, { is: 'path', points: [next, corner] });
	});
	for (const [name, value] of measures(b, ringMeasures)) names.set(name, value);
	return names;
}
