export const cellKinds = ['whole', 'edge', 'cut'] as const;
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
	readonly slot: Uint16Array;
	/** Which polygon of the pattern it is, from 0. */
	readonly polygon: Uint8Array;
	/** How much of the pattern's whole cell is left, 0 to 1. */
	readonly share: Float64Array;
	/** Rims with the corners of neighbours that lie on their sides too; null where there are none such. */
	readonly outline: Rings | null;
}

/** The rims of cells, on which edges lie. */
export const outlineOf = ({ start, corners, outline }: Cells): Rings => outline ?? { start, nodes: corners };

/** A cell as it is made. */
export interface CellDraft {
	readonly corners: readonly number[];
	/** With nodes on its sides; null when it has none. */
	readonly outline: readonly number[] | null;
	readonly kind: number;
	/** From 1. */
	readonly course: number;
	readonly bay: number;
	readonly slot: number;
	readonly polygon: number;
	readonly share: number;
}

/** Collects cells in the order they are made. */
export class CellList {
	private readonly corners: number[] = [];
	private readonly start: number[] = [0];
	private readonly kind: number[] = [];
	private readonly course: number[] = [];
	private readonly bay: number[] = [];
	private readonly slot: number[] = [];
	private readonly polygon: number[] = [];
	private readonly share: number[] = [];
	/** Outlines of those cells that have one. */
	private readonly outlines = new Map<number, readonly number[]>();

	get count(): number {
		return this.kind.length;
	}

	push({ corners, outline, kind, course, bay, slot, polygon, share }: CellDraft): void {
		if (outline) this.outlines.set(this.kind.length, outline);
		for (const node of corners) this.corners.push(node);
		this.start.push(this.corners.length);
		this.kind.push(kind);
		this.course.push(course);
		this.bay.push(bay);
		this.slot.push(slot);
		this.polygon.push(polygon);
		this.share.push(share);
	}

	/** A cell of another list, as it is. */
	copy(cells: Cells, c: number): void {
		const ring = ({ start, nodes }: Rings) => Array.from(nodes.subarray(start[c]!, start[c + 1]!));
		this.push({
			corners: ring({ start: cells.start, nodes: cells.corners }),
			outline: cells.outline ? ring(cells.outline) : null,
			kind: cells.kind[c]!,
			course: cells.course[c]!,
			bay: cells.bay[c]!,
			slot: cells.slot[c]!,
			polygon: cells.polygon[c]!,
			share: cells.share[c]!
		});
	}

	/** The cells, in the order given. */
	cells(order?: Uint32Array): Cells {
		const count = this.kind.length;
		const from = (n: number) => order?.[n] ?? n;
		const cells = {
			count,
			start: new Uint32Array(count + 1),
			corners: new Uint32Array(this.corners.length),
			kind: new Uint8Array(count),
			course: new Uint32Array(count),
			bay: new Uint32Array(count),
			slot: new Uint16Array(count),
			polygon: new Uint8Array(count),
			share: new Float64Array(count)
		};
		let at = 0;
		for (let n = 0; n < count; n++) {
			const c = from(n);
			for (let k = this.start[c]!; k < this.start[c + 1]!; k++) cells.corners[at++] = this.corners[k]!;
			cells.start[n + 1] = at;
			cells.kind[n] = this.kind[c]!;
			cells.course[n] = this.course[c]!;
			cells.bay[n] = this.bay[c]!;
			cells.slot[n] = this.slot[c]!;
			cells.polygon[n] = this.polygon[c]!;
			cells.share[n] = this.share[c]!;
		}
		return { ...cells, outline: this.outlines.size ? this.rings(from) : null };
	}

	private rings(from: (n: number) => number): Rings {
		const start = new Uint32Array(this.count + 1);
		const nodes: number[] = [];
		for (let n = 0; n < this.count; n++) {
			const c = from(n);
			const own = this.outlines.get(c);
			if (own) for (const node of own) nodes.push(node);
			else for (let k = this.start[c]!; k < this.start[c + 1]!; k++) nodes.push(this.corners[k]!);
			start[n + 1] = nodes.length;
		}
		return { start, nodes: Uint32Array.from(nodes) };
	}

	/** Course by course from the foot, bay by bay from the left; the order within a step is kept. */
	inBuildingOrder(bays: number, courses: number): Cells {
		const bucket = new Uint32Array(bays * courses + 1);
		const stepOf = (c: number) => (this.course[c]! - 1) * bays + this.bay[c]! - 1;
		for (let c = 0; c < this.count; c++) bucket[stepOf(c) + 1]!++;
		for (let k = 1; k < bucket.length; k++) bucket[k]! += bucket[k - 1]!;
		const order = new Uint32Array(this.count);
		for (let c = 0; c < this.count; c++) order[bucket[stepOf(c)]!++] = c;
		return this.cells(order);
	}

	/** Give cells whose address is taken already a slot of a further round. */
	makeAddressesUnique(slots: number): void {
		const taken = new Set<number>();
		// Course, bay and slot in one number: slots count to 2¹⁶, bays and courses to 2 · 10⁴ each.
		const name = (c: number) => (this.course[c]! * 32768 + this.bay[c]!) * 65536 + this.slot[c]!;
		for (let c = 0; c < this.count; c++) {
			while (taken.has(name(c))) this.slot[c]! += slots;
			taken.add(name(c));
		}
	}
}
