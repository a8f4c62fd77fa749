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

/** Where in the project a result has its place: what it is, and of what. */
export type Slot = readonly [what: string, ...of: (string | number)[]];

/** Slots that begin alike. */
interface Branch {
	entry: Entry | null;
	readonly further: Map<string | number, Branch>;
}
const branch = (): Branch => ({ entry: null, further: new Map() });

/** Drop what a run did not use. @returns whether nothing is left */
function prune(at: Branch, run: number): boolean {
	if (at.entry && at.entry.run !== run) at.entry = null;
	for (const [part, further] of at.further) if (prune(further, run)) at.further.delete(part);
	return !at.entry && !at.further.size;
}

/**
 * Keeps the last result of every stage with what it was made of, so that an edit recomputes only what hangs below it.
 *
 * ```ts
 * const faces = memo.use(['mass', mass.id], [mass], () => massFaces(mass));
 * const grid = memo.use(['grid', mass.id], [faces, zone.settingOut], () => setOut(faces.value[0]!, zone.settingOut, at));
 * ```
 */
export class Memo {
	private readonly root = branch();
	private currentRun = 0;

	/** @param serials given out already, by a chain whose place this one takes */
	constructor(private serials = 0) {}

	/**
	 * @param dependencies all that it is made of: settings by what they say, results of stages by being the same one
	 */
	use<T>(slot: Slot, dependencies: readonly unknown[], make: () => T): Kept<T> {
		const at = this.branchAt(slot);
		return this.known<T>(at, dependencies) ?? this.keep(at, dependencies, make());
	}

	/** The same for what is made in pieces, with breaths between them; a run that is given up meanwhile keeps none of it. */
	async useLater<T>(slot: Slot, dependencies: readonly unknown[], make: () => Promise<T>): Promise<Kept<T>> {
		const at = this.branchAt(slot);
		return this.known<T>(at, dependencies) ?? this.keep(at, dependencies, await make());
	}

	private branchAt(slot: Slot): Branch {
		let at = this.root;
		for (const part of slot) {
			const known = at.further.get(part) ?? branch();
			at.further.set(part, known);
			at = known;
		}
		return at;
	}

	private known<T>({ entry }: Branch, dependencies: readonly unknown[]): Kept<T> | null {
		if (!entry || !same(entry.dependencies, dependencies)) return null;
		entry.run = this.currentRun;
		return entry.kept as Kept<T>;
	}

	private keep<T>(at: Branch, dependencies: readonly unknown[], value: T): Kept<T> {
		const kept = new Kept(value, this.nextSerial());
		at.entry = { dependencies, kept, run: this.currentRun };
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
		prune(this.root, this.currentRun);
	}
}
