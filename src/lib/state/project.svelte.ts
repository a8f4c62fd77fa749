import { applyCommand, type Command, type Edit } from '$core/project/commands';
import type { Project } from '$core/project/schema';
import type { OpenedProject, SavedEdit } from '$lib/server/projects';

type Kind = SavedEdit['kind'];
interface Pending extends Command {
	readonly kind: Kind;
}
/** A command that was done, and the one that takes it back. */
interface Step {
	readonly label: string;
	readonly edits: Edit[];
	readonly inverse: Edit[];
}

export type SaveState = 'saved' | 'saving' | 'offline' | 'refused';

const RETRY_MS = 2000;
/** Requests that outlive their window may hold 64 KiB; larger ones go the ordinary way. */
const MOST_KEPT_ALIVE = 60_000;

/** Rebuild the undo and redo stacks from the commands the server keeps. */
function stacksFrom(history: readonly SavedEdit[]): { undo: Step[]; redo: Step[] } {
	const undo: Step[] = [];
	let redo: Step[] = [];
	for (const { kind, label, edits, inverse } of history) {
		if (kind === 'do') {
			undo.push({ label, edits, inverse });
			redo = [];
		} else if (kind === 'undo') {
			const step = undo.pop();
			if (step) redo.push(step);
		} else {
			const step = redo.pop();
			if (step) undo.push(step);
		}
	}
	return { undo, redo };
}

/**
 * The open project: its document, unlimited undo, and saving as it is typed.
 *
 * Commands are applied at once and queued; the queue goes to the server under the revision it was made on.
 * When another window was faster, what came meanwhile is applied first and the own commands again on top.
 * What could not be sent is kept in the browser, so that closing the window loses nothing.
 */
export class OpenProject {
	readonly id: string;
	/** What is shown: the saved and queued commands, and a drag that is under way. */
	document = $state.raw() as Project;
	saveState = $state<SaveState>('saved');
	/** Sentences for the person: what came from another window, what could not be kept. */
	notices = $state<string[]>([]);
	private undoStack = $state.raw<Step[]>([]);
	private redoStack = $state.raw<Step[]>([]);
	undoLabel = $derived(this.undoStack.at(-1)?.label ?? null);
	redoLabel = $derived(this.redoStack.at(-1)?.label ?? null);

	/** The document with all commands but without a drag. */
	private settled: Project;
	/** A value is being dragged: what is shown has not been done yet. */
	get previewing(): boolean {
		return this.document !== this.settled;
	}
	/** The document as the server has it. */
	private confirmed: Project;
	private revision: number;
	private queue: Pending[] = [];
	private sending = false;
	/** Commands at the head of the queue that are on their way. */
	private inFlight = 0;

	constructor(opened: OpenedProject) {
		this.id = opened.id;
		this.revision = opened.revision;
		this.confirmed = this.settled = this.document = opened.document;
		const { undo, redo } = stacksFrom(opened.history);
		this.undoStack = undo;
		this.redoStack = redo;
		this.restoreQueue();
		addEventListener('pagehide', () => this.keep(this.queue.slice(this.sending ? this.inFlight : 0)));
	}

	/** Do a command: shown, undoable and saved. @throws CommandError, DocumentError when it does not fit */
	do(label: string, ...edits: Edit[]): void {
		const { project, inverse } = applyCommand(this.settled, { label, edits });
		this.undoStack = [...this.undoStack, { label, edits, inverse: inverse.edits }];
		this.redoStack = [];
		this.settle(project, { label, edits, kind: 'do' });
	}

	/** Show edits without keeping them, while a value is dragged; `do` or `dropPreview` ends it. */
	preview(...edits: Edit[]): void {
		this.document = applyCommand(this.settled, { label: 'preview', edits }).project;
	}

	dropPreview(): void {
		this.document = this.settled;
	}

	undo(): void {
		const step = this.undoStack.at(-1);
		if (!step) return;
		const project = this.applied(step, step.inverse, 'taken back');
		this.undoStack = this.undoStack.slice(0, -1);
		if (!project) return;
		this.redoStack = [...this.redoStack, step];
		this.settle(project, { label: step.label, edits: step.inverse, kind: 'undo' });
	}

