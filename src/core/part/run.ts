import { MOST_TURNS, NOT_FINITE, TOO_MANY } from './builder';
import { BLOCK, type BackEnd, type Workplace } from './evaluate/back-end';
import { twoLanes } from './evaluate/two-lanes';
import { BlockSink } from './block/sink';
import { CapFiller } from './caps';
import type { ElementTable } from './element-table';
import type { Domain, ElementOutput, PointSlots, Program } from './program';

/** Fills out[0 .. to - from) with a column's values for rows from .. to. */
export type ColumnReader = (out: Float64Array, from: number, to: number) => void;

export interface PartRun {
	readonly elements: readonly ElementTable[];
	/** One bit per flag of the program, for each row. */
	readonly flags: Uint32Array;
	readonly results: ReadonlyMap<string, Float64Array>;
}

type Column = Uint32Array | Uint8Array | Float64Array | Float32Array;

/** A table that grows as instances come. */
class ElementSink {
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
	take(frame: Frame, origin: readonly [number, number, number]): void {
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
			vertices: { is: 'written', positions: pick(this.positions, values) },
			verticesEach: this.vertices.length,
			triangles
		};
	}
}

/** One block of rows of a domain, and the scratch it is computed in. */
class Frame {
	readonly slots: readonly Float64Array[];
	private readonly workplace: Workplace;
	/** The piece each row belongs to, and the row of the enclosing block it repeats. */
	readonly piece = new Uint32Array(BLOCK);
	readonly parent = new Uint32Array(BLOCK);
	readonly turn = new Uint32Array(BLOCK);
	readonly alive = new Uint32Array(BLOCK);
	aliveCount = 0;
	readonly inner: readonly Frame[];
	readonly sinks: readonly ElementSink[];
	readonly blocks: readonly BlockSink[];

	/** @param workplaces of this domain and those within it, in the order of `allDomains` */
	constructor(
		readonly domain: Domain,
		capacity: number,
		workplaces: Iterator<Workplace, undefined>
	) {
		this.workplace = workplaces.next().value!;
		this.slots = this.workplace.slots;
		for (const { slot, value } of domain.constants) this.slots[slot]!.fill(value);
		this.inner = domain.groups.map((group) => new Frame(group.domain, capacity, workplaces));
		this.sinks = domain.elements.map((output) => new ElementSink(output, capacity));
		this.blocks = domain.blocks.map((output) => new BlockSink(output));
	}

	compute(rows: number): void {
		this.workplace.compute(rows);
	}

	allSinks(): (ElementSink | BlockSink)[] {
		return [...this.inner.flatMap((frame) => frame.allSinks()), ...this.sinks, ...this.blocks];
	}
}

const allDomains = (domain: Domain): Domain[] => [
	domain,
	...domain.groups.flatMap((group) => allDomains(group.domain))
];

class Runner {
	readonly flags: Uint32Array;
	readonly results = new Map<string, Float64Array>();
	private readonly failing: number;
	private readonly readers: readonly { readonly slot: number; readonly read: ColumnReader }[];

	constructor(
		private readonly program: Program,
		column: (name: string) => ColumnReader,
		private readonly count: number,
		private readonly origin: readonly [number, number, number],
		private readonly backEnd: BackEnd
	) {
		this.flags = new Uint32Array(count);
		this.failing = program.flags.reduce(
			(bits, flag, k) => (flag.level === 'failed' ? bits | (1 << k) : bits),
			0
		);
		this.readers = program.root.columns.map(({ name, slot }) => ({ slot, read: column(name) }));
		for (const { name } of program.root.results) this.results.set(name, new Float64Array(count));
	}

	run(): PartRun {
		const workplaces = this.backEnd.open(allDomains(this.program.root));
		const root = new Frame(this.program.root, Math.max(1, this.count), workplaces.values());
		const sinks = root.allSinks();
		for (let from = 0; from < this.count; from += BLOCK) {
			const to = Math.min(this.count, from + BLOCK);
			const before = sinks.map((sink) => sink.count);
			// A turn that fails takes its whole piece with it: the block is run again without that piece.
			while (this.block(root, from, to)) sinks.forEach((sink, k) => (sink.count = before[k]!));
		}
		const lost = new Set<number>();
		for (const sink of sinks)
			sink.look((row, flag) => {
				this.raise(row, flag);
				lost.add(row);
			});
		const elements = sinks.flatMap((sink) => sink.tables(lost));
		return { elements, flags: this.flags, results: this.results };
	}

