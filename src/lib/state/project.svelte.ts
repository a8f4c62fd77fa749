import { applyEdits } from '$core/project/commands';
import type { Edit } from '$core/project/edits';
import { boundValues } from '$core/named/bound-values';
import { pathTo, removeAt } from '$core/project/typed-path';
import { Files } from '$core/project/files';
import type { SentCommand } from '$core/project/log';
import type { Project } from '$core/project/schema';
import { HISTORY_PAGE, type OpenedProject, type SavedCommand } from '$lib/protocol';
import { fetchFiles } from '$lib/saving/fetch-files';
import { BrowserKeeper, makeId } from '$lib/saving/keeper';
import { httpLine } from '$lib/saving/line';
import { Sender, type SaveState } from '$lib/saving/sender';
import { Session, type SetAside } from '$lib/saving/session';

/** What other windows did is asked for this often, and whenever the window is looked at again. */
const SYNC_MS = 15_000;
/** For the first time once the page stands: its document has only just come. */
const FIRST_SYNC_MS = 1500;
/** Undo reaches further back before it runs out. */
const FEW_STEPS = 20;

/** What this browser has kept of a project, and goes on keeping. */
interface LeftHere {
	readonly keeper: BrowserKeeper;
	readonly files: Files;
	readonly pending: readonly SentCommand[];
	readonly aside: readonly SetAside[];
}

/**
 * The open project as the pages see it: its document, unlimited undo, and saving as it is typed.
 * What it does is done by the session (`lib/saving`), which knows no page.
 */
export class OpenProject {
	readonly id: string;
	/** Who writes here, as the history tells it. */
	readonly window: string;
	/** What is shown: the saved and pending commands, and a drag that is under way. */
	document = $state.raw() as Project;
	/** Without what is only dragged or looked at. */
	done = $state.raw() as Project;
	/** The same as it is kept: what is large in it is named, and lies in `files`. */
	kept = $state.raw() as Project;
	/** A value is being dragged: what is shown has not been done yet. */
	previewing = $state(false);
	saveState = $state.raw<SaveState>({ is: 'saved' });
	/** Sentences for the person: what came from another window, what could not be done. */
	notices = $state.raw<readonly string[]>([]);
	/** Commands that could not be carried out, kept until they are dropped or taken up again. */
	aside = $state.raw<readonly SetAside[]>([]);
	/** Commands that the server does not have yet. */
	unsaved = $state(0);
	/** All of them are kept in this browser: nothing is lost when the window closes. */
	areKept = $state(true);
	undoLabel = $state<string | null>(null);
	redoLabel = $state<string | null>(null);
	private previewed: readonly Edit[] | null = null;
	private readonly session: Session;
	private readonly sender: Sender;
	private oldest: number;
	private readonly stopWatching: () => void;

	private constructor(
		opened: OpenedProject,
		private readonly keeper: BrowserKeeper,
		readonly files: Files,
		left: Pick<LeftHere, 'pending' | 'aside'>
	) {
		this.id = opened.id;
		this.window = keeper.window;
		this.oldest = opened.history[0]?.revision ?? 1;
		this.aside = left.aside;
		this.session = new Session(opened, keeper.window, makeId, left.pending);
		this.sender = new Sender(
			this.session,
			httpLine(opened.id),
			keeper,
			{
				changed: () => this.show(),
				kept: () => this.count(),
				state: (state) => {
					// What is looked at hangs on it: asking what came since is no change.
					if (state.is !== this.saveState.is || state.is === 'waiting') this.saveState = state;
					this.count();
				},
				notice: (text) => (this.notices = [...this.notices, text]),
				aside: (asides) => (this.aside = [...this.aside, ...asides])
			},
			files,
			(ms) => new Promise((resolve) => setTimeout(resolve, ms))
		);
		this.show();
		this.stopWatching = this.watch();
		if (left.pending.length) this.sender.sync();
	}

	/** Look up what closed windows of this browser have left unsaved of a project: its document may still be on its way. */
	static async lookUp(id: string): Promise<LeftHere> {
		const keeper = new BrowserKeeper(id);
		const files = new Files();
		return { keeper, files, ...(await keeper.open(files)) };
	}

	/** Open a project in this window, with what was left here. */
	static async open(opened: OpenedProject, { keeper, files, ...left }: LeftHere): Promise<OpenProject> {
		await fetchFiles(files, [opened.document, left.pending]);
		return new OpenProject(opened, keeper, files, left);
	}

