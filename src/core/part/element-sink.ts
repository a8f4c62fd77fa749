import { CapFiller } from './caps';
import type { ElementTable } from './element-table';
import type { ElementOutput, PointSlots } from './program';

type Column = Uint32Array | Uint8Array | Float64Array | Float32Array;

/** Rows of a block of pieces or turns, and which of them are alive. */
export interface LiveRows {
	readonly slots: readonly Float64Array[];
	readonly piece: Uint32Array;
	readonly turn: Uint32Array;
	readonly alive: Uint32Array;
	readonly aliveCount: number;
}

/** A table that grows as instances come. */
export class ElementSink {
	count = 0;
	private capacity: number;
	row: Uint32Array;
	turn: Uint32Array;
	volume: Float64Array;
	area: Float64Array;
	length: Float64Array;
	/** Of its stock. */
	private sizes: Float64Array[];
	positions: Float32Array;
	/** Whether the caps of an instance have to be looked at, and what came of it. */
	private looked: Uint8Array;
	private filler: CapFiller | null = null;
	private readonly fillings = new Map<number, readonly number[]>();
	readonly vertices: readonly PointSlots[];
	readonly triangles: readonly number[];

	constructor(
		readonly output: ElementOutput,
		capacity: number
	) {
		this.vertices = output.vertices;
		this.triangles = output.triangles;
		this.capacity = capacity;
		this.row = new Uint32Array(capacity);
		this.turn = new Uint32Array(capacity);
		this.volume = new Float64Array(capacity);
		this.area = new Float64Array(capacity);
		this.length = new Float64Array(capacity);
		this.sizes = (output.stock?.sizes ?? []).map(() => new Float64Array(capacity));
		this.positions = new Float32Array(capacity * this.vertices.length * 3);
		this.looked = new Uint8Array(output.caps.length ? capacity : 0);
	}

	private grow(needed: number): void {
		if (needed <= this.capacity) return;
		this.capacity = Math.max(needed, 2 * this.capacity);
		const wider = <A extends Column>(column: A, each = 1): A => {
			const copy = new (column.constructor as new (n: number) => A)(this.capacity * each);
			copy.set(column as never);
			return copy;
		};
		this.row = wider(this.row);
		this.turn = wider(this.turn);
		this.volume = wider(this.volume);
		this.area = wider(this.area);
		this.length = wider(this.length);
		this.sizes = this.sizes.map((column) => wider(column));
		this.positions = wider(this.positions, this.vertices.length * 3);
		if (this.output.caps.length) this.looked = wider(this.looked);
	}

	/** Take the rows of a block that are alive. */
	take(frame: LiveRows, origin: readonly [number, number, number]): void {
		const { alive, aliveCount, slots } = frame;
		this.grow(this.count + aliveCount);
		const first = this.count;
		const volume = slots[this.output.volume]!;
		const area = slots[this.output.area]!;
		const length = slots[this.output.length]!;
		for (let n = 0; n < aliveCount; n++) {
			const r = alive[n]!;
			this.row[first + n] = frame.piece[r]!;
			this.turn[first + n] = this.output.firstTurn + frame.turn[r]!;
			this.volume[first + n] = volume[r]!;
			this.area[first + n] = area[r]!;
			this.length[first + n] = length[r]!;
		}
		for (const [k, slot] of (this.output.stock?.sizes ?? []).entries())
			for (let n = 0; n < aliveCount; n++) this.sizes[k]![first + n] = slots[slot]![alive[n]!]!;
		for (const [k, { when }] of this.output.caps.entries())
			for (let n = 0; n < aliveCount; n++) {
				const raised = when === null || slots[when]![alive[n]!] !== 0;
				if (k === 0 || raised) this.looked[first + n] = Number(raised);
			}
		const stride = 3 * this.vertices.length;
		const { positions } = this;
		const [ox, oy, oz] = origin;
		for (let v = 0; v < this.vertices.length; v++) {
			const at = this.vertices[v]!;
			const x = slots[at.x]!;
			const y = slots[at.y]!;
			const z = slots[at.z]!;
			let o = first * stride + 3 * v;
			for (let n = 0; n < aliveCount; n++, o += stride) {
				const r = alive[n]!;
				positions[o] = x[r]! - ox;
				positions[o + 1] = y[r]! - oy;
				positions[o + 2] = z[r]! - oz;
			}
		}
		this.count += aliveCount;
	}

	/**
	 * Find the triangles of caps that are looked at.
	 * @param lose a row whose piece cannot be made after all, with the flag that says why
	 */
	look(lose: (row: number, flag: number) => void): void {
		const { caps } = this.output;
		if (!caps.length) return;
		const values = 3 * this.vertices.length;
		for (let k = 0; k < this.count; k++) {
			if (!this.looked[k]) continue;
			this.filler ??= new CapFiller(
				this.triangles,
				caps.map(({ cap }) => cap)
			);
			const fillings = this.filler.fillingsOf(this.positions.subarray(values * k, values * (k + 1)));
			if (fillings) this.fillings.set(k, fillings);
			else for (const { crossed } of caps) if (crossed !== null) lose(this.row[k]!, crossed);
		}
	}

	/** One table for all instances whose triangles are the same. @param lost rows that cannot be made after all */
	tables(lost: ReadonlySet<number>): ElementTable[] {
		if (!lost.size && !this.fillings.size) return [this.table(null, this.triangles)];
		const groups = new Map<string, number[]>();
		for (let k = 0; k < this.count; k++) {
			if (lost.has(this.row[k]!)) continue;
			const name = this.fillings.get(k)?.join() ?? '';
			const group = groups.get(name);
			if (group) group.push(k);
			else groups.set(name, [k]);
		}
		return [...groups.values()].map((instances) => {
			const fillings = this.fillings.get(instances[0]!);
			return this.table(instances, fillings ? this.filler!.trianglesOf(fillings) : this.triangles);
		});
	}

	/** @param instances null for all */
	private table(instances: readonly number[] | null, triangles: readonly number[]): ElementTable {
		const values = 3 * this.vertices.length;
		const count = instances?.length ?? this.count;
		const pick = <A extends Column>(column: A, each = 1): A => {
			if (!instances) return (column.length === count * each ? column : column.slice(0, count * each)) as A;
			const some = new (column.constructor as new (n: number) => A)(count * each);
			instances.forEach((k, n) => some.set(column.subarray(k * each, (k + 1) * each) as never, n * each));
			return some;
		};
		return {
			element: this.output.element,
			count,
			row: pick(this.row),
			turn: pick(this.turn),
			volume: pick(this.volume),
			area: pick(this.area),
			length: pick(this.length),
			stock: this.output.stock && {
				shape: this.output.stock.shape,
				sizes: this.sizes.map((column) => pick(column))
			},
			shape: {
				is: 'made',
				positions: pick(this.positions, values),
				verticesEach: this.vertices.length,
				triangles
			}
		};
	}
}
