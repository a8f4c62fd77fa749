/**
 * Whole cells; those cut at the end of the grid; those cut by a trim; and those in an end strip that is narrower than
 * the other steps, whole but smaller.
 */
export const cellKinds = ['whole', 'edge', 'cut', 'strip'] as const;
export type CellKind = (typeof cellKinds)[number];

/** Rings of nodes: ring c is nodes[start[c] .. start[c + 1]). */
export interface Rings {
	readonly start: Uint32Array;
	readonly nodes: Uint32Array;
}

/**
 * The cells of a face in building order: course by course from the foot, bay by bay from the left.
 * Corners are node indices of the grid, counter-clockwise seen from outside.
 */
export interface Cells {
	readonly count: number;
	/** Corners of cell c: corners[start[c] .. start[c + 1]). */
	readonly start: Uint32Array;
	readonly corners: Uint32Array;
	/** Index into `cellKinds`. */
	readonly kind: Uint8Array;
	/** Address within the face, each counted from 1. */
	readonly course: Uint32Array;
	readonly bay: Uint32Array;
	readonly slot: Uint32Array;
	/** Which polygon of the pattern it is, from 0. */
	readonly polygon: Uint16Array;
	/** How much of the pattern's whole cell is left, 0 to 1. */
	readonly share: Float64Array;
	/** Rims with the corners of neighbours that lie on their sides too; null where there are none such. */
	readonly outline: Rings | null;
	/** Cells with others in them; null where there are none such. */
	readonly pierced: PiercedCells | null;
	/** Corners of cells as they were before trims cut them; null where nothing is cut. */
	readonly uncut: Rings | null;
}

/** Cells around others: the web between scattered cells, which are openings in it. */
export interface PiercedCells {
	/** Their numbers, ascending. */
	readonly cells: Uint32Array;
	/** The openings of the k-th, by their numbers: openings[firstOpening[k] .. firstOpening[k + 1]). */
	readonly firstOpening: Uint32Array;
	readonly openings: Uint32Array;
	/** The k-th without its openings: three nodes for each triangle, triangles[firstCorner[k] .. firstCorner[k + 1]), outward. */
	readonly firstCorner: Uint32Array;
	readonly triangles: Uint32Array;
}

/** The cells as they were before trims cut them, each under its own number. */
export const uncutCells = (cells: Cells): Cells =>
	cells.uncut
		? { ...cells, start: cells.uncut.start, corners: cells.uncut.nodes, outline: null, pierced: null }
		: cells;

/** The rims of cells, on which edges lie. */
export const outlineOf = ({ start, corners, outline }: Cells): Rings => outline ?? { start, nodes: corners };

/**
 * The cells that are openings in a cell, by their numbers.
 *
 * ```ts
 * const openings = openingsIn(cells, 4); // empty for most
 * ```
 */
export function openingsIn({ pierced }: Cells, c: number): Uint32Array {
	const k = pierced ? pierced.cells.indexOf(c) : -1;
	if (k < 0) return NONE;
	return pierced!.openings.subarray(pierced!.firstOpening[k]!, pierced!.firstOpening[k + 1]!);
}
const NONE = new Uint32Array();

/** A cell as it is made. */
export interface CellDraft {
	readonly corners: readonly number[];
	/** With nodes on its sides; null when it has none. */
	readonly outline: readonly number[] | null;
	/** Its corners before a trim cut it; left out for one that is as its pattern made it. */
	readonly uncut?: readonly number[];
	readonly kind: number;
	/** From 1. */
	readonly course: number;
	readonly bay: number;
	readonly slot: number;
	readonly polygon: number;
	readonly share: number;
}

/** A list of numbers in a typed array that grows. */
class Column<T extends Uint8Array | Uint16Array | Uint32Array | Float64Array> {
	length = 0;
	constructor(
		public values: T,
		private readonly make: (size: number) => T
	) {}

