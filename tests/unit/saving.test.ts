import { expect } from 'chai';
import fc from '../property';
import type { Edit } from '../../src/core/project/edits';
import { CommandError, DocumentError } from '../../src/core/project/faults';
import { filesIn } from '../../src/core/project/files';
import { hashOf } from '../../src/core/project/hash';
import { carryOut, Overtaken, type Done, type SentCommand } from '../../src/core/project/log';
import { readProject } from '../../src/core/project/read';
import type { Project } from '../../src/core/project/schema';
import type { OpenedProject, SaveAnswer, SavedCommand, SaveRequest } from '../../src/lib/protocol';
import type { Reply } from '../../src/lib/saving/sender';
import { Session } from '../../src/lib/saving/session';
import { importedMass } from '../saving/large';
import { idsFrom, namesOf, randomFrom, START } from '../saving/wardrobe';
import { badDay, quiet, TestWindow, turns, type TestServer } from '../saving/windows';

const EPOCH = '00000000-0000-4000-8000-00000000000e';

/** A server in memory: one log, one document, every command once. */
class MemoryServer implements TestServer {
	epoch = EPOCH;
	document: Project = START;
	log: SavedCommand[] = [];
	/** Texts by hash, and how often each was sent. */
	files = new Map<string, { text: string; times: number }>();
	refusesFiles: string | null = null;

	async store(hash: string, text: string): Promise<Reply> {
		if (this.refusesFiles) return { kind: 'answer', status: 413, body: { message: this.refusesFiles } };
		this.files.set(hash, { text, times: (this.files.get(hash)?.times ?? 0) + 1 });
		return { kind: 'answer', status: 204, body: null };
	}

	async open(): Promise<OpenedProject> {
		const { epoch, document } = this;
		const history = this.log.slice(-200);
		return { id: 'p', epoch, revision: this.log.length, hash: hashOf(document), document, history };
	}

	async wholeLog(): Promise<SavedCommand[]> {
		return this.log;
	}

