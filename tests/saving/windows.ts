import { expect } from 'chai';
import type { Edit } from '../../src/core/project/edits';
import { CommandError } from '../../src/core/project/faults';
import { Files } from '../../src/core/project/files';
import { hashOf } from '../../src/core/project/hash';
import type { SentCommand } from '../../src/core/project/log';
import type { OpenedProject, SavedCommand, SaveRequest } from '../../src/lib/protocol';
import { Sender, type Keeper, type Line, type Reply } from '../../src/lib/saving/sender';
import { Session, type SetAside } from '../../src/lib/saving/session';
import { Model, namesOf, randomEdit, randomFrom, type Random } from './wardrobe';

/** A server that windows of a test talk to: in memory, or a real one. */
export interface TestServer {
	open(): Promise<OpenedProject>;
	save(request: SaveRequest): Promise<Reply>;
	/** Where large values are kept; not asked for by commands without them. */
	store?(hash: string, text: string): Promise<Reply>;
	/** Everything it has carried out, oldest first. */
	wholeLog(): Promise<SavedCommand[]>;
}

/** A window with its sender, its store and a line that may lose what is said. */
export class TestWindow {
	kept = new Map<string, { command: SentCommand; files: ReadonlyMap<string, string> }>();
	files!: Files;
	asides: SetAside[] = [];
	notices: string[] = [];
	session!: Session;
	sender!: Sender;
	/** What is asked of the line; a test may answer itself. */
	answer: (request: SaveRequest) => Reply | null = () => null;
	/** Loses a request, an answer, or neither. */
	loss: () => 'request' | 'answer' | 'none' = () => 'none';
	/** How long it waits before it asks again. */
	pause = () => new Promise<void>((resolve) => setImmediate(resolve));
	saved = false;
	private alive = 0;

	constructor(
		readonly server: TestServer,
		readonly id: string,
		private readonly makeId: () => string
	) {}

	/** Begin as a page that is opened: from the server, with what is kept. */
	async start(): Promise<this> {
		const life = ++this.alive;
		const opened = await this.server.open();
		this.files = new Files();
		const left = [...this.kept.values()];
		for (const { files } of left) for (const [hash, text] of files) this.files.take(hash, text);
		this.session = new Session(
			opened,
			this.id,
			this.makeId,
			left.map(({ command }) => command)
		);
		/** Over a line that may lose what is said. */
		const over = async (ask: () => Promise<Reply>): Promise<Reply> => {
			await Promise.resolve();
			const lost = this.loss();
			if (lost === 'request') return { kind: 'silence' };
			const reply = await ask();
			// A window that was closed meanwhile hears nothing.
			if (life !== this.alive) return new Promise(() => {});
			return lost === 'answer' ? { kind: 'silence' } : reply;
		};
		const line: Line = {
			open: async () => ({ kind: 'answer', status: 200, body: await this.server.open() }),
			save: (text) => {
				const request = JSON.parse(text) as SaveRequest;
				return over(async () => this.answer(request) ?? (await this.server.save(request)));
			},
			store: (hash, text) => over(async () => (await this.server.store?.(hash, text)) ?? { kind: 'silence' })
		};
		const keeper: Keeper = {
			keep: async (command, files) => void this.kept.set(command.id, { command, files }),
			forget: async (ids) => ids.forEach((id) => this.kept.delete(id)),
			keepAside: async () => {}
		};
		this.sender = new Sender(
			this.session,
			line,
			keeper,
			{
				changed: () => {},
				kept: () => {},
				state: ({ is }) => {
					if (life === this.alive) this.saved = is === 'saved';
				},
				notice: (text) => this.notices.push(text),
				aside: (asides) => this.asides.push(...asides)
			},
			this.files,
			() => this.pause()
		);
		this.sender.sync();
		return this;
	}

	do(label: string, path: string, value: unknown): SentCommand {
		return this.edit(label, { do: 'set', path, value });
	}

	edit(label: string, edit: Edit): SentCommand {
		const command = this.session.do(label, this.files.detach([edit]));
		this.sender.add(command);
		return command;
	}

	undo(): SentCommand | null {
		return this.reverse(() => this.session.undo());
	}