	makeRoom(length: number): void {
		if (length <= this.values.length) return;
		const larger = this.make(Math.max(length, 2 * this.values.length));
		larger.set(this.values);
		this.values = larger;
	}

	push(value: number): void {
		this.makeRoom(this.length + 1);
		this.values[this.length++] = value;
	}
	append(values: ArrayLike<number>): void {
		this.makeRoom(this.length + values.length);
		this.values.set(values, this.length);
		this.length += values.length;
	}
	/** The values, or those at given places. */
	picked(order?: Uint32Array): T {
		// What is full can be kept: whoever puts more to it gets larger memory first.
		if (!order)
			return this.length === this.values.length ? this.values : (this.values.slice(0, this.length) as T);
		const out = this.make(order.length);
		for (let n = 0; n < order.length; n++) out[n] = this.values[order[n]!]!;
		return out;
	}
}
const FIRST_SIZE = 1024;
const NO_OTHERS: ReadonlyMap<number, ArrayLike<number>> = new Map();
const columnOf = <T extends Uint8Array | Uint16Array | Uint32Array | Float64Array>(
	make: (size: number) => T
) => new Column(make(FIRST_SIZE), make);
const bytes = () => columnOf((size) => new Uint8Array(size));
const words = () => columnOf((size) => new Uint32Array(size));

/**
 * Collects cells in the order they are made.
 *
 * ```ts
 * const none = new CellList().cells();
 * ```
 */
export class CellList {
	private readonly corners = words();
	private readonly start = words();
	private readonly kind = bytes();
	private readonly course = words();
	private readonly bay = words();
	private readonly slot = words();
	private readonly polygon = columnOf((size) => new Uint16Array(size));
	private readonly share = columnOf((size) => new Float64Array(size));
	/** Outlines of those cells that have one, and corners of those that were cut, before. */
	private readonly outlines = new Map<number, ArrayLike<number>>();
	private readonly uncut = new Map<number, ArrayLike<number>>();
	/** Where the cell that is being made begins. */
	private first = 0;

	constructor() {
		this.start.push(0);
	}

	get count(): number {
		return this.kind.length;
	}

	/** Make room for so many cells and all their corners, so that it need not grow again and again. */
	expect(cells: number, corners: number): void {
		this.start.makeRoom(cells + 1);
		this.corners.makeRoom(corners);
		for (const column of [this.kind, this.course, this.bay, this.slot, this.polygon, this.share])
			column.makeRoom(cells);
	}

	push({ corners, outline, uncut, kind, course, bay, slot, polygon, share }: CellDraft): void {
		if (outline) this.outlines.set(this.kind.length, outline);
		if (uncut) this.uncut.set(this.kind.length, uncut);
		for (const node of corners) this.corners.push(node);
		this.end(kind, course, bay, slot, polygon, share);
	}

	/** A corner of the cell that is being made, unless it would stand twice; `end` ends it, `drop` gives it up. */
	corner(node: number): void {
		const { values, length } = this.corners;
		if (length > this.first && (values[length - 1] === node || values[this.first] === node)) return;
		this.corners.push(node);
	}
	/** Corners of the cell that is being made. */
	get open(): number {
		return this.corners.length - this.first;
	}
	drop(): void {
		this.corners.length = this.first;
	}
	end(kind: number, course: number, bay: number, slot: number, polygon: number, share: number): void {
		this.first = this.corners.length;
		this.start.push(this.first);
		this.kind.push(kind);
		this.course.push(course);
		this.bay.push(bay);
		this.slot.push(slot);
		this.polygon.push(polygon);
		this.share.push(share);
	}

