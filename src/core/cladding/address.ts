import { cellKinds, type Cells } from '../pattern/cells';
import { edgeDirections, type Edges } from '../pattern/edges';

/*
 * Addresses within a zone: they name a cell, a line or a node for good, and never change with unrelated values.
 */

/**
 * A course or a bay as addresses, marks and heads have it: two digits at least.
 *
 * ```ts
 * two(7); // 07
 * ```
 */
export const two = (n: number) => (n < 10 && n >= 0 ? `0${n}` : `${n}`);

/**
 * Beginnings of names up to their course, made once for a face at a time: a long list then holds one string for each
 * name and not all the pieces it was put together from.
 */
export class CourseHeads {
	private of: string | null = null;
	private heads: string[] = [];

	constructor(private readonly write: (of: string, course: string) => string) {}

	get(of: string, course: number): string {
		if (of !== this.of) {
			this.of = of;
			this.heads = [];
		}
		return (this.heads[course] ??= this.write(of, two(course)));
	}
}
const heads = new CourseHeads((face, course) => `${face}/C${course}/B`);

/** `skin/C06/B20/1`: face, course, bay, slot. */
export function cellAddress(face: string, cells: Cells, c: number): string {
	return heads.get(face, cells.course[c]!) + `${two(cells.bay[c]!)}/${cells.slot[c]}`;
}

/** The cells of each set by course, bay and slot. */
const books = new WeakMap<Cells, Map<string, number>>();
const placeName = (course: number, bay: number, slot: number) => `${course} ${bay} ${slot}`;

/** The cell that an address names within its face, `C06/B20/1`; -1 when there is none. */
export function cellOfAddress(cells: Cells, within: string): number {
	let book = books.get(cells);
	if (!book) {
		book = new Map();
		for (let c = 0; c < cells.count; c++)
			book.set(placeName(cells.course[c]!, cells.bay[c]!, cells.slot[c]!), c);
		books.set(cells, book);
	}
	const [, course, bay, slot] = within.match(/^C(\d+)\/B(\d+)\/(\d+)$/) ?? [];
	const c = slot && book.get(placeName(Number(course), Number(bay), Number(slot)));
	return c || c === 0 ? c : -1;
}

/** `skin/C06/B20/rising`: the line that starts in a step; a second one of the same way is `rising-2`. */
export function edgeAddress(face: string, edges: Edges, e: number): string {
	const way = edgeDirections[edges.direction[e]!];
	const further = edges.ordinal[e] ? `-${edges.ordinal[e] + 1}` : '';
	return heads.get(face, edges.course[e]!) + `${two(edges.bay[e]!)}/${way}${further}`;
}

/**
 * A node of the grid by its lines, `C03/B01`; one that a trim or a pattern made is counted, `X7`.
 *
 * ```ts
 * nodeName(grid, 12); // C03/B01
 * ```
 */
export function nodeName(
	{ columns, rows }: { readonly columns: number; readonly rows: number },
	n: number
): string {
	const own = columns * rows;
	return n < own ? `C${two(Math.floor(n / columns) + 1)}/B${two((n % columns) + 1)}` : `X${n - own + 1}`;
}

/**
 * The node that a name means; -1 for none.
 *
 * ```ts
 * nodeOfName(grid, grid.positions.length / 3, 'C03/B01'); // 2 * grid.columns
 * ```
 * @param count of all nodes, those that trims made among them
 */
export function nodeOfName(
	{ columns, rows }: { readonly columns: number; readonly rows: number },
	count: number,
	name: string
): number {
	const [, course, bay, further] = name.match(/^(?:C(\d+)\/B(\d+)|X(\d+))$/) ?? [];
	if (further) {
		const n = columns * rows + Number(further) - 1;
		return Number(further) > 0 && n < count ? n : -1;
	}
	const [i, j] = [Number(bay) - 1, Number(course) - 1];
	return i >= 0 && i < columns && j >= 0 && j < rows ? j * columns + i : -1;
}

/**
 * `skin/N/C06/B20`: the node where two lines of the grid meet.
 *
 * ```ts
 * nodeAddress('gull.skin', grid, 12); // gull.skin/N03.C01
 * ```
 */
export const nodeAddress = (face: string, grid: Parameters<typeof nodeName>[0], n: number): string =>
	`${face}/N/${nodeName(grid, n)}`;

/**
 * `rail/K03`: the third chain.
 *
 * ```ts
 * chainAddress('rail', 2); // rail/K03
 * ```
 */
export const chainAddress = (face: string, k: number): string => `${face}/K${two(k + 1)}`;

/**
 * ```ts
 * if (kindOf(cells, 4) === 'cut') cutCells.push(4);
 * ```
 */
export const kindOf = (cells: Cells, c: number) => cellKinds[cells.kind[c]!]!;
