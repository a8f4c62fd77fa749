import type { Program } from '../program';
import type { PartRun } from '../run';
import {
	canLeave,
	memoryOf,
	packWork,
	runPacked,
	unpackRun,
	type PackedRun,
	type PackedWork
} from './packed-run';
import { inThisThread, type ProgramRunner, type ProgramWork } from './program-runner';
import { RowTimes } from './row-times';

/** What a thread at the side is told. */
export type ToSide =
	| { readonly say: 'program'; readonly number: number; readonly program: Program }
	| { readonly say: 'forget'; readonly number: number }
	| { readonly say: 'run'; readonly number: number; readonly work: number; readonly packed: PackedWork };

/** What it answers. */
export type FromSide =
	| { readonly say: 'awake' }
	| { readonly say: 'made'; readonly work: number; readonly run: PackedRun }
	| { readonly say: 'failed'; readonly work: number };

/** A line to a thread: messages arrive in the order in which they are sent. */
export interface SideLine {
	send(message: ToSide, memory: ArrayBuffer[]): void;
	/** @param ended the thread is gone */
	listen(take: (message: FromSide) => void, ended: () => void): void;
	end(): void;
}

/** So many works lie ready at a thread, so that it never waits for the next. */
const AHEAD = 2;
/** A work that takes so many times longer than packing it is worth sending; what came of it has to be unpacked too. */
const WORTH = 5;
/** Programs that threads know at a time: those of a project are fewer. */
const PROGRAMS = 200;
interface Waiting {
	readonly work: ProgramWork;
	readonly take: (run: PartRun | Promise<PartRun>) => void;
	readonly fail: (error: unknown) => void;
}

/** A thread at the side, and what it is at. */
class Side {
	awake = false;
	readonly under = new Map<number, Waiting>();
	readonly knows = new Set<number>();

	constructor(readonly line: SideLine) {}
}

/**
 * Runs programs in threads beside the one that asks, which takes part: whoever is free takes the next work. Where a
 * thread ends or fails, what it was at is done here.
 *
 * ```ts
 * const threads = new SideThreads(2, () => [], async () => {}); // as many lines as threads, where they can be opened
 * const chain = new Chain(files, 0, threads);
 * ```
 */
export class SideThreads implements ProgramRunner {
	readonly abreast: number;
	private sides: Side[] | null = null;
	private readonly queue: Waiting[] = [];
	private working = false;
	private works = 0;
	private programs = 0;
	/** The number each program goes by, in the order in which they were last run. */
	private readonly numbers = new Map<Program, number>();
	private readonly times: RowTimes;

	/**
	 * @param most how many threads there are beside this one @param open starts them, when there is enough to do
	 * @param turn waits until messages have been let in
	 * @param worth how many times longer than packing it a work has to take to be sent
	 */
	constructor(
		most: number,
		private readonly open: () => readonly SideLine[],
		private readonly turn: () => Promise<unknown>,
		worth = WORTH
	) {
		this.times = new RowTimes(worth);
		this.abreast = most ? (AHEAD + 1) * (most + 1) : 1;
	}

	run(work: ProgramWork): PartRun | Promise<PartRun> {
		if (this.abreast === 1) return inThisThread.run(work);
		return new Promise((take, fail) => {
			this.queue.push({ work, take, fail });
			if (!this.working) void this.workHere();
		});
	}

	/** End the threads; they are started again when there is something to do. */
	end(): void {
		const ended = this.sides ?? [];
		this.sides = null;
		for (const side of ended) {
			side.line.end();
			this.takeBack(side);
		}
	}

	/** Do here, or elsewhere, what a thread was at that is gone. */
	private takeBack(side: Side): void {
		this.queue.unshift(...side.under.values());
		side.under.clear();
		if (this.queue.length && !this.working) void this.workHere();
	}

