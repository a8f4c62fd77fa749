import { applyEdits, MOST_LABEL } from '$core/project/commands';
import type { Edit } from '$core/project/edits';
import { hashOf } from '$core/project/hash';
import { anyMeet, carryOut, type Done, type Past, type SentCommand } from '$core/project/log';
import type { Project } from '$core/project/schema';
import type { OpenedProject, SaveAnswer, SavedCommand } from '$lib/protocol';

/** A command of this window, as undo and redo see it. */
interface Step extends Done {
	inverse: readonly Edit[];
	touched: readonly string[];
	readonly edits: readonly Edit[];
	/** The revision it made; null while the server has not said. */
	revision: number | null;
	/** Another window has decided the same since: it is not taken back any more. */
	overtaken: boolean;
}

/** A command that cannot be carried out, kept until the person drops it or takes it up again. */
export interface SetAside {
	readonly id: string;
	readonly label: string;
	readonly edits: readonly Edit[];
	readonly reason: string;
}

/** What an answer brought. */
export interface Taken {
	/** Labels of what other windows did. */
	readonly others: readonly string[];
	readonly aside: readonly SetAside[];
	/** Undos that another window overtook, in words. */
	readonly overtaken: readonly string[];
	/** Commands that are done with: in the log, or refused. */
	readonly settled: readonly string[];
	/** The document here is not the server's: it has to be opened again. */
	readonly outOfStep: boolean;
}

/**
 * One window's side of a project: what the server has confirmed, the commands it does not have yet, and undo.
 * It knows no page, no network and no clock.
 *
 * The document shown is the confirmed one with the pending commands on top. Only the server decides whether a
 * command is carried out; one that does not fit here for the moment is passed over and stays pending.
 */
export class Session {
	/** With all commands of this window. */
	document: Project;
	private confirmed: Project;
	epoch: string;
	revision: number;
	/** Commands the server has not confirmed, in the order they were done. */
	pending: readonly SentCommand[];
	private undoStack: Step[] = [];
	private redoStack: Step[] = [];
	/** Of the commands of this window that are in reach: the stacks' and the pending ones'. */
	private steps = new Map<string, Step>();
	/** What other windows decided, as far back as the history is known. */
	private foreign: (readonly string[])[] = [];
	/** Commands that an undo or redo of this window has taken back. */
	private reversed = new Set<string>();

	constructor(
		opened: OpenedProject,
		readonly window: string,
		private readonly makeId: () => string,
		pending: readonly SentCommand[] = []
	) {
		this.document = this.confirmed = opened.document;
		this.epoch = opened.epoch;
		this.revision = opened.revision;
		this.pending = pending;
		this.takeHistory(opened.history);
	}

	/** As the server has it. */
	get asSaved(): Project {
		return this.confirmed;
	}

	get undoLabel(): string | null {
		return this.undoStack.at(-1)?.label ?? null;
	}
	get redoLabel(): string | null {
		return this.redoStack.at(-1)?.label ?? null;
	}

	/** How many commands undo can take back. */
	get undoSteps(): number {
		return this.undoStack.length;
	}

	/** Do a command. @throws CommandError, DocumentError when it does not fit; nothing has changed then */
	do(label: string, edits: readonly Edit[]): SentCommand {
		const name = label.slice(0, MOST_LABEL) || 'a change';
		return this.add({ kind: 'do', id: this.makeId(), window: this.window, label: name, edits: [...edits] });
	}

	/**
	 * Take the last command of this window back.
	 * @returns null when there is none
	 * @throws Overtaken, CommandError when it cannot be taken back (any more); it is passed over from then on
	 */
	undo(): SentCommand | null {
		return this.reverse('undo', this.undoStack);
	}

	redo(): SentCommand | null {
		return this.reverse('redo', this.redoStack);
	}

	private reverse(kind: 'undo' | 'redo', stack: Step[]): SentCommand | null {
		const step = stack.at(-1);
		if (!step) return null;
		try {
			return this.add({ kind, id: this.makeId(), window: this.window, of: step.id, label: step.label });
		} catch (error) {
			this.forget(step.id);
			throw error;
		}
	}

	private add(command: SentCommand): SentCommand {
		const applied = carryOut(this.document, command, this.past);
		this.document = applied.project;
		this.pending = [...this.pending, command];
		this.stack(command, { ...applied, revision: null });
		return command;
	}

	private readonly past: Past = {
		find: (id) => this.steps.get(id),
		decidedSince: ({ id }) => {
			const step = this.steps.get(id);
			return step?.overtaken ? [step.touched] : [];
		}
	};

	/** Put a command of this window where undo or redo find it. */
	private stack(
		command: Pick<SentCommand, 'id' | 'window' | 'kind' | 'label'> & { of?: string | null },
		result: Pick<Step, 'edits' | 'inverse' | 'touched' | 'revision'>
	): void {
		const { id, window, label } = command;
		const step: Step = {
			id,
			window,
			label,
			edits: result.edits,
			inverse: result.inverse,
			touched: result.touched,
			revision: result.revision,
			overtaken: false
		};
		this.steps.set(id, step);
		if (command.window !== this.window) return;
		const from = command.kind === 'redo' ? this.redoStack : this.undoStack;
		const to = command.kind === 'undo' ? this.redoStack : this.undoStack;
		if (command.kind === 'do') {
			for (const { id: gone, revision } of this.redoStack) if (revision !== null) this.steps.delete(gone);
			this.redoStack = [];
		} else {
			if (command.of) this.reversed.add(command.of);
			const at = from.findLastIndex((one) => one.id === command.of);
			if (at >= 0) from.splice(at, 1);
		}
		to.push(step);
	}

