/** What is kept for the next in all (bytes). */
const MOST_KEPT = 32 * 2 ** 20;
/** Memory so many times as large as what is asked for is left to somebody who needs it. */
const MOST_TOO_LARGE = 4;

/**
 * Memory that is given back when what was made in it has been copied or read. New memory is dear: the system clears
 * it page by page, and the collector of garbage begins sooner the more of it is asked for.
 *
 * ```ts
 * const spare = new SpareMemory((bytes) => new ArrayBuffer(bytes));
 * const memory = spare.take(4 * 1000);
 * new Uint32Array(memory, 0, 1000).fill(0); // what was written before may still stand there
 * spare.giveBack(memory);
 * ```
 */
export class SpareMemory<Memory extends ArrayBufferLike> {
	private readonly kept: Memory[] = [];
	private bytes = 0;

	constructor(private readonly make: (bytes: number) => Memory) {}

	/** @returns so many bytes or some more; their contents are anything */
	take(bytes: number): Memory {
		let best = -1;
		for (let k = 0; k < this.kept.length; k++) {
			const { byteLength } = this.kept[k]!;
			if (byteLength < bytes || byteLength > MOST_TOO_LARGE * bytes) continue;
			if (best < 0 || byteLength < this.kept[best]!.byteLength) best = k;
		}
		if (best < 0) return this.make(bytes);
		const [memory] = this.kept.splice(best, 1);
		this.bytes -= memory!.byteLength;
		return memory!;
	}

	/** Nobody may look at it any more. */
	giveBack(memory: Memory): void {
		this.kept.push(memory);
		this.bytes += memory.byteLength;
		while (this.bytes > MOST_KEPT) this.bytes -= this.kept.shift()!.byteLength;
	}
}

/** For what is needed only while one function runs. */
export const scratch = new SpareMemory((bytes) => new ArrayBuffer(bytes));
