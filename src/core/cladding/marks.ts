import type { Cells } from '../pattern/cells';
import { CourseHeads, nodeName, two } from './address';
import { letters } from '../units/letters';
import { edgeDirections, type Edges } from '../pattern/edges';

const directionLetter: Record<(typeof edgeDirections)[number], string> = {
	bay: 'v',
	course: 'h',
	rising: 'r',
	falling: 'f',
	trim: 't',
	upright: 'u',
	gap: 'g'
};

/**
 * Zone code, and the number of the face where the zone has several; no code has a full stop in it.
 *
 * ```ts
 * markPrefix('HA', 4, 1); // HA.2: the second of four faces
 * ```
 */
export function markPrefix(code: string, faces: number, face: number): string {
	return faces > 1 ? `${code}.${face + 1}` : code;
}

const placesInSteps = new WeakMap<Cells, Int32Array>();
/** No face has so many bays. */
const MOST_BAYS = 2 ** 24;

/** For every cell its place among those of its course and bay, from 0; -1 where it is alone. Reckoned once. */
function placesInStepsOf(cells: Cells): Int32Array {
	const known = placesInSteps.get(cells);
	if (known) return known;
	const { course, bay, count } = cells;
	const places = new Int32Array(count).fill(-1);
	const first = new Map<number, number>();
	/** By the first of a step: how many there are. */
	const many = new Int32Array(count).fill(1);
	for (let c = 0; c < count; c++) {
		const step = course[c]! * MOST_BAYS + bay[c]!;
		const before = first.get(step);
		if (before === undefined) {
			first.set(step, c);
			continue;
		}
		places[before] = 0;
		places[c] = many[before]!++;
	}
	placesInSteps.set(cells, places);
	return places;
}

const heads = new CourseHeads((prefix, course) => `${prefix}-C${course}-B`);

/**
 * `GR-C06-B20`, with a letter where several cells share a step.
 *
 * ```ts
 * cellMark(markPrefix(zone.code, 1, 0), cells, 17); // GR-C03-B02
 * ```
 */
export function cellMark(prefix: string, cells: Cells, c: number): string {
	const place = placesInStepsOf(cells)[c]!;
	return (
		heads.get(prefix, cells.course[c]!) + two(cells.bay[c]!) + (place < 0 ? '' : letters(place).toLowerCase())
	);
}

/** `GR-C06-B20-v`: v upright, h level, r rising, f falling, t along a trim, u from grid to grid, g a gap; a second one of a step is `t2`. */
export function edgeMark(prefix: string, { course, bay, direction, ordinal }: Edges, e: number): string {
	const letter = directionLetter[edgeDirections[direction[e]!]!];
	return heads.get(prefix, course[e]!) + `${two(bay[e]!)}-${letter}${ordinal[e] ? ordinal[e] + 1 : ''}`;
}

/**
 * `GR-N-C06-B20`: the node of a course line and a bay line; further ones are counted, `GR-N-X3`.
 *
 * ```ts
 * nodeMark('GR', grid, 0); // GR-N01.C01
 * ```
 */
export const nodeMark = (prefix: string, grid: Parameters<typeof nodeName>[0], n: number): string =>
	`${prefix}-N-${nodeName(grid, n).replace('/', '-')}`;

/**
 * `RA-K03`: the third chain.
 *
 * ```ts
 * chainMark('RA', 2); // RA-K03
 * ```
 */
export const chainMark = (prefix: string, k: number): string => `${prefix}-K${two(k + 1)}`;