	async save({ epoch, base, commands }: SaveRequest): Promise<Reply> {
		if (epoch !== this.epoch || base > this.log.length)
			return { kind: 'answer', status: 409, body: { message: 'put back' } };
		const since = this.log.slice(base);
		const known = this.log.slice(0, base).filter(({ id }) => commands.some((one) => idIn(one) === id));
		const refused: SaveAnswer['refused'] = [];
		for (const command of commands as SentCommand[]) {
			if (this.log.some(({ id }) => id === command.id)) continue;
			for (const hash of filesIn(command).keys())
				expect(this.files.has(hash), 'a file comes before the command that names it').to.equal(true);
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

async function windows(many: number, seed = 1): Promise<[MemoryServer, ...TestWindow[]]> {
	const server = new MemoryServer();
	const makeId = idsFrom(randomFrom(seed));
	const opened: TestWindow[] = [];
	for (let k = 0; k < many; k++) opened.push(await new TestWindow(server, makeId(), makeId).start());
	return [server, ...opened];
}

describe('saving', () => {
	it('three windows, a lossy line, restarts: every command once, nothing lost, all the same in the end', async () => {
		const day = async (seed: number) => {
			const [server, ...three] = await windows(3, seed);
			await badDay(server, three, seed, 120);
		};
		await fc.assert(fc.asyncProperty(fc.integer(), day), { numRuns: 40 });
	});

	it('undo leaves what another window has decided since', async () => {
		const [server, one, other] = (await windows(2)) as [MemoryServer, TestWindow, TestWindow];
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
		const [server, one, other] = (await windows(2)) as [MemoryServer, TestWindow, TestWindow];
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
		const [server, one, other] = (await windows(2)) as [MemoryServer, TestWindow, TestWindow];
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
		const [server, one] = (await windows(1)) as [MemoryServer, TestWindow];
		for (const value of ['1', '2', '3']) one.do(`to ${value}`, 'variants/oak/name', value);
		one.undo();
		await quiet(one);
		await one.start();
		expect([one.session.undoLabel, one.session.redoLabel]).to.deep.equal(['to 2', 'to 3']);
		one.undo();
		one.sender.add(one.session.redo()!);
		one.sender.add(one.session.redo()!);
		await quiet(one);
		expect(namesOf(server.document)[0]).to.equal('oak: 3');
	});

	it('older commands that come later reach further back, without those taken back meanwhile', async () => {
		const [server, one] = (await windows(1)) as [MemoryServer, TestWindow];
		const makeId = idsFrom(randomFrom(5));
		const writer = new Session(await server.open(), one.id, makeId);
		for (const value of ['1', '2', '3']) writer.do(`to ${value}`, [{ do: 'set', path: 'name', value }]);
		writer.undo();
		await server.save({ epoch: EPOCH, base: 0, commands: writer.pending });
		const opened = await server.open();
		const reader = new Session({ ...opened, history: opened.history.slice(-1) }, one.id, makeId);
		expect([reader.undoLabel, reader.redoLabel]).to.deep.equal([null, 'to 3']);
		reader.takeOlder(opened.history.slice(0, -1));
		expect([reader.undoLabel, reader.undoSteps]).to.deep.equal(['to 2', 2]);
	});

	it('a refused command alone is set aside; those before and after it are carried out', async () => {
		const [server, one] = (await windows(1)) as [MemoryServer, TestWindow];
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
		const [server, one] = (await windows(1)) as [MemoryServer, TestWindow];
		const replies: Reply[] = [
			{ kind: 'silence' },
			...[500, 502, 503, 429, 408, 404, 403].map((status): Reply => ({ kind: 'answer', status, body: null })),
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
		const [server, one] = (await windows(1)) as [MemoryServer, TestWindow];
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
		const [server, one] = (await windows(1)) as [MemoryServer, TestWindow];
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
		const [server, one] = (await windows(1)) as [MemoryServer, TestWindow];
		one.do('first', 'variants/oak/name', 'a');
		await quiet(one);
		server.document = { ...server.document, name: 'Changed behind the back' };
		one.do('second', 'variants/elm/name', 'b');
		await quiet(one);
		expect(one.session.document.name).to.equal('Changed behind the back');
		expect(namesOf(one.session.document).slice(0, 2)).to.deep.equal(['oak: a', 'elm: b']);
	});

	const mass = (id: string, bulge: number): Edit => ({
		do: 'insert',
		path: 'masses',
		index: 0,
		value: readProject({ ...START, masses: [importedMass(id, bulge)] }).masses[0]
	});

	it('large values go as files before their commands, over a lossy line and a closed window', async () => {
		const random = randomFrom(7);
		const [server, one, other] = (await windows(2)) as [MemoryServer, TestWindow, TestWindow];
		for (const window of [one, other])
			window.loss = () => (random() < 0.5 ? (random() < 0.5 ? 'request' : 'answer') : 'none');
		const edits = ['a', 'b', 'c', 'd'].map((id, k) => mass(id, 100 * (k % 3)));
		edits.forEach((edit, k) => one.edit(`mass ${k}`, edit));
		await turns(2);
		await one.start();
		one.undo();
		one.loss = other.loss = () => 'none';
		await quiet(one, other);
		expect(server.document.masses.map(({ id }) => id)).to.deep.equal(['c', 'b', 'a']);
		// Two masses are of one file; the document and the log hold none of it.
		expect(server.files.size).to.equal(3);
		expect(JSON.stringify([server.document, server.log]).length).to.be.lessThan(20_000);
		for (const [hash, { text }] of server.files) other.files.take(hash, text);
		const whole = other.files.wholeProject(other.session.document);
		expect(whole.masses[2]).to.deep.equal((edits[0] as { value: unknown }).value);
		expect(one.kept.size).to.equal(0);
	});

	it('a file is sent once, however many commands name it; after a server was put back, again', async () => {
		const [server, one] = (await windows(1)) as [MemoryServer, TestWindow];
		const backup = { document: server.document, log: [] };
		one.edit('mass', mass('a', 5));
		one.edit('copy', mass('b', 5));
		await quiet(one);
		one.edit('copy', mass('c', 5));
		await quiet(one);
		expect([...server.files.values()].map(({ times }) => times)).to.deep.equal([1]);
		server.files.clear();
		Object.assign(server, backup, { epoch: '00000000-0000-4000-8000-0000000000ff' });
		await quiet(one);
		expect(one.asides.map(({ label }) => label)).to.deep.equal(['mass', 'copy', 'copy']);
		// What was set aside is whole, and is taken up again.
		one.edit('mass', one.asides[0]!.edits[0]!);
		await quiet(one);
		expect(server.files.size).to.equal(1);
		expect(server.document.masses).to.have.length(1);
	});

	it('a command whose file the server does not take is set aside whole; what follows is saved', async () => {
		const [server, one] = (await windows(1)) as [MemoryServer, TestWindow];
		server.refusesFiles = 'the request is larger than the server takes';
		const edit = mass('a', 5);
		one.edit('mass', edit);
		one.do('after', 'variants/oak/name', 'x');
		await quiet(one);
		expect(namesOf(server.document)[0]).to.equal('oak: x');
		expect(one.asides).to.have.length(1);
		expect(one.asides[0]).to.deep.include({ label: 'mass', edits: [edit] });
		expect(one.asides[0]!.reason).to.match(/larger than the server takes/);
	});
});
