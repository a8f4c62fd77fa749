import { CapFiller } from './caps';
import type { ElementTable } from './element-table';
import type { VertexSlots } from './evaluate/back-end';
import type { ElementOutput } from './program';
import { SpareMemory } from '../units/spare-memory';
import { bufferOf } from './shared-memory';

type Column = Uint32Array | Float64Array | Float32Array;

/** Rows of a block of pieces or turns, and which of them are alive. */
export interface LiveRows {
	readonly slots: readonly Float64Array[];
	readonly piece: Uint32Array;
	readonly turn: Uint32Array;
	readonly alive: Uint32Array;
	readonly aliveCount: number;
	readonly rows: number;
	/** Vertices of all rows, one row's after another: x y z from an origin. Good until the next call. */
	places(of: VertexSlots, origin: readonly [number, number, number]): Float32Array;
}

/** The columns of a table: views of one buffer, so that what is made of many chunks is few things to keep and send. */
interface Columns {
	readonly volume: Float64Array;
	readonly area: Float64Array;
	readonly length: Float64Array;
	/** Of its stock. */
	readonly sizes: readonly Float64Array[];
	readonly positions: Float32Array;
	readonly row: Uint32Array;
	readonly turn: Uint32Array;
	/** Whether the caps of an instance have to be looked at. */
	readonly looked: Uint8Array;
}

/** What one instance takes in a table (bytes). */
const bytesEach = ({ stock, verticesEach, caps }: ElementOutput): number =>
	8 * (3 + (stock?.sizes.length ?? 0)) + 4 * 3 * verticesEach + 8 + (caps.length ? 1 : 0);

function columnsIn(
	buffer: ArrayBufferLike,
	{ stock, verticesEach, caps }: ElementOutput,
	capacity: number
): Columns {
	const sizes = stock?.sizes.length ?? 0;
	const places = 3 * verticesEach;
	let at = 0;
	const next = <A>(
		Kind: new (buffer: ArrayBufferLike, at: number, length: number) => A,
		bytes: number,
		length: number
	): A => {
		const column = new Kind(buffer, at, length);
		at += bytes * length;
		return column;
	};
	const double = () => next(Float64Array, 8, capacity);
	return {
		volume: double(),
		area: double(),
		length: double(),
		sizes: Array.from({ length: sizes }, double),
		positions: next(Float32Array, 4, capacity * places),
		row: next(Uint32Array, 4, capacity),
		turn: next(Uint32Array, 4, capacity),
		looked: next(Uint8Array, 1, caps.length ? capacity : 0)
	};
}

/** Room that tables grew out of or did not fill: the tables of the next part, or of the next change, begin in it. */
const room = new SpareMemory(bufferOf);

/** Of the pieces, room for so many instances at most is made before they come; and where they are more, for so many more. */
const [MOST_AHEAD, GROWTH] = [8, 1.5];

/** No choice of fillings. */
const PLAIN = -1;

/** A table that grows as instances come. */
export class ElementSink {
	count = 0;
	private capacity = 0;
	private memory: ArrayBufferLike | null = null;
	private columns: Columns;
	/** What came of looking at caps. */
	private filler: CapFiller | null = null;
	/** How the caps of every instance are filled; `PLAIN` where they lie as they are made. */
	private filled: Int32Array | null = null;
	readonly triangles: readonly number[];

	/** @param pieces of the whole run */
	constructor(
		readonly output: ElementOutput,
		private readonly pieces: number
	) {
		this.triangles = output.triangles;
		this.columns = columnsIn(new ArrayBuffer(0), output, 0);
	}

	/** How many instances there will be, if later pieces have as many as those that are done; the last may have more. */
	private expected(needed: number, { piece, alive, aliveCount }: LiveRows): number {
		const last = piece[alive[aliveCount - 1]!]!;
		let done = needed;
		for (let n = aliveCount - 1; n >= 0 && piece[alive[n]!] === last; n--) done--;
		return last > 0 ? Math.ceil((done / last) * this.pieces) : this.pieces;
	}

	/** Room for the rows of a block, and as a rule for all that come: new room is dear, and so is what is copied to it. */
	private makeRoom(frame: LiveRows): void {
		const needed = this.count + frame.aliveCount;
		if (needed <= this.capacity) return;
		const most = MOST_AHEAD * Math.max(needed, this.pieces);
		const expected = Math.min(most, this.expected(needed, frame));
		this.capacity = Math.max(needed, expected, Math.ceil(GROWTH * this.capacity));
		const before = this.columns;
		const memory = room.take(this.capacity * bytesEach(this.output));
		const wider = columnsIn(memory, this.output, this.capacity);
		for (const name of ['volume', 'area', 'length', 'positions', 'row', 'turn', 'looked'] as const)
			wider[name].set(before[name]);
		for (const [k, size] of before.sizes.entries()) wider.sizes[k]!.set(size);
		this.columns = wider;
		this.giveBack();
		this.memory = memory;
	}

	private giveBack(): void {
		if (this.memory) room.giveBack(this.memory);
		this.memory = null;
	}