	/** A cell of another list, as it is; with `to` those from the first up to it. */
	copy(cells: Cells, from: number, to = from + 1): void {
		const { start, corners } = cells;
		const before = this.count;
		const moved = this.corners.length - start[from]!;
		this.corners.append(corners.subarray(start[from]!, start[to]!));
		for (let c = from + 1; c <= to; c++) this.start.push(start[c]! + moved);
		this.first = this.corners.length;
		this.kind.append(cells.kind.subarray(from, to));
		this.course.append(cells.course.subarray(from, to));
		this.bay.append(cells.bay.subarray(from, to));
		this.slot.append(cells.slot.subarray(from, to));
		this.polygon.append(cells.polygon.subarray(from, to));
		this.share.append(cells.share.subarray(from, to));
		for (const [own, rings] of [
			[this.outlines, cells.outline],
			[this.uncut, cells.uncut]
		] as const)
			for (let c = from; rings && c < to; c++)
				own.set(before + c - from, rings.nodes.slice(rings.start[c]!, rings.start[c + 1]!));
	}

	/** The cells, in the order given; none is pierced yet. */
	cells(order?: Uint32Array): Cells {
		const { start, nodes: corners } = this.rings(NO_OTHERS, order);
		// Written out: objects that are spread into one another are of another shape to the engine each time.
		return {
			count: this.count,
			start,
			corners,
			kind: this.kind.picked(order),
			course: this.course.picked(order),
			bay: this.bay.picked(order),
			slot: this.slot.picked(order),
			polygon: this.polygon.picked(order),
			share: this.share.picked(order),
			outline: this.outlines.size ? this.rings(this.outlines, order) : null,
			uncut: this.uncut.size ? this.rings(this.uncut, order) : null,
			pierced: null
		};
	}

	/** @param others rings of some cells; the others have their corners */
	private rings(others: ReadonlyMap<number, ArrayLike<number>>, order?: Uint32Array): Rings {
		if (!others.size && !order) return { start: this.start.picked(), nodes: this.corners.picked() };
		const { count } = this;
		const { values: first } = this.start;
		const { values: corners } = this.corners;
		let length = this.corners.length;
		for (const [c, own] of others) length += own.length - (first[c + 1]! - first[c]!);
		const start = new Uint32Array(count + 1);
		const nodes = new Uint32Array(length);
		let at = 0;
		for (let n = 0; n < count; n++) {
			const c = order ? order[n]! : n;
			const own = others.size ? others.get(c) : undefined;
			if (own) for (let k = 0; k < own.length; k++) nodes[at++] = own[k]!;
			else for (let k = first[c]!; k < first[c + 1]!; k++) nodes[at++] = corners[k]!;
			start[n + 1] = at;
		}
		return { start, nodes };
	}

	/** Course by course from the foot, bay by bay from the left; the order within a step is kept. */
	inBuildingOrder(bays: number, courses: number): Cells {
		const { count } = this;
		const [course, bay] = [this.course.values, this.bay.values];
		const stepOf = (c: number) => (course[c]! - 1) * bays + bay[c]! - 1;
		let ordered = true;
		for (let c = 1; c < count && ordered; c++) ordered = stepOf(c) >= stepOf(c - 1);
		if (ordered) return this.cells();
		const bucket = new Uint32Array(bays * courses + 1);
		for (let c = 0; c < count; c++) bucket[stepOf(c) + 1]!++;
		for (let k = 1; k < bucket.length; k++) bucket[k]! += bucket[k - 1]!;
		const order = new Uint32Array(count);
		for (let c = 0; c < count; c++) order[bucket[stepOf(c)]!++] = c;
		return this.cells(order);
	}

	/** Give cells whose address is taken already a slot of a further round. */
	makeAddressesUnique(slots: number, bays: number, courses: number): void {
		const { course, bay, slot } = this;
		/** The last cell of each step so far, and the one before each cell in its step. */
		const last = new Int32Array(bays * courses).fill(-1);
		const before = new Int32Array(this.count);
		for (let c = 0; c < this.count; c++) {
			const step = (course.values[c]! - 1) * bays + bay.values[c]! - 1;
			before[c] = last[step]!;
			last[step] = c;
			for (let other = before[c]!; other >= 0; other = before[other]!)
				if (slot.values[other] === slot.values[c]) {
					slot.values[c]! += slots;
					other = c;
				}
		}
	}
}
