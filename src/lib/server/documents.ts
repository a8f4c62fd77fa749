import { applyEdits } from '$core/project/commands';
import { readProject } from '$core/project/read';
import type { Project } from '$core/project/schema';
import type { Connection, Database } from './database';

interface Held {
	readonly epoch: string;
	readonly revision: number;
	readonly document: Project;
	readonly bytes: number;
}

/** Of JSON text, over all documents held. */
const MOST_HELD_BYTES = 100_000_000;
/** A snapshot is due after so many commands, if they come to a share of the document; at the latest after these. */
const SNAPSHOT_COMMANDS = 200;
const SNAPSHOT_SHARE = 0.05;
const SNAPSHOT_LATEST = 2000;
const PAGE = 500;

/**
 * Documents at their revisions: the newest snapshot with the commands since on top.
 * The last one of each project is held, so that the cost of a save follows the edit; what is held is only ever
 * taken forward by what the database says, so any number of servers may hold their own.
 */
export class Documents {
	private readonly held = new Map<string, Held>();

	constructor(private readonly db: Database) {}

	/** The document at a revision. @param epoch the database's, read on the same connection */
	async at(connection: Connection, epoch: string, project: string, revision: number): Promise<Project> {
		const start = await this.startFor(connection, epoch, project, revision);
		let { document } = start;
		for (let reached = start.revision; reached < revision;) {
			const rows = await connection
				.selectFrom('project_edit')
				.select(['revision', 'edits'])
				.where('project_id', '=', project)
				.where('revision', '>', reached)
				.where('revision', '<=', revision)
				.orderBy('revision')
				.limit(PAGE)
				.execute();
			if (!rows.length) throw new Error(`project ${project}: commands after revision ${reached} are missing`);
			for (const { edits } of rows) document = applyEdits(document, edits).project;
			reached = rows.at(-1)!.revision;
		}
		this.hold(project, { epoch, revision, document, bytes: start.bytes });
		return document;
	}

	/** Commands were carried out, and the database has them. */
	advance(project: string, epoch: string, revision: number, document: Project): void {
		this.hold(project, { epoch, revision, document, bytes: this.held.get(project)?.bytes ?? 0 });
	}

	private async startFor(
		connection: Connection,
		epoch: string,
		project: string,
		revision: number
	): Promise<Held> {
		const held = this.held.get(project);
		const last = await connection
			.selectFrom('project_document')
			.select(['revision', 'bytes'])
			.where('project_id', '=', project)
			.where('revision', '<=', revision)
			.orderBy('revision', 'desc')
			.limit(1)
			.executeTakeFirstOrThrow();
		if (held && held.epoch === epoch && held.revision <= revision && held.revision >= last.revision)
			return held;
		const { document } = await connection
			.selectFrom('project_document')
			.select('document')
			.where('project_id', '=', project)
			.where('revision', '=', last.revision)
			.executeTakeFirstOrThrow();
		return { epoch, document: readProject(document), ...last };
	}

	/** Hold a document that the database has; an older one of a past state does not take its place. */
	private hold(project: string, next: Held): void {
		const now = this.held.get(project);
		if (now && now.epoch === next.epoch && now.revision > next.revision) return;
		this.held.delete(project);
		this.held.set(project, next);
		let bytes = 0;
		for (const one of this.held.values()) bytes += one.bytes;
		for (const [oldest, one] of this.held) {
			if (bytes <= MOST_HELD_BYTES || oldest === project) break;
			this.held.delete(oldest);
			bytes -= one.bytes;
		}
	}

	/**
	 * Keep a whole document again where the commands since the last come to enough. In a transaction of its own,
	 * after the answer: when it fails, the commands are still there and it is due again.
	 */
	async snapshotIfDue(project: string, revision: number, document: Project): Promise<void> {
		const last = await this.db
			.selectFrom('project_document')
			.innerJoin('project', 'project.id', 'project_document.project_id')
			.select(['project_document.revision', 'bytes', 'bytes_since_snapshot'])
			.where('project_id', '=', project)
			.orderBy('project_document.revision', 'desc')
			.limit(1)
			.executeTakeFirst();
		if (!last) return;
		const commands = revision - last.revision;
		const enough =
			commands >= SNAPSHOT_COMMANDS && Number(last.bytes_since_snapshot) >= last.bytes * SNAPSHOT_SHARE;
		if (!enough && commands < SNAPSHOT_LATEST) return;
		const text = JSON.stringify(document);
		await this.db.transaction().execute(async (trx) => {
			await trx
				.insertInto('project_document')
				.values({ project_id: project, revision, document: text, bytes: text.length })
				.onConflict((conflict) => conflict.doNothing())
				.execute();
			await trx.updateTable('project').set({ bytes_since_snapshot: 0 }).where('id', '=', project).execute();
		});
	}
}

/** The database's epoch, as this connection sees it. */
export async function epochOf(connection: Connection): Promise<string> {
	const { id } = await connection
		.selectFrom('database_epoch')
		.select('id')
		.orderBy('began_at', 'desc')
		.limit(1)
		.executeTakeFirstOrThrow();
	return id;
}

/** Read several things as they were at one moment, over one connection. */
export function snapshot<T>(db: Database, act: (connection: Connection) => Promise<T>): Promise<T> {
	return db.transaction().setIsolationLevel('repeatable read').setAccessMode('read only').execute(act);
}