	private watch(): () => void {
		const sync = () => {
			if (document.visibilityState === 'visible') this.sender.sync();
		};
		const timer = setInterval(sync, SYNC_MS);
		const first = setTimeout(() => {
			sync();
			void this.reachBack();
		}, FIRST_SYNC_MS);
		const ask = (event: BeforeUnloadEvent) => {
			if (this.keeper.unkept.size) event.preventDefault();
		};
		addEventListener('online', sync);
		addEventListener('focus', sync);
		addEventListener('beforeunload', ask);
		return () => {
			clearTimeout(first);
			clearInterval(timer);
			removeEventListener('online', sync);
			removeEventListener('focus', sync);
			removeEventListener('beforeunload', ask);
		};
	}

	/** The last revision that is known here. */
	get revision(): number {
		return this.session.revision;
	}

	close(): void {
		this.stopWatching();
	}

	private count(): void {
		this.unsaved = this.session.pending.length;
		this.areKept = this.keeper.unkept.size === 0;
	}

	/** Show the session as it stands, with a drag that is under way on top. */
	private show(): void {
		const { session } = this;
		this.done = this.files.wholeProject(session.document);
		this.showDocument(session.document, false);
		this.count();
		this.undoLabel = session.undoLabel;
		this.redoLabel = session.redoLabel;
		if (!this.previewed) return;
		try {
			this.showDocument(applyEdits(session.document, this.previewed).project, true);
		} catch {
			// What is dragged went away in another window; the next move says so.
		}
	}

	private showDocument(kept: Project, previewing: boolean): void {
		this.kept = kept;
		this.document = this.files.wholeProject(kept);
		this.previewing = previewing;
		if (this.files.isWhole(kept)) return;
		// Brought in by another window.
		void fetchFiles(this.files, [kept]).then((come) => {
			if (!come || this.kept !== kept) return;
			this.document = this.files.wholeProject(kept);
			this.done = this.files.wholeProject(this.session.document);
		});
	}

	/** Do a command: shown, undoable and saved. @throws CommandError, DocumentError when it does not fit */
	do(label: string, ...edits: Edit[]): void {
		this.sent(this.session.do(label, this.files.detach(this.withBound(edits))));
	}

	/** Edits, with those that bring bound numbers to what their formulas come to after them. */
	private withBound(edits: Edit[]): Edit[] {
		const { document } = this.session;
		const binds = edits.some(({ path }) => path.startsWith('bound'));
		if (!document.bound.length && !binds) return edits;
		const { edits: more, gone } = boundValues(applyEdits(document, edits).project);
		return [...edits, ...more, ...gone.map((id) => removeAt(pathTo('bound', id)))];
	}

	/** Show edits without keeping them, while a value is dragged; `do` or `dropPreview` ends it. */
	preview(...edits: Edit[]): void {
		const kept = this.files.detach(this.withBound(edits));
		const { project } = applyEdits(this.session.document, kept);
		this.previewed = kept;
		this.showDocument(project, true);
	}

	dropPreview(): void {
		this.previewed = null;
		this.show();
	}

	undo(): void {
		this.reverse(() => this.session.undo());
	}

	redo(): void {
		this.reverse(() => this.session.redo());
	}

	private reverse(act: () => SentCommand | null): void {
		try {
			const command = act();
			if (command) this.sent(command);
			void this.reachBack();
		} catch (error) {
			this.notices = [...this.notices, error instanceof Error ? error.message : String(error)];
			this.show();
		}
	}

	private sent(command: SentCommand): void {
		this.previewed = null;
		this.sender.add(command);
		this.show();
	}

	/** Do a command that was set aside once more. @throws CommandError, DocumentError when it still does not fit */
	takeUp(aside: SetAside): void {
		this.do(aside.label, ...aside.edits);
		this.dropAside(aside);
	}

	dropAside({ id }: SetAside): void {
		this.aside = this.aside.filter((one) => one.id !== id);
		void this.keeper.dropAside(id);
	}

	/** Fetch older commands while there are few left that undo could take back; some pages, not all at once. */
	private async reachBack(pages = 3): Promise<void> {
		if (pages === 0 || this.session.undoSteps >= FEW_STEPS || this.oldest <= 1) return;
		const before = this.oldest;
		this.oldest = Math.max(1, before - HISTORY_PAGE);
		const answer = await fetch(`/api/projects/${this.id}/history?before=${before}`).catch(() => null);
		if (!answer?.ok) {
			this.oldest = before;
			return;
		}
		const { commands } = (await answer.json()) as { commands: SavedCommand[] };
		this.session.takeOlder(commands);
		this.show();
		if (commands.length) void this.reachBack(pages - 1);
	}
}