	redo(): SentCommand | null {
		return this.reverse(() => this.session.redo());
	}

	private reverse(act: () => SentCommand | null): SentCommand | null {
		try {
			const command = act();
			if (command) this.sender.add(command);
			return command;
		} catch (error) {
			if (!(error instanceof CommandError)) throw error;
			this.notices.push(error.message);
			return null;
		}
	}
}

export const turns = async (many: number) => {
	for (let k = 0; k < many; k++) await new Promise((resolve) => setImmediate(resolve));
};

const QUIET_MS = 30_000;
const stateOf = ({ saved, session, notices }: TestWindow) =>
	`${saved ? 'saved' : 'not saved'}, ${session.pending.length} pending, last told “${notices.at(-1)}”`;

/** Wait until every window has sent what it has and heard what the others did. */
export async function quiet(...windows: TestWindow[]): Promise<void> {
	// Twice: what the first round brought to the server the second brings to the others.
	for (let round = 0; round < 2; round++) {
		for (const window of windows) {
			window.saved = false;
			window.sender.sync();
		}
		const until = Date.now() + QUIET_MS;
		while (windows.some((one) => !one.saved || one.session.pending.length)) {
			if (Date.now() > until) throw new Error(`not quiet: ${windows.map(stateOf).join('; ')}`);
			await turns(1);
		}
		await turns(3);
	}
}

/** One random thing that a person does in a window. @returns the command, if it came to one */
export function doSomething(window: TestWindow, random: Random, turn: number): SentCommand | null {
	const what = random();
	if (what < 0.2) return window.undo();
	if (what < 0.28) return window.redo();
	return window.edit(`turn ${turn}`, randomEdit(window.session.document, random, turn));
}

/**
 * After a bad day: every command was carried out once or told, all windows show the same, and it is what the model
 * has.
 * @param made every command that was done, by its id
 */
export async function checkDay(
	server: TestServer,
	windows: readonly TestWindow[],
	made: ReadonlyMap<string, SentCommand>
): Promise<SavedCommand[]> {
	const log = await server.wholeLog();
	const accepted = new Set(log.map(({ id }) => id));
	expect(accepted.size, 'every command once').to.equal(log.length);
	expect(log.map(({ revision }) => revision)).to.deep.equal(log.map((_, k) => k + 1));
	const aside = new Set(windows.flatMap((window) => window.asides.map(({ id }) => id)));
	const overtaken = windows.flatMap(({ notices }) => notices).filter((text) => /cannot be/.test(text)).length;
	const missing = [...made.keys()].filter((id) => !accepted.has(id) && !aside.has(id));
	expect(missing.length, 'what is not carried out was told').to.be.at.most(overtaken);
	const { document } = await server.open();
	for (const window of windows) {
		expect(window.session.pending).to.deep.equal([]);
		expect(hashOf(window.session.document), 'every window shows the same').to.equal(hashOf(document));
	}
	const model = new Model();
	for (const { id } of log) model.take(made.get(id)!);
	// Where in the list something comes back to is not decided by the model.
	expect(namesOf(document).sort(), 'what the model has').to.deep.equal(model.names().sort());
	expect(model.robbed, 'no undo took back what another window had decided').to.deep.equal([]);
	return log;
}

/** Windows do things at random over a line that loses what is said, and are closed and opened again. */
export async function badDay(
	server: TestServer,
	windows: readonly TestWindow[],
	seed: number,
	commands: number
): Promise<void> {
	const random: Random = randomFrom(seed);
	for (const window of windows)
		window.loss = () => (random() < 0.33 ? (random() < 0.5 ? 'request' : 'answer') : 'none');
	const made = new Map<string, SentCommand>();
	for (let turn = 0; turn < commands; turn++) {
		const window = windows[Math.floor(random() * windows.length)]!;
		const command = doSomething(window, random, turn);
		if (command) made.set(command.id, command);
		if (random() < 0.3) await turns(1);
		if (random() < 0.01) {
			await turns(1);
			await window.start();
		}
	}
	for (const window of windows) window.loss = () => 'none';
	await quiet(...windows);
	await checkDay(server, windows, made);
}