	/** Take part for as long as there is something to do. */
	private async workHere(): Promise<void> {
		this.working = true;
		// What is asked for in one go is all there.
		await this.turn();
		while (this.queue.length) {
			// Threads are started when something that is worth sending waits beside what is done next.
			if (!this.sides && this.queue.filter(this.isWorthSending).length > 1) this.sides = this.start();
			this.feed();
			const next = this.queue.shift();
			if (next) this.doHere(next);
			await this.turn();
		}
		this.working = false;
	}

	private doHere({ work, take, fail }: Waiting): void {
		const began = performance.now();
		try {
			take(inThisThread.run(work));
			this.times.wasMade(work, performance.now() - began);
		} catch (error) {
			fail(error);
		}
	}

	private readonly isWorthSending = ({ work: { program } }: Waiting): boolean =>
		canLeave(program) && this.times.isWorthSending(program);

	private start(): Side[] {
		return this.open().map((line) => {
			const side = new Side(line);
			line.listen(
				(message) => this.hear(side, message),
				() => this.lost(side)
			);
			return side;
		});
	}

	/** Hand out what waits to those that have little to do. */
	private feed(): void {
		for (let room = true; room;) {
			room = false;
			for (const side of this.sides ?? []) {
				if (!side.awake || side.under.size >= AHEAD) continue;
				const at = this.queue.findIndex(this.isWorthSending);
				if (at < 0) return;
				this.hand(side, this.queue.splice(at, 1)[0]!);
				room = true;
			}
		}
	}

	private hand(side: Side, waiting: Waiting): void {
		const { work } = waiting;
		const number = this.numberOf(work.program);
		if (!side.knows.has(number)) {
			side.line.send({ say: 'program', number, program: work.program }, []);
			side.knows.add(number);
		}
		const began = performance.now();
		const packed = packWork(work);
		this.times.wasPacked(work, performance.now() - began);
		const own = ++this.works;
		side.under.set(own, waiting);
		side.line.send({ say: 'run', number, work: own, packed }, [packed.columns.buffer as ArrayBuffer]);
	}

	private numberOf(program: Program): number {
		const number = this.numbers.get(program) ?? ++this.programs;
		this.numbers.delete(program);
		this.numbers.set(program, number);
		if (this.numbers.size > PROGRAMS) {
			const [oldest, old] = this.numbers.entries().next().value!;
			this.numbers.delete(oldest);
			for (const side of this.sides ?? [])
				if (side.knows.delete(old)) side.line.send({ say: 'forget', number: old }, []);
		}
		return number;
	}

	private hear(side: Side, message: FromSide): void {
		if (message.say === 'awake') side.awake = true;
		else {
			const waiting = side.under.get(message.work);
			side.under.delete(message.work);
			if (!waiting) return;
			if (message.say === 'made') waiting.take(unpackRun(waiting.work.program, message.run));
			// What is wrong comes to light here, in words.
			else this.doHere(waiting);
		}
		this.feed();
	}

	private lost(side: Side): void {
		this.sides = this.sides?.filter((one) => one !== side) ?? null;
		this.takeBack(side);
	}
}

/**
 * A thread at the side: answers what it is told.
 *
 * ```ts
 * const hear = servePrograms((message, memory) => postMessage(message, { transfer: memory }));
 * hear({ say: 'forget', number: 1 }); // as it comes over the line
 * ```
 */
export function servePrograms(
	answer: (message: FromSide, memory: ArrayBuffer[]) => void
): (message: ToSide) => void {
	const programs = new Map<number, Program>();
	answer({ say: 'awake' }, []);
	return (message) => {
		if (message.say === 'program') programs.set(message.number, message.program);
		else if (message.say === 'forget') programs.delete(message.number);
		else {
			const { work, number, packed } = message;
			try {
				const run = runPacked(programs.get(number)!, packed);
				answer({ say: 'made', work, run }, memoryOf(run));
			} catch {
				answer({ say: 'failed', work }, []);
			}
		}
	};
}
