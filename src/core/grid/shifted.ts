import type { Surface } from '../geometry/surface';
import { POLE } from '../geometry/tolerance';
import { Lattice } from './lattice';
import type { NodeGrid, Spread } from './node-grid';

/** A spread whose lines lie in the middle of another's steps; an open one has a step less, a ring's last is its first. */
function between(of: Spread): Spread {
	const { fractions } = of.division;
	const steps = of.steps - (of.closed ? 0 : 1);
	const middles = Float64Array.from({ length: steps + 1 }, (_, k) =>
		k < of.steps ? (fractions[k]! + fractions[k + 1]!) / 2 : 1 + fractions[1]! / 2
	);
	return {
		...of,
		steps,
		division: { fractions: middles, makeUp: { first: 0, last: 0 }, whole: null }
	};
}

/**
 * The grid whose nodes lie in the middle of another's steps, on the same face: node (i, j) in step (i, j). It is not
 * there where a corner of the step is not.
 *
 * ```ts
 * const offset = shiftedGrid(face.surface, grid); // a grid of 6 by 4 steps gives one of 5 by 3
 * ```
 * @param grid of at least two steps each way, or closed
 */
export function shiftedGrid(surface: Surface, grid: NodeGrid): NodeGrid {
	const lattice = new Lattice(grid, surface);
	const [columns, rows] = [grid.across.steps, grid.up.steps];
	const count = columns * rows;
	const [u, v] = [new Float64Array(count), new Float64Array(count)];
	const [positions, normals] = [new Float64Array(3 * count), new Float64Array(3 * count)];
	const flat = new Float64Array(2 * count);
	const absent = new Uint8Array(count);
	const cornersOf = (i: number, j: number) =>
		[
			[i, j],
			[i + 1, j],
			[i + 1, j + 1],
			[i, j + 1]
		].map(([p, q]) => (q! % grid.rows) * grid.columns + (p! % grid.columns));
	const runsOut = (i: number, j: number) =>
		grid.rims !== null &&
		[i, (i + 1) % grid.columns].some((c) => j < grid.rims!.foot[c]! || j + 1 > grid.rims!.head[c]!);
	for (let j = 0; j < rows; j++)
		for (let i = 0; i < columns; i++) {
			const node = j * columns + i;
			const place = lattice.parameters(i + 0.5, j + 0.5);
			[u[node], v[node]] = place;
			if (runsOut(i, j) || cornersOf(i, j).some((corner) => grid.absent?.[corner])) {
				absent[node] = 1;
				continue;
			}
			const { point, normal } = lattice.evaluate(...place);
			positions.set(point, 3 * node);
			normals.set(normal, 3 * node);
			flat.set(lattice.flat(i + 0.5, j + 0.5), 2 * node);
		}
	const courseLengths = Float64Array.from(
		{ length: rows },
		(_, j) => (grid.courseLengths[j]! + grid.courseLengths[(j + 1) % grid.rows]!) / 2
	);
	return {
		across: between(grid.across),
		up: between(grid.up),
		columns,
		rows,
		positions,
		normals,
		u,
		v,
		flat,
		off: new Float64Array(count),
		poles: Array.from(courseLengths.keys()).filter((j) => courseLengths[j]! < POLE),
		absent: absent.includes(1) ? absent : null,
		rims: null,
		extraI: new Float64Array(0),
		extraJ: new Float64Array(0),
		courseLengths
	};
}
