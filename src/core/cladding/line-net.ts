import { CellList } from '../pattern/cells';
import { chainsThrough } from '../pattern/chains';
import type { Edges } from '../pattern/edges';
import type { NodeGrid, Spread } from '../grid/node-grid';
import { measureCells } from '../measure/cell-measures';
import { ALONG, NO_DIRECTION } from '../geometry/tolerance';
import { add, cross, length, pointAt, squareTo, subtract, unit } from '../geometry/vector';
import type { SetOutFace } from './model';

const NO_CELLS = new CellList().cells();
const NOTHING = new Float64Array(0);

/** Nodes in a row, with no face that they lie on. */
function rowOfNodes({
	positions,
	normals,
	spread: own
}: Pick<Net, 'positions' | 'normals' | 'spread'>): NodeGrid {
	const columns = positions.length / 3;
	const division = (steps: number) => ({
		fractions: Float64Array.from({ length: steps + 1 }, (_, k) => k / Math.max(1, steps)),
		makeUp: { first: 0, last: 0 },
		whole: null
	});
	const spread = (steps: number): Spread => ({
		steps,
		division: division(steps),
		lengths: { belt: 0, longest: 0 },
		closed: false
	});
	return {
		across: own ?? spread(columns - 1),
		up: spread(0),
		columns,
		rows: 1,
		positions,
		normals,
		u: new Float64Array(columns),
		v: new Float64Array(columns),
		flat: new Float64Array(2 * columns),
		off: new Float64Array(columns),
		poles: [],
		absent: null,
		rims: null,
		extraI: NOTHING,
		extraJ: NOTHING,
		courseLengths: new Float64Array(1)
	};
}

/** The mean of the normals at both ends of every line; of one that stands square to the face a way beside it. */
function normalsOf(
	{ count, from, to }: Edges,
	{ positions, normals }: Pick<Net, 'positions' | 'normals'>
): Float64Array {
	const found = new Float64Array(3 * count);
	for (let e = 0; e < count; e++) {
		const [a, b] = [from[e]!, to[e]!];
		const sum = add(pointAt(normals, a), pointAt(normals, b));
		const mean = length(sum) > NO_DIRECTION ? unit(sum) : pointAt(normals, a);
		const way = unit(subtract(pointAt(positions, b), pointAt(positions, a)));
		const isAlong = length(cross(mean, way)) < ALONG && length(way) > 0;
		found.set(isAlong ? squareTo(way, mean) : mean, 3 * e);
	}
	return found;
}

/** Nodes and lines that stand without cells: a web, or the stations of a path and the gaps between them. */
export interface Net {
	readonly address: string;
	/** Flat x y z (mm). */
	readonly positions: Float64Array;
	readonly normals: Float64Array;
	readonly lines: Edges;
	/** How the nodes of a path follow one another; null where they are in no order. */
	readonly spread: Spread | null;
	/** Nodes that follow one another, of each chain. */
	readonly chains: readonly (readonly number[])[];
	/** What is to be said of how it was laid. */
	readonly said: readonly string[];
}

/**
 * A net as a face that pieces can be hung on: it has no cells.
 *
 * ```ts
 * const { positions, normals } = grid;
 * const net = { address: 'rail', positions, normals, lines: edges, spread: null, chains: [], said: [] };
 * const rail = lineNet(net, 7);
 * ```
 */
export function lineNet(
	{ address, positions, normals, lines, spread, chains, said }: Net,
	serial: number
): SetOutFace {
	const grid = rowOfNodes({ positions, normals, spread });
	const noCells = {
		cells: NO_CELLS,
		measures: measureCells(NO_CELLS, positions),
		centresOnFace: () => NOTHING
	};
	return {
		face: null,
		address,
		area: () => 0,
		bare: 0,
		grid,
		...noCells,
		uncut: () => noCells,
		curvature: () => ({ smallest: NOTHING, largest: NOTHING }),
		joint: 0,
		flags: new Map(),
		slots: [],
		slivers: { cells: new Uint32Array(0), joined: 0, put: 'flag' },
		layer: null,
		edges: lines,
		chains: chainsThrough(chains, positions),
		sharedEdges: null,
		usedNodes: grid.columns,
		edgeNormals: normalsOf(lines, { positions, normals }),
		folds: new Float64Array(lines.count),
		origin: [0, 1, 2].map((k) => Math.round(positions[k] ?? 0)) as [number, number, number],
		said,
		serial
	};
}
