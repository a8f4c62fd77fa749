import { CommandError, DocumentError } from '$core/project/faults';
import { filesIn, type Files } from '$core/project/files';
import type { SentCommand } from '$core/project/log';
import {
	MOST_COMMANDS,
	MOST_REQUEST_BYTES,
	saveAnswerSchema,
	type OpenedProject,
	type SaveAnswer,
	type SaveRequest
} from '$lib/protocol';
import type { Session, SetAside } from './session';

/** What came of asking the server. */
export type Reply =
	| { readonly kind: 'answer'; readonly status: number; readonly body: unknown; readonly retryAfter?: number }
	/** No answer: no line, no server, or none in time. */
	| { readonly kind: 'silence' };

export interface Line {
	save(request: string): Promise<Reply>;
	/** Keep a file on the server. @param text whose hash names it */
	store(hash: string, text: string): Promise<Reply>;
	open(): Promise<Reply>;
}

/** Where commands are kept until the server has them. */
export interface Keeper {
	/** Resolves when the command is kept with the files it names, or cannot be. @param files their texts, by hash */
	keep(command: SentCommand, files: ReadonlyMap<string, string>): Promise<void>;
	forget(ids: readonly string[]): Promise<void>;
	keepAside(asides: readonly SetAside[]): Promise<void>;
}

export type SaveState =
	| { readonly is: 'saved' | 'saving' }
	/** Tried again; why not yet, in words. */
	| { readonly is: 'waiting'; readonly why: string };

/** What the person is told. */
export interface Told {
	changed(): void;
	/** A command is in the browser's store, or could not be put there. */
	kept(): void;
	state(state: SaveState): void;
	notice(text: string): void;
	aside(asides: readonly SetAside[]): void;
}

const FIRST_PAUSE_MS = 500;
const LONGEST_PAUSE_MS = 30_000;

/** Answers that say something of the line or the server, and nothing of the command. */
const passing = (status: number) => status >= 500 || status === 429 || status === 408 || status === 425;
/** Answers that say something of the whole project or of who asks. */
const ofTheProject = (status: number) => [401, 403, 404, 410, 421].includes(status);

const messageOf = (body: unknown, otherwise: string): string => {
	const message = (body as { message?: unknown } | null)?.message;
	return typeof message === 'string' && message ? message : otherwise;
};

/**
 * Sends a session's commands, one request at a time, until the server has them.
 *
 * Nothing is dropped here: what is no answer is asked again with growing pauses, a command the server refuses is
 * set aside, and a window that is out of step opens the project again and keeps what it has not saved.
 */
export class Sender {
	private running = false;
	private asked = false;
	private pauses = 0;
	private state: SaveState = { is: 'saved' };
	/** Commands of the next request at most: one after a refusal, to find which it was. */
	private atMost = MOST_COMMANDS;
	private readonly keeping = new Map<string, Promise<void>>();
	private wake: (() => void) | null = null;
	/** Files that the server has. */
	private readonly stored: Set<string>;

	constructor(
		private readonly session: Session,
		private readonly line: Line,
		private readonly keeper: Keeper,
		private readonly told: Told,
		private readonly files: Files,
		private readonly sleep: (ms: number) => Promise<void>
	) {
		this.stored = new Set(filesIn(session.asSaved).keys());
	}

	/** A command was done: keep it, then send it. */
	add(command: SentCommand): void {
		this.keeping.set(
			command.id,
			this.keeper.keep(command, this.textsOf(command, this.stored)).finally(() => {
				this.keeping.delete(command.id);
				this.told.kept();
			})
		);
		if (this.state.is === 'saved') this.tell({ is: 'saving' });
		void this.run();
	}

	/** The files that a command names, without those that are known somewhere. */
	private textsOf(command: SentCommand, without: ReadonlySet<string>): Map<string, string> {
		const texts = new Map<string, string>();
		if (command.kind === 'do')
			for (const hash of filesIn(command.edits).keys()) {
				const text = without.has(hash) ? undefined : this.files.text(hash);
				if (text !== undefined) texts.set(hash, text);
			}
		return texts;
	}

	private tell(state: SaveState): void {
		this.state = state;
		this.told.state(state);
	}

	/** Send what is pending and take in what came since; at once, when it was waiting. */
	sync(): void {
		this.asked = true;
		this.wake?.();
		void this.run();
	}

	private async run(): Promise<void> {
		if (this.running) return;
		this.running = true;
		try {
			while (this.session.pending.length || this.asked) {
				this.asked = false;
				const batch = await this.nextBatch();
				if (batch.length) this.tell({ is: 'saving' });
				const request: SaveRequest = {
					epoch: this.session.epoch,
					base: this.session.revision,
					commands: batch
				};
				const kept = await this.storeFiles(batch);
				await this.settle(batch, kept ?? (await this.line.save(JSON.stringify(request))));
			}
		} finally {
			this.running = false;
		}
		this.tell({ is: 'saved' });
	}

