import { NO_CELL, type Edges } from '../pattern/edges';
import type { CellMeasures } from '../measure/cell-measures';
import type { NumberKind } from '../units/dimension';
import { chanceOf } from './chance';
import { gather, reckon } from './column';
import { field, type Field, type Read } from './field';

const measure = (name: string, label: string, kind: NumberKind, of: keyof CellMeasures) =>
	field('cell', name, label, kind, ['measures'], ({ measures }, sites) => gather(sites, measures[of]));

/** How far the corners of a cell are from even true length, at most (mm). */
const offEven: Read<'cells' | 'grid'> = ({ cells, grid: { off } }, sites) =>
	reckon(sites, (c) => {
		let most = 0;
		for (let k = cells.start[c]!; k < cells.start[c + 1]!; k++)
			most = Math.max(most, off[cells.corners[k]!] ?? 0);
		return most;
	});

/** The cells beside every cell: those of cell c are beside[start[c] .. start[c + 1]). */
function neighbours(count: number, { left, right }: Pick<Edges, 'left' | 'right'>) {
	const start = new Uint32Array(count + 1);
	for (let e = 0; e < right.length; e++) {
		if (right[e] === NO_CELL) continue;
		start[left[e]! + 1]!++;
		start[right[e]! + 1]!++;
	}
	for (let c = 0; c < count; c++) start[c + 1]! += start[c]!;
	const beside = new Uint32Array(start[count]!);
	const filled = start.slice();
	for (let e = 0; e < right.length; e++) {
		if (right[e] === NO_CELL) continue;
		beside[filled[left[e]!]!++] = right[e]!;
		beside[filled[right[e]!]!++] = left[e]!;
	}
	return { start, beside };
}

/** How many cells there are to the nearest rim, the cell itself counted: 1 where it has a side on a rim or an opening. */
const fromRim: Read<'cells' | 'edges'> = ({ cells, edges }, sites) => {
	const { count } = cells;
	const { start, beside } = neighbours(count, edges);
	const distance = new Uint32Array(count);
	/** Cells in the order in which they are reached. */
	const reached = new Uint32Array(count);
	let last = 0;
	for (let e = 0; e < edges.count; e++) {
		const c = edges.left[e]!;
		if (edges.right[e] !== NO_CELL || distance[c]! > 0) continue;
		distance[c] = 1;
		reached[last++] = c;
	}
	for (let n = 0; n < last; n++) {
		const c = reached[n]!;
		for (let k = start[c]!; k < start[c + 1]!; k++) {
			const other = beside[k]!;
			if (distance[other]! > 0) continue;
			distance[other] = distance[c]! + 1;
			reached[last++] = other;
		}
	}
	// Of a face without any rim nothing is near one.
	return reckon(sites, (c) => distance[c] || count);
};

/** Of cells with others in them, how many there are. */
const openings: Read<'cells'> = ({ cells: { count, pierced } }, sites) => {
	const numbers = new Uint32Array(count);
	for (let k = 0; pierced && k < pierced.cells.length; k++)
		numbers[pierced.cells[k]!] = pierced.firstOpening[k + 1]! - pierced.firstOpening[k]!;
	return gather(sites, numbers);
};
/** And how much of the whole they are. */
const openShare: Read<'cells' | 'measures'> = ({ cells: { count, pierced }, measures: { area } }, sites) => {
	const shares = new Float64Array(count);
	for (let k = 0; pierced && k < pierced.cells.length; k++) {
		let open = 0;
		for (let n = pierced.firstOpening[k]!; n < pierced.firstOpening[k + 1]!; n++)
			open += area[pierced.openings[n]!]!;
		const c = pierced.cells[k]!;
		shares[c] = open / (open + area[c]! || 1);
	}
	return gather(sites, shares);
};

const TURN = 2 * Math.PI;
/** The bearing of a direction in plan: 0 to the north (y), a quarter turn to the east (x); 0 where it looks up or down. */
const bearing = (x: number, y: number) => (x * x + y * y < 1e-18 ? 0 : (Math.atan2(x, y) + TURN) % TURN);

export const cellFields: readonly Field[] = [
	measure('warp', 'warp', 'length', 'warp'),
	measure('area', 'area', 'area', 'area'),
	measure('perimeter', 'perimeter', 'length', 'perimeter'),
	measure('longest_edge', 'longest edge', 'length', 'longestEdge'),
	measure('shortest_edge', 'shortest edge', 'length', 'shortestEdge'),
	measure('smallest_angle', 'smallest angle', 'angle', 'smallestAngle'),
	measure('largest_angle', 'largest angle', 'angle', 'largestAngle'),
	field('cell', 'height', 'height', 'length', ['measures'], ({ measures }, sites) =>
		gather(sites, measures.centre, 3, 2)
	),
	field('cell', 'slope', 'slope', 'angle', ['measures'], ({ measures: { normal } }, sites) =>
		reckon(sites, (c) => Math.acos(Math.min(1, Math.max(-1, normal[3 * c + 2]!))))
	),
	field('cell', 'facing', 'bearing it faces', 'angle', ['measures'], ({ measures: { normal } }, sites) =>
		reckon(sites, (c) => bearing(normal[3 * c]!, normal[3 * c + 1]!))
	),
	field('cell', 'radius', 'smallest radius of curvature', 'length', ['curvature'], ({ curvature }, sites) =>
		gather(sites, curvature().smallest)
	),
	field(
		'cell',
		'largest_radius',
		'largest radius of curvature',
		'length',
		['curvature'],
		({ curvature }, sites) => gather(sites, curvature().largest)
	),
	field('cell', 'off_even', 'distance from even true length', 'length', ['cells', 'grid'], offEven),
	field('cell', 'share', 'share of the whole cell', 'ratio', ['cells'], ({ cells }, sites) =>
		gather(sites, cells.share)
	),
	field('cell', 'across', 'share of the way across', 'ratio', ['cells', 'grid'], ({ cells, grid }, sites) =>
		reckon(sites, (c) => (cells.bay[c]! - 0.5) / grid.across.steps)
	),
	field('cell', 'up', 'share of the way up', 'ratio', ['cells', 'grid'], ({ cells, grid }, sites) =>
		reckon(sites, (c) => (cells.course[c]! - 0.5) / grid.up.steps)
	),
	field('cell', 'from_rim', 'cells from the rim', 'count', ['cells', 'edges'], fromRim),
	field('cell', 'chance', 'chance', 'ratio', ['cells', 'address'], ({ cells, address }, sites) => {
		const draw = chanceOf(address, 1);
		return reckon(sites, (c) => draw(cells.course[c]!, cells.bay[c]!, cells.slot[c]!));
	}),
	field('cell', 'openings', 'openings', 'count', ['cells'], openings),
	field('cell', 'open_share', 'share that is open', 'ratio', ['cells', 'measures'], openShare),
	field('cell', 'corners', 'corners', 'count', ['cells'], ({ cells: { start } }, sites) =>
		reckon(sites, (c) => start[c + 1]! - start[c]!)
	),
	field('cell', 'course', 'course', 'count', ['cells'], ({ cells }, sites) => gather(sites, cells.course)),
	field('cell', 'bay', 'bay', 'count', ['cells'], ({ cells }, sites) => gather(sites, cells.bay))
];
