import type { Files } from '$core/project/files';
import { sentSchema, type SentCommand } from '$core/project/log';
import { z } from 'zod';
import type { Keeper } from './sender';
import type { SetAside } from './session';

/**
 * What a window has not saved yet, in the browser's own database: one row per command, keyed by project and
 * command, written before it is sent and taken out when the server has it.
 */
const NAME = 'zygaster';
const PENDING = 'pending';
const ASIDE = 'aside';
const WINDOWS = 'windows';
/** Windows that have not been seen for so long are forgotten, their undo with them. */
const FORGET_WINDOW_MS = 90 * 24 * 3600 * 1000;

interface PendingRow {
	project: string;
	id: string;
	window: string;
	/** Commands are sent in this order. */
	order: number;
	command: unknown;
	/** Files that it names, by hash; the server may not have them yet. */
	files?: Record<string, string>;
}
interface WindowRow {
	project: string;
	window: string;
	seen: number;
}

const asideSchema = z.object({
	project: z.string(),
	id: z.string(),
	label: z.string(),
	edits: z.array(z.unknown()),
	reason: z.string()
});

function openDatabase(): Promise<IDBDatabase> {
	return new Promise((resolve, reject) => {
		const request = indexedDB.open(NAME, 1);
		request.onupgradeneeded = () => {
			for (const [store, key] of [
				[PENDING, 'id'],
				[ASIDE, 'id'],
				[WINDOWS, 'window']
			] as const)
				request.result.createObjectStore(store, { keyPath: ['project', key] });
		};
		request.onsuccess = () => resolve(request.result);
		request.onerror = () => reject(request.error ?? new Error('the browser keeps nothing'));
		request.onblocked = () => reject(new Error('another window holds an older store'));
	});
}

function ended(transaction: IDBTransaction): Promise<void> {
	return new Promise((resolve, reject) => {
		transaction.oncomplete = () => resolve();
		transaction.onabort = transaction.onerror = () =>
			reject(transaction.error ?? new Error('the browser could not keep it'));
	});
}

function rows(request: IDBRequest<unknown[]>): Promise<unknown[]> {
	return new Promise((resolve, reject) => {
		request.onsuccess = () => resolve(request.result);
		request.onerror = () => reject(request.error ?? new Error('the browser could not read it'));
	});
}

/** Locks of this page: a project that is opened in it once more goes on as the same window. */
const held = new Set<string>();

/** Held for the life of the page; whether it was free. Where the browser has no locks, everything is free. */
function takeLock(window: string): Promise<boolean> {
	if (!navigator.locks || held.has(window)) return Promise.resolve(true);
	return new Promise((resolve) => {
		void navigator.locks.request(`zygaster window ${window}`, { ifAvailable: true }, (lock) => {
			if (lock) held.add(window);
			resolve(lock !== null);
			return lock ? new Promise<void>(() => {}) : undefined;
		});
	});
}

/** A random UUID; `crypto.randomUUID` is missing where the page is not served securely. */
export function makeId(): string {
	const bytes = crypto.getRandomValues(new Uint8Array(16));
	bytes[6] = (bytes[6]! & 0x0f) | 0x40;
	bytes[8] = (bytes[8]! & 0x3f) | 0x80;
	const hex = [...bytes].map((byte) => byte.toString(16).padStart(2, '0')).join('');
	return [8, 12, 16, 20, 32].map((end, k) => hex.slice([0, 8, 12, 16, 20][k], end)).join('-');
}

const sessionKey = (project: string) => `zygaster window ${project}`;

/** A command that was kept, its files taken in; null when they are not what was kept. */
function withFiles(command: SentCommand, row: PendingRow, files: Files): SentCommand | null {
	try {
		for (const [hash, text] of Object.entries(row.files ?? {})) files.take(hash, text);
		return files.detach(command);
	} catch {
		return null;
	}
}

/** Keeps the commands of one project in this browser. */
export class BrowserKeeper implements Keeper {
	/** Who writes: kept over a reload; a window opened anew goes on as the one that was closed last. */
	window = makeId();
	/** Commands that could not be kept: closing the window would lose them. */
	readonly unkept = new Set<string>();
	private database: IDBDatabase | null = null;
	private order = Date.now() * 1000;

	constructor(private readonly project: string) {}

	private get all(): IDBKeyRange {
		return IDBKeyRange.bound([this.project], [this.project, []]);
	}