	private forget(id: string): void {
		this.undoStack = this.undoStack.filter((step) => step.id !== id);
		this.redoStack = this.redoStack.filter((step) => step.id !== id);
	}

	/** What other windows decide overtakes the confirmed commands of this one that decided the same. */
	private overtake(touched: readonly string[]): void {
		this.foreign.push(touched);
		for (const step of this.steps.values())
			if (step.revision !== null && anyMeet(touched, step.touched)) step.overtaken = true;
	}

	private takeHistory(history: readonly SavedCommand[]): void {
		this.steps = new Map();
		this.undoStack = [];
		this.redoStack = [];
		this.foreign = [];
		this.reversed = new Set();
		this.readLog(history);
		const logged = new Set(history.map(({ id }) => id));
		this.pending = this.pending.filter(({ id }) => !logged.has(id));
		for (const command of this.pending)
			this.stack(command, { edits: [], inverse: [], touched: [], revision: null });
		this.replay();
	}

	private readLog(history: readonly SavedCommand[]): void {
		for (const command of history)
			if (command.window === this.window) this.stack(command, command);
			else this.overtake(command.touched);
	}

	/** Commands older than those known, so that undo reaches further back. */
	takeOlder(history: readonly SavedCommand[]): void {
		const newer = { undo: this.undoStack, redo: this.redoStack, steps: this.steps, foreign: this.foreign };
		[this.undoStack, this.redoStack, this.steps, this.foreign] = [[], [], new Map(), []];
		this.readLog(history);
		for (const touched of newer.foreign) this.overtake(touched);
		this.undoStack = [...this.undoStack.filter(({ id }) => !this.reversed.has(id)), ...newer.undo];
		this.redoStack = newer.redo;
		for (const [id, step] of newer.steps) this.steps.set(id, step);
	}

	/** The pending commands on top of what is confirmed. */
	private replay(): void {
		this.document = this.confirmed;
		for (const command of this.pending) {
			const step = this.steps.get(command.id)!;
			try {
				const applied = carryOut(this.document, command, this.past);
				this.document = applied.project;
				Object.assign(step, { edits: applied.edits, inverse: applied.inverse, touched: applied.touched });
			} catch {
				Object.assign(step, { inverse: [], touched: [] });
			}
		}
	}

	/** Take the server's answer in: what came meanwhile first, then what is still pending on top. */
	take(answer: SaveAnswer): Taken {
		const others: string[] = [];
		const settled = new Set(answer.known);
		let outOfStep = answer.epoch !== this.epoch;
		const own = new Map(this.pending.map((command) => [command.id, command]));
		try {
			for (const entry of answer.log) {
				if (entry.revision <= this.revision) continue;
				const command = own.get(entry.id);
				if (command) {
					const step = this.steps.get(entry.id)!;
					const applied = carryOut(this.confirmed, command, this.past);
					this.confirmed = applied.project;
					Object.assign(step, { ...applied, revision: entry.revision });
					settled.add(entry.id);
				} else if ('edits' in entry) {
					const { project, touched } = applyEdits(this.confirmed, entry.edits);
					this.confirmed = project;
					this.overtake(touched);
					others.push(entry.label);
				} else throw new Error('the log names a command that this window does not have');
				this.revision = entry.revision;
			}
		} catch {
			outOfStep = true;
		}
		const aside: SetAside[] = [];
		const overtaken: string[] = [];
		for (const { id, message, overtaken: isOvertaken } of answer.refused) {
			const command = own.get(id);
			if (!command) continue;
			settled.add(id);
			if (isOvertaken) overtaken.push(message);
			else aside.push(this.setAside(command, message));
			this.forget(id);
		}
		this.pending = this.pending.filter(({ id }) => !settled.has(id));
		this.replay();
		outOfStep ||= this.revision !== answer.revision || hashOf(this.confirmed) !== answer.hash;
		return { others, aside, overtaken, settled: [...settled], outOfStep };
	}

	/** Put a pending command aside that the server will not even read. */
	refuse(command: SentCommand, reason: string): SetAside {
		const aside = this.setAside(command, reason);
		this.forget(command.id);
		this.pending = this.pending.filter(({ id }) => id !== command.id);
		this.replay();
		return aside;
	}

	private setAside(command: SentCommand, reason: string): SetAside {
		const edits = command.kind === 'do' ? command.edits : (this.steps.get(command.id)?.edits ?? []);
		return { id: command.id, label: command.label, edits, reason };
	}

	/**
	 * Begin again from the project as it is on the server; what is pending stays so.
	 * @returns commands of this window that the server had confirmed and does not have any more
	 */
	reopen(opened: OpenedProject): SetAside[] {
		const kept = new Set(opened.history.map(({ id }) => id));
		const oldest = opened.history[0]?.revision ?? 0;
		const lost = [...this.steps.values()].filter(
			({ id, window, revision }) =>
				window === this.window &&
				revision !== null &&
				!kept.has(id) &&
				(revision > opened.revision || revision >= oldest)
		);
		this.confirmed = opened.document;
		this.epoch = opened.epoch;
		this.revision = opened.revision;
		this.takeHistory(opened.history);
		return lost.map(({ id, label, edits }) => ({
			id,
			label,
			edits,
			reason: 'the server was put back to an earlier state, in which this is not'
		}));
	}
}
