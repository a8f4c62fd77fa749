import type { ColumnReader } from '../field/column';
import { INSIDE_OUT, MOST_TURNS, NO_BODY, NOT_FINITE, TOO_MANY } from './flag-list';
import { MOST_TURNS_IN_ALL } from './compile/fault';
import { BLOCK, type BackEnd, type VertexSlots, type Workplace } from './evaluate/back-end';
import { twoLanes } from './evaluate/two-lanes';
import { BlockSink } from './block/sink';
import { ElementSink } from './element-sink';
import type { OwnMeshSink } from './own-mesh-sink';
import { SheetSink } from './sheet/sink';
import type { SheetOf } from './sheet/site-sheet';
import type { ElementTable } from './element-table';
import type { Domain, Program } from './program';
import { TubesSink } from './tubes/sink';

export interface PartRun {
	readonly elements: readonly ElementTable[];
	/** One bit per flag of the program, for each row. */
	readonly flags: Uint32Array;
	readonly results: ReadonlyMap<string, Float64Array>;
	/** Rows where a result came out as no number, by its name: nought stands there. */
	readonly unusable: ReadonlyMap<string, readonly number[]>;
	/** What is kept of every turn of the groups, one turn after the other. */
	readonly turns: ReadonlyMap<string, readonly number[]>;
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
	rows = 0;
	readonly inner: readonly Frame[];
	readonly sinks: readonly ElementSink[];
	readonly blocks: readonly BlockSink[];
	/** Of elements that have meshes of their own. */
	readonly alone: readonly OwnMeshSink[];

	/** @param workplaces of this domain and those within it, in the order of `allDomains` */
	constructor(
		readonly domain: Domain,
		capacity: number,
		sheetOf: SheetOf,
		workplaces: Iterator<Workplace, undefined>
	) {
		this.workplace = workplaces.next().value!;
		this.slots = this.workplace.slots;
		for (const { slot, value } of domain.constants) this.slots[slot]!.fill(value);
		this.inner = domain.groups.map((group) => new Frame(group.domain, capacity, sheetOf, workplaces));
		this.sinks = domain.elements.map((output) => new ElementSink(output, capacity));
		this.blocks = domain.blocks.map((output) => new BlockSink(output));
		this.alone = [
			...domain.sheets.map((output) => new SheetSink(output, sheetOf)),
			...domain.tubes.map((output) => new TubesSink(output))
		];
	}

	compute(rows: number): void {
		this.rows = rows;
		this.workplace.compute(rows);
	}

	places(of: VertexSlots, origin: readonly [number, number, number]): Float32Array {
		return this.workplace.places(of, this.rows, origin);
	}

	allSinks(): (ElementSink | BlockSink | OwnMeshSink)[] {
		return [...this.inner.flatMap((frame) => frame.allSinks()), ...this.sinks, ...this.blocks, ...this.alone];
	}
}

const allDomains = (domain: Domain): Domain[] => [
	domain,
	...domain.groups.flatMap((group) => allDomains(group.domain))
];

class Runner {
	readonly flags: Uint32Array;
	/** Turns of every piece of the block at hand, over all groups. */
	private readonly turns = new Uint32Array(BLOCK);
	private first = 0;
	readonly results = new Map<string, Float64Array>();
	readonly unusable = new Map<string, number[]>();
	private readonly turnResults = new Map<string, number[]>();
	private readonly failing: number;
	private readonly readers: readonly { readonly slot: number; readonly read: ColumnReader }[];

	constructor(
		private readonly program: Program,
		column: (name: string) => ColumnReader,
		private readonly count: number,
		private readonly origin: readonly [number, number, number],
		private readonly sheetOf: SheetOf,
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
		const root = new Frame(this.program.root, Math.max(1, this.count), this.sheetOf, workplaces.values());
		const sinks = root.allSinks();
		for (let from = 0; from < this.count; from += BLOCK) {
			const to = Math.min(this.count, from + BLOCK);
			const before = sinks.map((sink) => sink.count);
			const turnsBefore = [...this.turnResults].map(([name, { length }]) => [name, length] as const);
			// A turn that fails takes its whole piece with it: the block is run again without that piece.
			while (this.block(root, from, to)) {
				sinks.forEach((sink, k) => (sink.count = before[k]!));
				const kept = new Map(turnsBefore);
				for (const [name, values] of this.turnResults) values.length = kept.get(name) ?? 0;
			}
		}
		const lost = new Set<number>();
		const lose = (row: number, flag: number) => {
			this.raise(row, flag);
			lost.add(row);
		};
		for (const sink of sinks)
			if (sink instanceof ElementSink) sink.look(lose);
			else if (!(sink instanceof BlockSink)) {
				sink.look(this.raise, lose);
				sink.lookInside((row, flag) => lost.has(row) || lose(row, flag));
			}
		const elements = sinks.flatMap((sink) => sink.tables(lost));
		const { flags, results, unusable, turnResults } = this;
		return { elements, flags, results, unusable, turns: turnResults };
	}

	private readonly raise = (row: number, flag: number): void => {
		this.flags[row]! |= 1 << flag;
	};

	/** @returns whether a piece failed in a group after others of its elements had been taken */
	private block(frame: Frame, from: number, to: number): boolean {
		const rows = to - from;
		this.first = from;
		this.turns.fill(0);
		for (const { slot, read } of this.readers) read(frame.slots[slot]!, from, to);
		for (let r = 0; r < rows; r++) {
			frame.piece[r] = from + r;
			frame.turn[r] = 0;
		}
		this.compute(frame, rows);
		for (const { name, slot } of frame.domain.results) {
			const column = this.results.get(name)!;
			const values = frame.slots[slot]!;
			for (let r = 0; r < rows; r++) {
				const usable = Number.isFinite(values[r]!);
				column[from + r] = usable ? values[r]! : 0;
				if (usable) continue;
				const without = this.unusable.get(name);
				if (without) without.push(from + r);
				else this.unusable.set(name, [from + r]);
			}
		}
		return this.emit(frame);
	}