	/** Take the rows of a block that are alive. */
	take(frame: LiveRows, origin: readonly [number, number, number]): void {
		const { alive, aliveCount, slots } = frame;
		if (!aliveCount) return;
		this.makeRoom(frame);
		const first = this.count;
		const volume = slots[this.output.volume]!;
		const area = slots[this.output.area]!;
		const length = slots[this.output.length]!;
		const { columns } = this;
		for (let n = 0; n < aliveCount; n++) {
			const r = alive[n]!;
			columns.row[first + n] = frame.piece[r]!;
			columns.turn[first + n] = this.output.firstTurn + frame.turn[r]!;
			columns.volume[first + n] = volume[r]!;
			columns.area[first + n] = area[r]!;
			columns.length[first + n] = length[r]!;
		}
		for (const [k, slot] of (this.output.stock?.sizes ?? []).entries())
			for (let n = 0; n < aliveCount; n++) columns.sizes[k]![first + n] = slots[slot]![alive[n]!]!;
		for (const [k, { when }] of this.output.caps.entries())
			for (let n = 0; n < aliveCount; n++) {
				const raised = when === null || slots[when]![alive[n]!] !== 0;
				if (k === 0 || raised) columns.looked[first + n] = Number(raised);
			}
		this.takePlaces(frame, first, origin);
		this.count += aliveCount;
	}

	private takePlaces(frame: LiveRows, first: number, origin: readonly [number, number, number]): void {
		const { alive, aliveCount } = frame;
		const { positions } = this.columns;
		const each = 3 * this.output.verticesEach;
		const places = frame.places(this.output, origin);
		if (aliveCount === frame.rows) positions.set(places, first * each);
		else
			for (let n = 0; n < aliveCount; n++) {
				const r = alive[n]!;
				positions.set(places.subarray(each * r, each * (r + 1)), each * (first + n));
			}
	}

	/**
	 * Find the triangles of caps that are looked at.
	 * @param lose a row whose piece cannot be made after all, with the flag that says why
	 */
	look(lose: (row: number, flag: number) => void): void {
		const { caps } = this.output;
		if (!caps.length) return;
		const values = 3 * this.output.verticesEach;
		for (let k = 0; k < this.count; k++) {
			if (!this.columns.looked[k]) continue;
			this.filler ??= new CapFiller(
				this.triangles,
				caps.map(({ cap }) => cap)
			);
			this.filled ??= new Int32Array(this.count).fill(PLAIN);
			const choice = this.filler.fill(this.columns.positions.subarray(values * k, values * (k + 1)));
			if (choice >= 0) this.filled[k] = choice;
			else for (const { crossed } of caps) if (crossed !== null) lose(this.columns.row[k]!, crossed);
		}
	}

	/** One table for all instances whose triangles are the same. @param lost rows that cannot be made after all */
	tables(lost: ReadonlySet<number>): ElementTable[] {
		const tables = this.tablesOf(lost);
		this.giveBack();
		return tables;
	}

	private tablesOf(lost: ReadonlySet<number>): ElementTable[] {
		const { filled, filler } = this;
		if (!lost.size && !filled) return [this.table(null, this.triangles)];
		const groups = new Map<number, number[]>();
		for (let k = 0; k < this.count; k++) {
			if (lost.has(this.columns.row[k]!)) continue;
			const choice = filled ? filled[k]! : PLAIN;
			const group = groups.get(choice);
			if (group) group.push(k);
			else groups.set(choice, [k]);
		}
		return [...groups].map(([choice, instances]) =>
			this.table(instances, choice === PLAIN ? this.triangles : filler!.trianglesOf(choice))
		);
	}

	/** The columns of some instances, or of all, with no room left over. */
	private exactly(instances: readonly number[] | null): Columns {
		const { columns, count, memory } = this;
		const places = 3 * this.output.verticesEach;
		const kept = instances?.length ?? count;
		const bytes = kept * bytesEach(this.output);
		if (!instances && memory?.byteLength === bytes) {
			this.memory = null;
			return columns;
		}
		const own = columnsIn(bufferOf(bytes), this.output, kept);
		const pairs: [to: Column, from: Column, each: number][] = [
			...(['volume', 'area', 'length', 'row', 'turn'] as const).map((name): [Column, Column, number] => [
				own[name],
				columns[name],
				1
			]),
			...own.sizes.map((size, k): [Column, Column, number] => [size, columns.sizes[k]!, 1]),
			[own.positions, columns.positions, places]
		];
		for (const [to, from, each] of pairs)
			if (!instances) to.set(from.subarray(0, to.length));
			else if (each === 1) for (let n = 0; n < to.length; n++) to[n] = from[instances[n]!]!;
			else
				for (let n = 0; n < instances.length; n++) {
					const begin = instances[n]! * each;
					to.set(from.subarray(begin, begin + each), n * each);
				}
		return own;
	}

	/** @param instances null for all */
	private table(instances: readonly number[] | null, triangles: readonly number[]): ElementTable {
		const { element, stock, verticesEach } = this.output;
		const { row, turn, volume, area, length, sizes, positions } = this.exactly(instances);
		return {
			element,
			count: row.length,
			row,
			turn,
			volume,
			area,
			length,
			stock: stock && { shape: stock.shape, sizes },
			shape: { is: 'made', positions, verticesEach, triangles }
		};
	}
}
