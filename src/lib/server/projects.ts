import { randomUUID } from 'node:crypto';
import { DocumentError } from '$core/project/faults';
import { filesIn } from '$core/project/files';
import { hashOf } from '$core/project/hash';
import type { Project } from '$core/project/schema';
import {
	HISTORY_PAGE,
	type HistoryEntry,
	type OpenedProject,
	type ProjectCard,
	type SavedCommand
} from '$lib/protocol';
import type { Connection, Database } from './database';
import { epochOf, snapshot, type Documents } from './documents';
import { detachInto, missingOn } from './files';
import { commandsBefore, entriesBefore } from './history';
import { NotFound } from './refusals';
import { LOCAL_OWNER } from './saving';

const MOST_NAME = 120;

/** What a project came to when it was computed last. */
interface Computed {
	readonly pieces: number;
	readonly picture: string | null;
}

/** The projects of this server: listed, opened, copied, deleted and brought back. */
export class Projects {
	constructor(
		private readonly db: Database,
		private readonly documents: Documents
	) {}

	async list(): Promise<ProjectCard[]> {
		const rows = await this.db
			.selectFrom('project')
			.select(['id', 'name', 'pieces', 'changed_at'])
			.select((eb) => eb('picture', 'is not', null).as('has_picture'))
			.where('owner', '=', LOCAL_OWNER)
			.where('deleted_at', 'is', null)
			.orderBy('changed_at', 'desc')
			.execute();
		return rows.map((row) => ({
			id: row.id,
			name: row.name,
			pieces: row.pieces,
			changedAt: row.changed_at.toISOString(),
			hasPicture: Boolean(row.has_picture)
		}));
	}

	/** @throws DocumentError when it names files that are not here */
	async create(document: Project, computed: Computed = { pieces: 0, picture: null }): Promise<string> {
		return this.db.transaction().execute((connection) => this.insert(connection, document, computed));
	}

	private async insert(connection: Connection, document: Project, computed: Computed): Promise<string> {
		const missing = await missingOn(connection, filesIn(document));
		if (missing.length)
			throw new DocumentError([`the project names files that are not on this server: ${missing.join(', ')}`]);
		const id = randomUUID();
		const text = JSON.stringify(await detachInto(connection, document));
		await connection
			.insertInto('project')
			.values({ id, owner: LOCAL_OWNER, name: document.name, revision: 0, ...computed })
			.execute();
		await connection
			.insertInto('project_document')
			.values({ project_id: id, revision: 0, document: text, bytes: text.length })
			.execute();
		return id;
	}

	/** A copy of a project as it is, or as it was at a revision. @throws NotFound */
	async duplicate(id: string, revision?: number): Promise<string> {
		const { row, document } = await snapshot(this.db, (connection) => this.stateOn(connection, id, revision));
		const copy = { ...document, id: randomUUID(), name: `${document.name.slice(0, MOST_NAME - 7)} (copy)` };
		const isNow = revision === undefined || revision === row.revision;
		return this.create(copy, isNow ? { pieces: row.pieces, picture: row.picture } : undefined);
	}

	private async rowOn(connection: Connection, id: string) {
		const row = await connection
			.selectFrom('project')
			.selectAll()
			.where('id', '=', id)
			.where('deleted_at', 'is', null)
			.executeTakeFirst();
		if (!row) throw new NotFound('there is no such project');
		return row;
	}

	private async stateOn(connection: Connection, id: string, revision?: number) {
		const row = await this.rowOn(connection, id);
		if (revision !== undefined && revision > row.revision)
			throw new NotFound(`there is no revision ${revision}; the newest is ${row.revision}`);
		const epoch = await epochOf(connection);
		const document = await this.documents.at(connection, epoch, id, revision ?? row.revision);
		return { row, epoch, document };
	}

	/** The document and its newest commands, as they were at one moment. @throws NotFound */
	async open(id: string): Promise<OpenedProject> {
		return snapshot(this.db, async (connection) => {
			const { row, epoch, document } = await this.stateOn(connection, id);
			const history = await commandsBefore(connection, id, row.revision + 1, HISTORY_PAGE);
			return { id, epoch, revision: row.revision, hash: hashOf(document), document, history };
		});
	}

	/** The document as it was at a revision. @throws NotFound */
	async state(id: string, revision: number): Promise<Project> {
		return snapshot(this.db, async (connection) => (await this.stateOn(connection, id, revision)).document);
	}

	/** Commands before a revision, the newest of them, oldest first. @throws NotFound */
	async commands(id: string, before: number): Promise<SavedCommand[]> {
		return snapshot(this.db, async (connection) => {
			await this.rowOn(connection, id);
			return commandsBefore(connection, id, before, HISTORY_PAGE);
		});
	}

	/** Who did what and when before a revision, newest first. @throws NotFound */
	async history(id: string, before: number): Promise<HistoryEntry[]> {
		return snapshot(this.db, async (connection) => {
			await this.rowOn(connection, id);
			return entriesBefore(connection, id, before, HISTORY_PAGE);
		});
	}

	async setPicture(id: string, picture: string, pieces: number): Promise<void> {
		await this.change(id, { picture, pieces });
	}

	async picture(id: string): Promise<string> {
		const row = await this.db
			.selectFrom('project')
			.select('picture')
			.where('id', '=', id)
			.where('deleted_at', 'is', null)
			.executeTakeFirst();
		if (!row?.picture) throw new NotFound(row ? 'there is no picture yet' : 'there is no such project');
		return row.picture;
	}

	async remove(id: string): Promise<void> {
		await this.change(id, { deleted_at: new Date() });
	}

	private async change(
		id: string,
		values: { picture: string; pieces: number } | { deleted_at: Date }
	): Promise<void> {
		const { numUpdatedRows } = await this.db
			.updateTable('project')
			.set(values)
			.where('id', '=', id)
			.where('deleted_at', 'is', null)
			.executeTakeFirst();
		if (!numUpdatedRows) throw new NotFound('there is no such project');
	}

	/** Bring a deleted project back. @throws NotFound */
	async restore(id: string): Promise<void> {
		const { numUpdatedRows } = await this.db
			.updateTable('project')
			.set({ deleted_at: null })
			.where('id', '=', id)
			.executeTakeFirst();
		if (!numUpdatedRows) throw new NotFound('there is no such project');
	}

	/**
	 * Add a project once in this database's life, whoever else wants to at the same time. What takes long is made before
	 * the transaction: none waits for it.
	 * @param make is asked only where it has not been added yet
	 */
	async addOnce(milestone: string, make: () => Promise<readonly [Project, Computed]>): Promise<void> {
		const known = await this.db
			.selectFrom('milestone')
			.select('name')
			.where('name', '=', milestone)
			.executeTakeFirst();
		if (known) return;
		const [document, computed] = await make();
		await this.db.transaction().execute(async (connection) => {
			const { numInsertedOrUpdatedRows } = await connection
				.insertInto('milestone')
				.values({ name: milestone })
				.onConflict((conflict) => conflict.doNothing())
				.executeTakeFirst();
			if (numInsertedOrUpdatedRows) await this.insert(connection, document, computed);
		});
	}
}
