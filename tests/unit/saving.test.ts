import { expect } from 'chai';
import fc from 'fast-check';
import { CommandError, DocumentError } from '../../src/core/project/faults';
import { hashOf } from '../../src/core/project/hash';
import { carryOut, Overtaken, type Done, type SentCommand } from '../../src/core/project/log';
import type { Project } from '../../src/core/project/schema';
import type { OpenedProject, SaveAnswer, SavedCommand, SaveRequest } from '../../src/lib/protocol';
import { Sender, type Keeper, type Line, type Reply } from '../../src/lib/saving/sender';
import { Session, type SetAside } from '../../src/lib/saving/session';
import { idsFrom, Model, namesOf, randomEdit, randomFrom, START, type Random } from '../saving/wardrobe';

const EPOCH = '00000000-0000-4000-8000-00000000000e';

/** A server in memory: one log, one document, every command once. */
class MemoryServer {
	epoch = EPOCH;
	document: Project = START;
	log: SavedCommand[] = [];

	open(): OpenedProject {
		const { epoch, document } = this;
		const history = this.log.slice(-200);
		return { id: 'p', epoch, revision: this.log.length, hash: hashOf(document), document, history };
	}

	save({ epoch, base, commands }: SaveRequest): Reply {
		if (epoch !== this.epoch || base > this.log.length)
			return { kind: 'answer', status: 409, body: { message: 'put back' } };
		const since = this.log.slice(base);
		const known = this.log.slice(0, base).filter(({ id }) => commands.some((one) => idIn(one) === id));
		const refused: SaveAnswer['refused'] = [];
		for (const command of commands as SentCommand[]) {
			if (this.log.some(({ id }) => id === command.id)) continue;
			try {
				this.add(command);
				since.push(this.log.at(-1)!);
			} catch (error) {
				if (!(error instanceof CommandError || error instanceof DocumentError)) throw error;
				const { message } = error;
				refused.push({ id: command.id, message, overtaken: error instanceof Overtaken });
			}
		}
		const own = new Set(commands.map(idIn));
		const body: SaveAnswer = {
			epoch,
			revision: this.log.length,
			hash: hashOf(this.document),
			log: since.map((one) => (own.has(one.id) ? { revision: one.revision, id: one.id } : one)),
			known: known.map(({ id }) => id),
			refused
		};
		return { kind: 'answer', status: 200, body: JSON.parse(JSON.stringify(body)) };
	}

	private add(command: SentCommand): void {
		const applied = carryOut(this.document, command, {
			find: (id) => this.log.find((one) => one.id === id),
			decidedSince: (of: Done) =>
				this.log
					.slice(this.log.findIndex(({ id }) => id === of.id) + 1)
					.filter(({ window }) => window !== of.window)
					.map(({ touched }) => touched)
		});
		this.document = applied.project;
		this.log.push({
			...applied,
			edits: [...applied.edits],
			id: command.id,
			window: command.window,
			kind: command.kind,
			of: command.kind === 'do' ? null : command.of,
			label: command.label,
			revision: this.log.length + 1,
			author: 'a',
			madeAt: ''
		});
	}
}
const idIn = (command: unknown) => (command as SentCommand).id;

/** A window with its sender, its store and a line that may lose what is said. */
class Window {
	kept = new Map<string, SentCommand>();
	asides: SetAside[] = [];
	notices: string[] = [];
	session!: Session;
	sender!: Sender;
	/** What is asked of the line; a test may answer itself. */
	answer: (request: SaveRequest) => Reply | null = () => null;
	/** Loses a request, an answer, or neither. */
	loss: () => 'request' | 'answer' | 'none' = () => 'none';
	saved = false;
	private alive = 0;

	constructor(
		readonly server: MemoryServer,
		readonly id: string,
		private readonly makeId: () => string
	) {
		this.start();
	}

