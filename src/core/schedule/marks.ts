import type { Cells } from '../pattern/cells';
import { edgeDirections, type Edges } from '../pattern/edges';

const two = (n: number) => String(n).padStart(2, '0');
const directionLetter: Record<(typeof edgeDirections)[number], string> = {
	bay: 'v',
	course: 'h',
	rising: 'r',
	falling: 'f',
	trim: 't'
};

/** Zone code, and the number of the face where the zone has several. */
function prefix(code: string, faces: number, face: number): string {
	return faces > 1 ? `${code}${face + 1}` : code;
}

/** Whether a cell shares its course and bay with a neighbour in the list, and its place among them. */
function placeInStep({ course, bay, count }: Cells, c: number): string {
	const same = (k: number) => k >= 0 && k < count && course[k] === course[c] && bay[k] === bay[c];
	if (!same(c - 1) && !same(c + 1)) return '';
	let place = 0;
	while (same(c - 1 - place)) place++;
	return String.fromCharCode(97 + place);
}

/** `GR-C06-B20`, with a letter where several cells share a step. */
export function cellMark(
	code: string,
	faces: number,
	f: number,
	face: { readonly cells: Cells },
	c: number
): string {
	const { course, bay } = face.cells;
	return `${prefix(code, faces, f)}-C${two(course[c]!)}-B${two(bay[c]!)}${placeInStep(face.cells, c)}`;
}

/** `GR-C06-B20-v`: v upright, h level, r rising, f falling, t along a trim; a second one of a step is `t2`. */
export function edgeMark(
	code: string,
	faces: number,
	f: number,
	face: { readonly edges: Edges },
	e: number
): string {
	const { course, bay, direction, ordinal } = face.edges;
	const letter = directionLetter[edgeDirections[direction[e]!]!];
	return `${prefix(code, faces, f)}-C${two(course[e]!)}-B${two(bay[e]!)}-${letter}${ordinal[e] ? ordinal[e] + 1 : ''}`;
}
