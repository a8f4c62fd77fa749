import { setOut } from '../../src/core/grid/set-out';
import type { Face } from '../../src/core/mass/face';
import { measureCells } from '../../src/core/measure/cell-measures';
import type { SettingOut } from '../../src/core/project/schema';
import type { Cells } from '../../src/core/pattern/cells';
import { framedByHand, type FramedByHand, type FramedSizes } from './framed-glass-by-hand';

const ORIGIN = [0, 0, 0] as const;

/**
 * Framed glass on the cells between the lines of a face that goes round, as one would write it for this one case: the
 * columns of the grid, corners and lines by counting, measures, and one kernel for the part. No patterns, trims, rules,
 * marks or parts of one's own. It is what a whole chain is held against.
 */
export function framedStraight(face: Face, settingOut: SettingOut, sizes: FramedSizes): FramedByHand {
	const { columns, rows, positions } = setOut(face, settingOut, 'straight');
	const courses = rows - 1;
	const count = columns * courses;
	const start = Uint32Array.from({ length: count + 1 }, (_, c) => 4 * c);
	const corners = new Uint32Array(4 * count);
	const [from, to] = [new Uint32Array(2 * count + columns), new Uint32Array(2 * count + columns)];
	let edge = 0;
	for (let j = 0; j < rows; j++)
		for (let i = 0; i < columns; i++) {
			const node = j * columns + i;
			const next = j * columns + ((i + 1) % columns);
			from[edge] = node;
			to[edge++] = next;
			if (j === courses) continue;
			from[edge] = node;
			to[edge++] = node + columns;
			corners[4 * node] = node;
			corners[4 * node + 1] = next;
			corners[4 * node + 2] = next + columns;
			corners[4 * node + 3] = node + columns;
		}
	const { normal, shortestEdge } = measureCells({ count, start, corners } as Cells, positions);
	const rings = new Float64Array(12 * count);
	for (let k = 0; k < corners.length; k++)
		for (let a = 0; a < 3; a++) rings[3 * k + a] = positions[3 * corners[k]! + a]!;
	return framedByHand(rings, normal, shortestEdge, ORIGIN, sizes);
}