	redo(): void {
		const step = this.redoStack.at(-1);
		if (!step) return;
		const project = this.applied(step, step.edits, 'done again');
		this.redoStack = this.redoStack.slice(0, -1);
		if (!project) return;
		this.undoStack = [...this.undoStack, step];
		this.settle(project, { label: step.label, edits: step.edits, kind: 'redo' });
	}

	/** The document after a step's edits; null, and told, when what they are about is there no more. */
	private applied(step: Step, edits: Edit[], what: string): Project | null {
		try {
			return applyCommand(this.settled, { label: step.label, edits }).project;
		} catch {
			this.notices = [...this.notices, `“${step.label}” cannot be ${what} any more`];
			return null;
		}
	}

	private settle(project: Project, pending: Pending): void {
		this.settled = this.document = project;
		this.queue.push(pending);
		void this.send();
	}

	private get storageKey(): string {
		return `zygaster unsaved ${this.id}`;
	}

	/** Keep commands in the browser that the server has not been given: offline, or when the window closes. */
	private keep(commands: readonly Pending[]): void {
		if (commands.length === 0) localStorage.removeItem(this.storageKey);
		else localStorage.setItem(this.storageKey, JSON.stringify(commands));
	}

	/** Commands that an earlier window could not send any more. */
	private restoreQueue(): void {
		const kept = localStorage.getItem(this.storageKey);
		if (!kept) return;
		this.replay(JSON.parse(kept) as Pending[], 'could not be kept from an earlier window');
		void this.send();
	}

	/** Apply commands again on the confirmed document; those that no longer fit are told. */
	private replay(commands: readonly Pending[], lost: string): void {
		let project = this.confirmed;
		const kept: Pending[] = [];
		for (const command of commands) {
			try {
				project = applyCommand(project, { label: command.label, edits: command.edits }).project;
				kept.push(command);
			} catch {
				this.notices = [...this.notices, `“${command.label}” ${lost}`];
			}
		}
		this.queue = kept;
		this.settled = this.document = project;
	}

	private async send(): Promise<void> {
		if (this.sending || this.queue.length === 0) return;
		this.sending = true;
		this.saveState = 'saving';
		const batch = [...this.queue];
		this.inFlight = batch.length;
		try {
			const request = JSON.stringify({ base: this.revision, commands: batch });
			const response = await fetch(`/api/projects/${this.id}/edits`, {
				method: 'POST',
				keepalive: request.length < MOST_KEPT_ALIVE,
				headers: { 'content-type': 'application/json' },
				body: request
			});
			const body = (await response.json()) as { revision: number; since: SavedEdit[]; message?: string };
			if (response.ok) this.confirm(batch, body.revision);
			else if (response.status === 409) this.rebase(body.revision, body.since);
			else {
				this.notices = [...this.notices, body.message ?? 'the server refused the change'];
				this.saveState = 'refused';
				this.replay([], '');
			}
			this.sending = false;
			if (this.queue.length) void this.send();
		} catch {
			this.saveState = 'offline';
			this.sending = false;
			this.keep(this.queue);
			setTimeout(() => void this.send(), RETRY_MS);
		}
	}

	private confirm(batch: readonly Pending[], revision: number): void {
		for (const command of batch)
			this.confirmed = applyCommand(this.confirmed, { label: command.label, edits: command.edits }).project;
		this.revision = revision;
		this.queue = this.queue.slice(batch.length);
		this.keep([]);
		if (this.queue.length === 0) this.saveState = 'saved';
	}

	/** Another window was faster: take its commands first, then the own ones again. */
	private rebase(revision: number, since: readonly SavedEdit[]): void {
		for (const edit of since)
			this.confirmed = applyCommand(this.confirmed, { label: edit.label, edits: edit.edits }).project;
		this.revision = revision;
		const labels = since.map((edit) => edit.label).join(', ');
		this.notices = [...this.notices, `Changed in another window: ${labels}`];
		this.replay(this.queue, 'no longer fits after what was changed in another window');
	}
}
