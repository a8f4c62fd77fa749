import { Files, filesIn } from '$core/project/files';
import type { Project } from '$core/project/schema';
import { paperKinds, type Lacking, type PaperKind } from '$lib/protocol';
import { spawn } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { constants, setPriority, tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Database } from './database';
import type { StoredFiles } from './files';
import { QueueLoop } from './queue-loop';
import { NotFound } from './refusals';

/** Between two looks for releases without papers (ms): of most it is told when they are made. */
const LOOK = 5000;
/** One that takes longer is broken off (ms). */
const LONGEST = 30 * 60_000;
/** Of what the program complains, so much is told. */
const MOST_TOLD = 400;

interface Waiting {
	readonly id: string;
	readonly project_id: string;
	readonly number: number;
	readonly document: object;
	readonly made_at: Date;
}

const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeZone: 'UTC' });
const formatsOf = paperKinds.map(({ format }) => format).join(',');

/**
 * Writes the papers of releases, drawings and schedules, in a process of its own: they take a minute and more, and
 * requests go on. What a release lacks is found in the database, so that nothing is lost when a server ends.
 */
export class Papers {
	private readonly loop = new QueueLoop(() => this.step(), LOOK);
	private now: string | null = null;
	/** Why those of a release could not be written. */
	private readonly failed = new Map<string, string>();

	/** @param program the command line that writes them; null where none are kept */
	constructor(
		private readonly db: Database,
		private readonly stored: StoredFiles,
		private readonly program: string | null
	) {}

	start(): void {
		if (this.program) this.loop.start();
	}

	/** A release has been made. */
	wake(): void {
		this.loop.wake();
	}

	stop(): Promise<void> {
		return this.loop.stop();
	}

	/** Try those of a release once more. @throws NotFound */
	async again(project: string, number: number): Promise<void> {
		this.failed.delete((await this.release(project, number)).id);
		this.wake();
	}

	/** Why papers of a release are not there. */
	lacking(release: string): Lacking {
		if (!this.program)
			return { is: 'none kept', says: 'This server keeps no drawings and schedules of releases' };
		const why = this.failed.get(release);
		if (why) return { is: 'failed', says: `Its drawings and schedules could not be written: ${why}` };
		return {
			is: 'coming',
			says: `Its drawings and schedules ${this.now === release ? 'are being written' : 'wait to be written'}`
		};
	}

	/** A paper of a release. @throws NotFound */
	async content(project: string, number: number, kind: PaperKind): Promise<Buffer> {
		const { id } = await this.release(project, number);
		const paper = await this.db
			.selectFrom('release_paper')
			.select('content')
			.where('release_id', '=', id)
			.where('kind', '=', kind)
			.executeTakeFirst();
		if (!paper) throw new NotFound(`release ${number} has no ${kind} yet`);
		return paper.content;
	}

	private async release(project: string, number: number): Promise<{ id: string }> {
		const found = await this.db
			.selectFrom('release')
			.select('id')
			.where('project_id', '=', project)
			.where('number', '=', number)
			.executeTakeFirst();
		if (!found) throw new NotFound(`there is no release ${number}`);
		return found;
	}

	private async step(): Promise<boolean> {
		try {
			const next = await this.next();
			if (next) await this.write(next);
			return next !== null;
		} catch (error) {
			// The database does not answer for the moment.
			console.error('the papers of releases wait:', (error as Error).message);
			return false;
		}
	}

	/** The newest release without papers: somebody may be waiting for it. */
	private async next(): Promise<Waiting | null> {
		const failed = [...this.failed.keys()];
		let query = this.db
			.selectFrom('release')
			.select(['id', 'project_id', 'number', 'document', 'made_at'])
			.where(({ not, exists, selectFrom }) =>
				not(exists(selectFrom('release_paper').select('kind').whereRef('release_id', '=', 'release.id')))
			)
			.orderBy('made_at', 'desc')
			.limit(1);
		if (failed.length) query = query.where('id', 'not in', failed);
		return (await query.executeTakeFirst()) ?? null;
	}

	private async write({ id, number, document, made_at }: Waiting): Promise<void> {
		this.now = id;
		const folder = await mkdtemp(join(tmpdir(), 'papers-'));
		try {
			const files = new Files();
			for (const hash of filesIn(document).keys()) files.take(hash, await this.stored.text(hash));
			await writeFile(join(folder, 'release.json'), JSON.stringify(files.wholeProject(document as Project)));
			const released = `${number}, ${day.format(made_at)}`;
			await this.carryOut(folder, [
				...['--formats', formatsOf, '--at', made_at.toISOString().slice(0, 19), '--released', released]
			]);
			const papers = await Promise.all(
				paperKinds.map(async ({ kind, ending }) => {
					const content = await readFile(join(folder, `release${ending}`));
					const sha256 = createHash('sha256').update(content).digest('hex');
					return { release_id: id, kind, sha256, size: content.length, content };
				})
			);
			await this.db
				.insertInto('release_paper')
				.values(papers)
				.onConflict((conflict) => conflict.doNothing())
				.execute();
		} catch (error) {
			if (this.loop.isGoing) this.failed.set(id, (error as Error).message.slice(0, MOST_TOLD));
		} finally {
			this.now = null;
			await rm(folder, { recursive: true, force: true });
		}
	}

	/** The command line on a release, after everything else that runs here. @throws Error with what it complains of */
	private carryOut(folder: string, options: readonly string[]): Promise<void> {
		const args = [this.program!, 'build', join(folder, 'release.json'), '--out', folder, ...options];
		return new Promise((resolve, reject) => {
			const child = spawn(process.execPath, args, {
				stdio: ['ignore', 'ignore', 'pipe'],
				signal: this.loop.ended,
				timeout: LONGEST
			});
			let complaint = '';
			child.stderr.on(
				'data',
				(part: Buffer) => (complaint = (complaint + part.toString()).slice(-MOST_TOLD))
			);
			child.once('spawn', () => setPriority(child.pid!, constants.priority.PRIORITY_BELOW_NORMAL));
			child.once('error', reject);
			child.once('exit', (code, signal) => {
				if (code === 0) resolve();
				else reject(new Error(complaint.trim() || `the program ended with ${signal ?? code}`));
			});
		});
	}
}