	/** Begin as a page that is opened: from the server, with what is kept. */
	start(): void {
		const life = ++this.alive;
		const pending = [...this.kept.values()];
		this.session = new Session(this.server.open(), this.id, this.makeId, pending);
		const line: Line = {
			open: async () => ({ kind: 'answer', status: 200, body: this.server.open() }),
			save: async (text) => {
				await Promise.resolve();
				const request = JSON.parse(text) as SaveRequest;
				const lost = this.loss();
				if (lost === 'request') return { kind: 'silence' };
				const reply = this.answer(request) ?? this.server.save(request);
				// A window that was closed meanwhile hears nothing.
				if (life !== this.alive) return new Promise(() => {});
				return lost === 'answer' ? { kind: 'silence' } : reply;
			}
		};
		const keeper: Keeper = {
			keep: async (command) => void this.kept.set(command.id, command),
			forget: async (ids) => ids.forEach((id) => this.kept.delete(id)),
			keepAside: async () => {}
		};
		this.sender = new Sender(
			this.session,
			line,
			keeper,
			{
				changed: () => {},
				state: ({ is }) => (this.saved = is === 'saved'),
				notice: (text) => this.notices.push(text),
				aside: (asides) => this.asides.push(...asides)
			},
			() => new Promise((resolve) => setImmediate(resolve))
		);
		this.sender.sync();
	}

	do(label: string, path: string, value: unknown): SentCommand {
		const command = this.session.do(label, [{ do: 'set', path, value }]);
		this.sender.add(command);
		return command;
	}

	undo(): SentCommand | null {
		try {
			const command = this.session.undo();
			if (command) this.sender.add(command);
			return command;
		} catch (error) {
			if (!(error instanceof CommandError)) throw error;
			this.notices.push(error.message);
			return null;
		}
	}
}

const turns = async (many: number) => {
	for (let k = 0; k < many; k++) await new Promise((resolve) => setImmediate(resolve));
};
async function quiet(...windows: Window[]): Promise<void> {
	// Twice: what the first round brought to the server the second brings to the others.
	for (let round = 0; round < 2; round++) {
		for (const window of windows) window.sender.sync();
		for (let k = 0; k < 2000 && windows.some((one) => !one.saved || one.session.pending.length); k++)
			await turns(1);
		await turns(3);
	}
}
function windows(many: number, seed = 1): [MemoryServer, ...Window[]] {
	const server = new MemoryServer();
	const makeId = idsFrom(randomFrom(seed));
	return [server, ...Array.from({ length: many }, () => new Window(server, makeId(), makeId))];
}

/** Three windows do, undo and redo at random over a line that loses what is said, and are closed and opened again. */
async function badDay(seed: number, commands: number): Promise<void> {
	const random: Random = randomFrom(seed);
	const [server, ...three] = windows(3, seed);
	for (const window of three)
		window.loss = () => (random() < 0.33 ? (random() < 0.5 ? 'request' : 'answer') : 'none');
	const made = new Map<string, SentCommand>();
	for (let turn = 0; turn < commands; turn++) {
		const window = three[Math.floor(random() * 3)]!;
		const what = random();
		let command: SentCommand | null = null;
		if (what < 0.2) command = window.undo();
		else if (what < 0.28) {
			try {
				command = window.session.redo();
				if (command) window.sender.add(command);
			} catch (error) {
				expect(error).to.be.instanceOf(CommandError);
			}
		} else {
			command = window.session.do(`turn ${turn}`, [randomEdit(window.session.document, random, turn)]);
			window.sender.add(command);
		}
		if (command) made.set(command.id, command);
		if (random() < 0.3) await turns(1);
		if (random() < 0.01) {
			await turns(1);
			window.start();
		}
	}
	for (const window of three) window.loss = () => 'none';
	await quiet(...three);

	expect(new Set(server.log.map(({ id }) => id)).size, 'every command once').to.equal(server.log.length);
	const accepted = new Set(server.log.map(({ id }) => id));
	const aside = new Set(three.flatMap((window) => window.asides.map(({ id }) => id)));
	const overtaken = three.flatMap(({ notices }) => notices).filter((text) => /cannot be/.test(text)).length;
	const missing = [...made.keys()].filter((id) => !accepted.has(id) && !aside.has(id));
	expect(missing.length, 'what is not carried out was told').to.be.at.most(overtaken);
	for (const window of three) {
		expect(window.session.pending).to.deep.equal([]);
		expect(hashOf(window.session.document), 'every window shows the same').to.equal(hashOf(server.document));
	}
	const model = new Model();
	for (const { id } of server.log) model.take(made.get(id)!);
	// Where in the list something comes back to is not decided by the model.
	expect(namesOf(server.document).sort(), 'what the model has').to.deep.equal(model.names().sort());
	expect(model.robbed, 'no undo took back what another window had decided').to.deep.equal([]);
}