	/** Commands that are kept already, as many as a request takes. */
	private async nextBatch(): Promise<SentCommand[]> {
		const batch: SentCommand[] = [];
		let bytes = 0;
		for (const command of this.session.pending.slice(0, this.atMost)) {
			await this.keeping.get(command.id);
			bytes += JSON.stringify(command).length;
			if (batch.length && bytes > MOST_REQUEST_BYTES) break;
			batch.push(command);
		}
		return batch;
	}

	/** Files go before the commands that name them. @returns the first answer that is no success */
	private async storeFiles(batch: readonly SentCommand[]): Promise<Reply | null> {
		for (const command of batch)
			for (const [hash, text] of this.textsOf(command, this.stored)) {
				const reply = await this.line.store(hash, text);
				if (reply.kind === 'silence' || reply.status !== 204) return reply;
				this.stored.add(hash);
			}
		return null;
	}

	private async settle(batch: readonly SentCommand[], reply: Reply): Promise<void> {
		if (reply.kind === 'silence') return this.pause('the server does not answer');
		const { status, body } = reply;
		if (passing(status))
			return this.pause(messageOf(body, `the server is in trouble (${status})`), reply.retryAfter);
		if (status === 409) return this.reopen(messageOf(body, 'the project was changed on the server'));
		if (ofTheProject(status))
			return this.pause(messageOf(body, `the server refuses this window (${status})`), LONGEST_PAUSE_MS);
		if (status >= 400) {
			if (batch.length > 1) this.atMost = 1;
			else if (batch[0])
				await this.setAside([this.session.refuse(batch[0], messageOf(body, `refused (${status})`))]);
			else return this.pause(messageOf(body, `the server refuses this window (${status})`));
			this.told.changed();
			return;
		}
		const answer = saveAnswerSchema.safeParse(body);
		if (status !== 200 || !answer.success)
			return this.pause('what answers is not Zygaster’s server; is there a login page in between?');
		await this.take(answer.data as SaveAnswer);
	}

	private async take(answer: SaveAnswer): Promise<void> {
		this.pauses = 0;
		if (this.atMost < MOST_COMMANDS) this.atMost = Math.min(MOST_COMMANDS, this.atMost * 2);
		const { others, aside, overtaken, settled, outOfStep } = this.session.take(answer);
		if (others.length || aside.length || overtaken.length) this.told.changed();
		if (others.length) this.told.notice(`Changed in another window: ${listed(others)}`);
		for (const text of overtaken) this.told.notice(text);
		if (aside.length) await this.setAside(aside);
		await this.keeper.forget(settled);
		if (outOfStep) await this.reopen('what is here differed from what the server has');
	}

	private async setAside(asides: readonly SetAside[]): Promise<void> {
		// What is set aside is whole in itself: it may be taken up when nothing else is left of it.
		const whole = asides.map((aside) => ({ ...aside, edits: this.files.whole(aside.edits) }));
		await this.keeper.keepAside(whole);
		await this.keeper.forget(whole.map(({ id }) => id));
		this.told.aside(whole);
		for (const { label, reason } of whole) this.told.notice(`“${label}” was set aside: ${reason}`);
	}

	private async reopen(why: string): Promise<void> {
		const reply = await this.line.open();
		if (reply.kind === 'silence' || reply.status !== 200) return this.pause('the server does not answer');
		try {
			const lost = this.session.reopen(reply.body as OpenedProject);
			// A server that was put back to an earlier state may not have them any more.
			this.stored.clear();
			for (const hash of filesIn(this.session.asSaved).keys()) this.stored.add(hash);
			if (lost.length) await this.setAside(lost);
			const { length } = this.session.pending;
			const kept = length === 1 ? 'one unsaved change is kept' : `${length} unsaved changes are kept`;
			this.told.notice(`The project was opened again, since ${why}${length ? `; ${kept}` : ''}`);
			this.told.changed();
			this.asked = true;
		} catch (error) {
			if (!(error instanceof CommandError || error instanceof DocumentError)) throw error;
			await this.pause(error.message, LONGEST_PAUSE_MS);
		}
	}

	private async pause(why: string, wanted = 0): Promise<void> {
		const growing = Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** this.pauses++);
		this.tell({ is: 'waiting', why });
		this.asked = true;
		const woken = new Promise<void>((resolve) => (this.wake = resolve));
		await Promise.race([this.sleep(Math.max(wanted, growing * (0.75 + Math.random() / 2))), woken]);
		this.wake = null;
	}
}

const MOST_LISTED = 4;
function listed(labels: readonly string[]): string {
	const shown = labels.slice(0, MOST_LISTED).join(', ');
	const more = labels.length - MOST_LISTED;
	return more > 0 ? `${shown} and ${more} more` : shown;
}