	private readonly raise = (row: number, flag: number): void => {
		this.flags[row]! |= 1 << flag;
	};

	/** @returns whether a piece failed in a group after others of its elements had been taken */
	private block(frame: Frame, from: number, to: number): boolean {
		const rows = to - from;
		for (const { slot, read } of this.readers) read(frame.slots[slot]!, from, to);
		for (let r = 0; r < rows; r++) {
			frame.piece[r] = from + r;
			frame.turn[r] = 0;
		}
		this.compute(frame, rows);
		for (const { name, slot } of frame.domain.results) {
			const column = this.results.get(name)!;
			const values = frame.slots[slot]!;
			for (let r = 0; r < rows; r++) column[from + r] = Number.isFinite(values[r]!) ? values[r]! : 0;
		}
		return this.emit(frame);
	}

	/** Run the operations, raise flags, and list the rows whose pieces can be made. */
	private compute(frame: Frame, rows: number): void {
		const { domain, slots, piece } = frame;
		frame.compute(rows);
		for (const { when, flag } of domain.flags) {
			const raised = slots[when]!;
			for (let r = 0; r < rows; r++) if (raised[r] !== 0) this.flags[piece[r]!]! |= 1 << flag;
		}
		const finite = slots[domain.finite]!;
		for (let r = 0; r < rows; r++) if (finite[r] !== 0) this.flags[piece[r]!]! |= 1 << NOT_FINITE;
		for (const { times } of domain.groups) {
			const values = slots[times]!;
			for (let r = 0; r < rows; r++) if (values[r]! > MOST_TURNS) this.flags[piece[r]!]! |= 1 << TOO_MANY;
		}
		for (const block of frame.blocks) block.prepare(frame, rows, (r, flag) => this.raise(piece[r]!, flag));
		frame.aliveCount = 0;
		for (let r = 0; r < rows; r++)
			if ((this.flags[piece[r]!]! & this.failing) === 0) frame.alive[frame.aliveCount++] = r;
	}

	private emit(frame: Frame): boolean {
		for (const sink of frame.sinks) sink.take(frame, this.origin);
		for (const block of frame.blocks) block.take(frame, frame.alive, frame.aliveCount, this.origin);
		let failed = false;
		frame.domain.groups.forEach(({ times }, g) => {
			if (this.group(frame, frame.inner[g]!, frame.slots[times]!)) failed = true;
		});
		return failed;
	}

	/** Run a group for every turn of every living row, a block of turns at a time. */
	private group(outer: Frame, inner: Frame, times: Float64Array): boolean {
		let rows = 0;
		let failed = false;
		const flush = () => {
			for (const { from, to } of inner.domain.imports) {
				const source = outer.slots[from]!;
				const target = inner.slots[to]!;
				for (let r = 0; r < rows; r++) target[r] = source[inner.parent[r]!]!;
			}
			if (inner.domain.index !== null) {
				const index = inner.slots[inner.domain.index]!;
				for (let r = 0; r < rows; r++) index[r] = inner.turn[r]!;
			}
			this.compute(inner, rows);
			if (inner.aliveCount < rows) failed = true;
			if (this.emit(inner)) failed = true;
			rows = 0;
		};
		for (let n = 0; n < outer.aliveCount; n++) {
			const r = outer.alive[n]!;
			const turns = Math.round(times[r]!);
			for (let turn = 0; turn < turns; turn++) {
				inner.parent[rows] = r;
				inner.piece[rows] = outer.piece[r]!;
				inner.turn[rows] = turn;
				if (++rows === BLOCK) flush();
			}
		}
		if (rows > 0) flush();
		return failed;
	}
}

/**
 * Run a program for `count` rows, over blocks of columns.
 * Rows that fail have no elements and carry their flag; nothing that is not finite leaves here.
 * @param column a reader for each named column of the program
 * @param origin mesh positions are relative to it (mm)
 */
export function runProgram(
	program: Program,
	column: (name: string) => ColumnReader,
	count: number,
	origin: readonly [number, number, number],
	backEnd: BackEnd = twoLanes
): PartRun {
	return new Runner(program, column, count, origin, backEnd).run();
}