describe('saving', () => {
	it('three windows, a lossy line, restarts: every command once, nothing lost, all the same in the end', async () => {
		await fc.assert(fc.asyncProperty(fc.integer(), (seed) => badDay(seed, 120)), { numRuns: 40 });
	});

	it('10,000 commands over a line that loses every third request or answer come to the model’s document', async () => {
		await badDay(20_261, 10_000);
	}).timeout(120_000);

	it('undo leaves what another window has decided since', async () => {
		const [server, one, other] = windows(2) as [MemoryServer, Window, Window];
		const name = 'variants/oak/name';
		one.do('to 100', name, '100');
		await quiet(one, other);
		other.do('to 200', name, '200');
		await quiet(one, other);
		expect(one.undo()).to.equal(null);
		expect(one.notices.at(-1)).to.match(/“to 100” cannot be taken back: another window has changed the same/);
		expect(namesOf(server.document)[0]).to.equal('oak: 200');
		// The step is passed over, and the one before is next.
		expect(one.session.undoLabel).to.equal(null);
	});

	it('a value of another window that came first is what undo goes back to', async () => {
		const [server, one, other] = windows(2) as [MemoryServer, Window, Window];
		const name = 'variants/oak/name';
		one.loss = () => 'request';
		one.do('to 100', name, '100');
		other.do('to 200', name, '200');
		await quiet(other);
		one.loss = () => 'none';
		await quiet(one);
		expect(namesOf(server.document)[0]).to.equal('oak: 100');
		one.undo();
		await quiet(one, other);
		expect(namesOf(server.document)[0]).to.equal('oak: 200');
	});

	it('an undo that another window overtakes on its way is told and taken out', async () => {
		const [server, one, other] = windows(2) as [MemoryServer, Window, Window];
		const name = 'variants/oak/name';
		one.do('to 100', name, '100');
		await quiet(one, other);
		one.loss = () => 'request';
		one.undo();
		other.do('to 200', name, '200');
		await quiet(other);
		one.loss = () => 'none';
		await quiet(one, other);
		expect(namesOf(server.document)[0]).to.equal('oak: 200');
		expect(one.notices.join()).to.match(/cannot be taken back/);
		expect(one.asides).to.deep.equal([]);
	});

	it('undo and redo go on after the window is opened again, from the ids of the commands', async () => {
		const [server, one] = windows(1) as [MemoryServer, Window];
		for (const value of ['1', '2', '3']) one.do(`to ${value}`, 'variants/oak/name', value);
		one.undo();
		await quiet(one);
		one.start();
		expect([one.session.undoLabel, one.session.redoLabel]).to.deep.equal(['to 2', 'to 3']);
		one.undo();
		one.sender.add(one.session.redo()!);
		one.sender.add(one.session.redo()!);
		await quiet(one);
		expect(namesOf(server.document)[0]).to.equal('oak: 3');
	});

	it('older commands that come later reach further back, without those taken back meanwhile', () => {
		const [server, one] = windows(1) as [MemoryServer, Window];
		const makeId = idsFrom(randomFrom(5));
		const writer = new Session(server.open(), one.id, makeId);
		for (const value of ['1', '2', '3']) writer.do(`to ${value}`, [{ do: 'set', path: 'name', value }]);
		writer.undo();
		server.save({ epoch: EPOCH, base: 0, commands: writer.pending });
		const opened = server.open();
		const reader = new Session({ ...opened, history: opened.history.slice(-1) }, one.id, makeId);
		expect([reader.undoLabel, reader.redoLabel]).to.deep.equal([null, 'to 3']);
		reader.takeOlder(opened.history.slice(0, -1));
		expect([reader.undoLabel, reader.undoSteps]).to.deep.equal(['to 2', 2]);
	});

	it('a refused command alone is set aside; those before and after it are carried out', async () => {
		const [server, one] = windows(1) as [MemoryServer, Window];
		one.answer = ({ commands }) =>
			commands.some((command) => (command as SentCommand).label === 'bad')
				? { kind: 'answer', status: 400, body: { message: 'it cannot be read' } }
				: null;
		one.do('first', 'variants/oak/name', 'a');
		one.do('bad', 'variants/elm/name', 'b');
		one.do('last', 'variants/ash/name', 'c');
		await quiet(one);
		expect(namesOf(server.document)).to.deep.equal(['oak: a', 'elm: elm 0', 'ash: c', 'fir: fir 0']);
		expect(one.asides).to.have.length(1);
		expect(one.asides[0]).to.include({ label: 'bad', reason: 'it cannot be read' });
		expect(one.asides[0]!.edits).to.deep.equal([{ do: 'set', path: 'variants/elm/name', value: 'b' }]);
		expect(hashOf(one.session.document)).to.equal(hashOf(server.document));
		one.undo();
		await quiet(one);
		expect(namesOf(server.document)[2]).to.equal('ash: ash 0');
		expect(one.session.undoLabel, 'no phantom on the stack').to.equal('first');
	});

	it('5xx, 429, 408, silence and answers that are not ours keep everything and are asked again', async () => {
		const [server, one] = windows(1) as [MemoryServer, Window];
		const replies: Reply[] = [
			{ kind: 'silence' },
			...[500, 502, 503, 429, 408, 404, 403].map(
				(status): Reply => ({ kind: 'answer', status, body: null })
			),
			{ kind: 'answer', status: 200, body: null },
			{ kind: 'answer', status: 200, body: { revision: 1 } }
		];
		const asked = replies.length;
		let times = 0;
		one.answer = () => {
			times++;
			return replies.shift() ?? null;
		};
		for (let k = 0; k < 5; k++) one.do(`edit ${k}`, 'variants/oak/name', `${k}`);
		await quiet(one);
		expect(times).to.be.greaterThan(asked);
		expect(server.log.map(({ label }) => label)).to.deep.equal([0, 1, 2, 3, 4].map((k) => `edit ${k}`));
		expect(one.asides).to.deep.equal([]);
	});

	it('a long queue and a long label go in several requests, whole', async () => {
		const [server, one] = windows(1) as [MemoryServer, Window];
		one.loss = () => 'request';
		for (let k = 0; k < 1200; k++) one.do(k === 7 ? 'x'.repeat(500) : `edit ${k}`, 'name', `n${k}`);
		one.loss = () => 'none';
		let largest = 0;
		one.answer = ({ commands }) => {
			largest = Math.max(largest, commands.length);
			return null;
		};
		await quiet(one);
		expect(server.log.length).to.equal(1200);
		expect(largest).to.be.at.most(500);
		expect(server.log[7]!.label).to.equal('x'.repeat(200));
	});

	it('a server put back to an earlier state is noticed; unsaved work stays, lost work is set aside', async () => {
		const [server, one] = windows(1) as [MemoryServer, Window];
		for (let k = 0; k < 7; k++) one.do(`edit ${k}`, 'variants/oak/name', `${k}`);
		await quiet(one);
		const backup = { document: server.document, log: [...server.log] };
		one.do('after the backup', 'variants/elm/name', 'x');
		await quiet(one);
		Object.assign(server, backup, { epoch: '00000000-0000-4000-8000-0000000000ff' });
		one.do('unsaved', 'variants/ash/name', 'y');
		await quiet(one);
		expect(one.notices.join()).to.match(/opened again/);
		expect(namesOf(server.document)).to.deep.equal(['oak: 6', 'elm: elm 0', 'ash: y', 'fir: fir 0']);
		expect(one.asides.map(({ label }) => label)).to.deep.equal(['after the backup']);
		expect(hashOf(one.session.document)).to.equal(hashOf(server.document));
	});

	it('a document that differs without a word is noticed by its hash', async () => {
		const [server, one] = windows(1) as [MemoryServer, Window];
		one.do('first', 'variants/oak/name', 'a');
		await quiet(one);
		server.document = { ...server.document, name: 'Changed behind the back' };
		one.do('second', 'variants/elm/name', 'b');
		await quiet(one);
		expect(one.session.document.name).to.equal('Changed behind the back');
		expect(namesOf(one.session.document).slice(0, 2)).to.deep.equal(['oak: a', 'elm: b']);
	});
});