	/**
	 * Open the store and take over what windows that are closed have left.
	 * @param files takes in the files of what was left
	 * @returns commands to be sent and commands set aside; neither when the browser keeps nothing
	 */
	async open(files: Files): Promise<{ pending: SentCommand[]; aside: SetAside[] }> {
		try {
			this.database = await openDatabase();
			const reading = this.database.transaction([PENDING, ASIDE, WINDOWS]);
			const [pending, aside, windows] = await Promise.all([
				rows(reading.objectStore(PENDING).getAll(this.all)) as Promise<PendingRow[]>,
				rows(reading.objectStore(ASIDE).getAll(this.all)),
				rows(reading.objectStore(WINDOWS).getAll(this.all)) as Promise<WindowRow[]>
			]);
			await this.chooseWindow(windows);
			const mine = new Map([[this.window, true]]);
			const orphans: PendingRow[] = [];
			for (const row of [...pending].sort((a, b) => a.order - b.order)) {
				if (!mine.has(row.window)) mine.set(row.window, await takeLock(row.window));
				if (mine.get(row.window)) orphans.push(row);
			}
			return await this.sorted(orphans, aside, files);
		} catch {
			return { pending: [], aside: [] };
		}
	}

	/** What can be read is pending; what cannot (half written, of a later version) is set aside as it is. */
	private async sorted(pending: readonly PendingRow[], aside: readonly unknown[], files: Files) {
		const commands: SentCommand[] = [];
		const asides: SetAside[] = [];
		for (const row of pending) {
			const read = sentSchema.safeParse(row.command);
			const command = read.success ? withFiles(read.data, row, files) : null;
			if (command) commands.push(command);
			else
				asides.push({
					id: row.id,
					label: String((row.command as { label?: unknown } | null)?.label ?? 'a change'),
					edits: [],
					reason: `what the browser kept of it cannot be read: ${JSON.stringify(row.command)?.slice(0, 200)}`
				});
		}
		if (asides.length) {
			await this.keepAside(asides);
			await this.forget(asides.map(({ id }) => id));
		}
		for (const row of aside) {
			const read = asideSchema.safeParse(row);
			if (read.success) asides.push({ ...read.data, edits: read.data.edits as SetAside['edits'] });
		}
		return { pending: commands, aside: asides };
	}

	private async chooseWindow(known: readonly WindowRow[]): Promise<void> {
		const latest = [...known].sort((a, b) => b.seen - a.seen).map(({ window }) => window);
		const before = sessionStorage.getItem(sessionKey(this.project));
		for (const candidate of before ? [before, ...latest] : latest)
			if (await takeLock(candidate)) {
				this.window = candidate;
				break;
			}
		if (!latest.includes(this.window) && this.window !== before) await takeLock(this.window);
		sessionStorage.setItem(sessionKey(this.project), this.window);
		const now = Date.now();
		await this.write(WINDOWS, (store) => {
			store.put({ project: this.project, window: this.window, seen: now } satisfies WindowRow);
			for (const { window, seen } of known)
				if (window !== this.window && now - seen > FORGET_WINDOW_MS) store.delete([this.project, window]);
		});
	}

	private async write(name: string, act: (store: IDBObjectStore) => void): Promise<void> {
		if (!this.database) throw new Error('the browser keeps nothing');
		const transaction = this.database.transaction(name, 'readwrite', { durability: 'strict' });
		const done = ended(transaction);
		act(transaction.objectStore(name));
		await done;
	}

	async keep(command: SentCommand, files: ReadonlyMap<string, string>): Promise<void> {
		this.unkept.add(command.id);
		const { project, window } = this;
		const row: PendingRow = {
			project,
			id: command.id,
			window,
			order: ++this.order,
			command,
			files: Object.fromEntries(files)
		};
		try {
			await this.write(PENDING, (store) => store.put(row));
			this.unkept.delete(command.id);
		} catch {
			// It stays among those that are asked about before the window closes.
		}
	}

	async forget(ids: readonly string[]): Promise<void> {
		for (const id of ids) this.unkept.delete(id);
		if (!ids.length) return;
		// What is not forgotten is sent once more, and the server knows it by its id.
		await this.write(PENDING, (store) => {
			for (const id of ids) store.delete([this.project, id]);
		}).catch(() => {});
	}

	async keepAside(asides: readonly SetAside[]): Promise<void> {
		await this.write(ASIDE, (store) => {
			for (const aside of asides) store.put({ project: this.project, ...aside });
		}).catch(() => {
			for (const { id } of asides) this.unkept.add(id);
		});
	}

	async dropAside(id: string): Promise<void> {
		this.unkept.delete(id);
		await this.write(ASIDE, (store) => store.delete([this.project, id])).catch(() => {});
	}
}
