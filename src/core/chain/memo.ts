/** A result of a stage with a serial number that changes whenever the result is made anew. */
export interface Kept<T> {
	readonly value: T;
	readonly serial: number;
}

/**
 * Keeps the last result of every stage with the key of its inputs. A key is made of the serials of the
 * results above and the stage's own part of the project, so an edit recomputes only what hangs below it.
 */
export class Memo {
	private readonly entries = new Map<string, { key: string; kept: Kept<unknown>; run: number }>();
	private currentRun = 0;

	/** @param serials given out already, by a chain whose place this one takes */
	constructor(private serials = 0) {}

	use<T>(slot: string, key: string, make: () => T): Kept<T> {
		const entry = this.entries.get(slot);
		if (entry && entry.key === key) {
			entry.run = this.currentRun;
			return entry.kept as Kept<T>;
		}
		const kept = { value: make(), serial: ++this.serials };
		this.entries.set(slot, { key, kept, run: this.currentRun });
		return kept;
	}

	/** Start a run; afterwards `forgetUnused` drops what no clause asked for any more. */
	startRun(): void {
		this.currentRun++;
	}

	forgetUnused(): void {
		for (const [slot, entry] of this.entries) if (entry.run !== this.currentRun) this.entries.delete(slot);
	}
}
