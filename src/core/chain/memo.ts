import { same } from '../units/same';

/** A result of a stage, with a serial number that changes whenever it is made anew. */
export class Kept<T> {
	constructor(
		readonly value: T,
		readonly serial: number
	) {}
}

interface Entry {
	readonly dependencies: readonly unknown[];
	readonly kept: Kept<unknown>;
	run: number;
}

/**
 * Keeps the last result of every stage with what it was made of, so that an edit recomputes only what hangs below it.
 *
 * ```ts
 * const faces = memo.use('mass drum', [mass, levels], () => massFaces(mass, levels));
 * const grid = memo.use('grid of drum', [faces, settingOut], () => setOut(faces.value, settingOut));
 * ```
 */
export class Memo {
	private readonly entries = new Map<string, Entry>();
	private currentRun = 0;

	/** @param serials given out already, by a chain whose place this one takes */
	constructor(private serials = 0) {}

	/**
	 * @param slot where in the project the result has its place
	 * @param dependencies all that it is made of: settings by what they say, results of stages by being the same one
	 */
	use<T>(slot: string, dependencies: readonly unknown[], make: () => T): Kept<T> {
		const entry = this.entries.get(slot);
		if (entry && same(entry.dependencies, dependencies)) {
			entry.run = this.currentRun;
			return entry.kept as Kept<T>;
		}
		const kept = new Kept(make(), this.nextSerial());
		this.entries.set(slot, { dependencies, kept, run: this.currentRun });
		return kept;
	}

	/** For what is made within a stage and told apart by itself. */
	nextSerial(): number {
		return ++this.serials;
	}

	/** Start a run; afterwards `forgetUnused` drops what no clause asked for any more. */
	startRun(): void {
		this.currentRun++;
	}

	forgetUnused(): void {
		for (const [slot, entry] of this.entries) if (entry.run !== this.currentRun) this.entries.delete(slot);
	}
}