	/** Run the operations, raise flags, and list the rows whose pieces can be made. */
	private compute(frame: Frame, rows: number): void {
		const { domain, slots, piece } = frame;
		frame.compute(rows);
		for (const { when, flag } of domain.flags) raiseWhere(slots[when]!, rows, this.flags, piece, 1 << flag);
		raiseWhere(slots[domain.finite]!, rows, this.flags, piece, 1 << NOT_FINITE);
		for (const { volume } of domain.elements)
			raiseBelow(slots[volume]!, NO_BODY, rows, this.flags, piece, 1 << INSIDE_OUT, this.failing);
		for (const { times } of domain.groups) {
			const values = slots[times]!;
			for (let r = 0; r < rows; r++) if (values[r]! > MOST_TURNS) this.flags[piece[r]!]! |= 1 << TOO_MANY;
		}
		for (const block of frame.blocks) block.prepare(frame, rows, (r, flag) => this.raise(piece[r]!, flag));
		frame.aliveCount = alive(frame.alive, rows, this.flags, piece, this.failing);
	}

	private emit(frame: Frame): boolean {
		for (const sink of frame.sinks) sink.take(frame, this.origin);
		for (const sink of frame.alone) sink.take(frame, this.origin);
		for (const block of frame.blocks) block.take(frame, frame.alive, frame.aliveCount, this.origin);
		let failed = false;
		frame.domain.groups.forEach(({ times }, g) => {
			if (this.group(frame, frame.inner[g]!, frame.slots[times]!)) failed = true;
		});
		return failed;
	}

	/** Keep what is wanted of every turn. */
	private keep({ domain, slots }: Frame, rows: number): void {
		for (const { name, slot } of domain.turnResults) {
			const kept = this.turnResults.get(name) ?? [];
			this.turnResults.set(name, kept);
			for (let r = 0; r < rows; r++) kept.push(slots[slot]![r]!);
		}
	}

	/** Run a group for every turn of every living row, a block of turns at a time. */
	private group(outer: Frame, inner: Frame, times: Float64Array): boolean {
		let rows = 0;
		let failed = false;
		const flush = () => {
			const { parent, turn, slots, domain } = inner;
			for (const { from, to } of domain.imports) {
				const source = outer.slots[from]!;
				const target = slots[to]!;
				for (let r = 0; r < rows; r++) target[r] = source[parent[r]!]!;
			}
			if (domain.index !== null) {
				const index = slots[domain.index]!;
				for (let r = 0; r < rows; r++) index[r] = turn[r]!;
			}
			this.compute(inner, rows);
			this.keep(inner, rows);
			if (inner.aliveCount < rows) failed = true;
			if (this.emit(inner)) failed = true;
			rows = 0;
		};
		for (let n = 0; n < outer.aliveCount; n++) {
			const r = outer.alive[n]!;
			const turns = Math.round(times[r]!);
			const piece = outer.piece[r]!;
			if ((this.turns[piece - this.first]! += Math.max(0, turns)) > MOST_TURNS_IN_ALL) {
				// Told once; its turns are not made, and the block is run again without it.
				this.raise(piece, TOO_MANY);
				failed = true;
				continue;
			}
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

/** Hot: raise a flag of the pieces whose rows are not nought. */
function raiseWhere(
	raised: Float64Array,
	rows: number,
	flags: Uint32Array,
	piece: Uint32Array,
	bit: number
): void {
	for (let r = 0; r < rows; r++) if (raised[r]! !== 0) flags[piece[r]!]! |= bit;
}

/** Hot: the same of those whose rows are below a bound, where nothing has said yet why they fail. */
function raiseBelow(
	values: Float64Array,
	bound: number,
	rows: number,
	flags: Uint32Array,
	piece: Uint32Array,
	bit: number,
	failing: number
): void {
	for (let r = 0; r < rows; r++)
		if (values[r]! < bound && (flags[piece[r]!]! & failing) === 0) flags[piece[r]!]! |= bit;
}

/** Hot: the rows whose pieces have none of the failing flags. @returns how many */
function alive(
	out: Uint32Array,
	rows: number,
	flags: Uint32Array,
	piece: Uint32Array,
	failing: number
): number {
	let count = 0;
	for (let r = 0; r < rows; r++) if ((flags[piece[r]!]! & failing) === 0) out[count++] = r;
	return count;
}

const noSheets: SheetOf = () => {
	throw new Error('a sheet is made of a cell, and nobody said of which');
};

/**
 * Run a program for `count` rows, over blocks of columns.
 * Rows that fail have no elements and carry their flag; nothing that is not finite leaves here.
 *
 * ```ts
 * const { elements, results } = runProgram(program, () => arrayColumn(heights), 200, [0, 0, 0]);
 * ```
 * @param column a reader for each named column of the program
 * @param origin mesh positions are relative to it (mm)
 * @param sheetOf the surface of each row's cell, for programs that make a sheet of it
 */
export function runProgram(
	program: Program,
	column: (name: string) => ColumnReader,
	count: number,
	origin: readonly [number, number, number],
	backEnd: BackEnd = twoLanes,
	sheetOf: SheetOf = noSheets
): PartRun {
	return new Runner(program, column, count, origin, sheetOf, backEnd).run();
}
