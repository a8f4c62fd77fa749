import { randomUUID } from 'node:crypto';
import { applyCommand, commandSchema, type Edit } from '$core/project/commands';
import { readProject } from '$core/project/read';
import type { Project } from '$core/project/schema';
import { sql } from 'kysely';
import { z } from 'zod';
import type { Database } from './database';

/** Until there are accounts, everything belongs to the person at this machine. */
export const LOCAL_OWNER = 'local';

export interface ProjectCard {
	id: string;
	name: string;
	pieces: number;
	changedAt: string;
	hasPicture: boolean;
}

/** A command as it is kept: what it did, what takes it back, and the revision it made. */
export interface SavedEdit {
	revision: number;
	kind: 'do' | 'undo' | 'redo';
	label: string;
	edits: Edit[];
	inverse: Edit[];
	author: string;
	madeAt: string;
}

export interface OpenedProject {
	id: string;
	revision: number;
	document: Project;
	/** All commands, oldest first: what undo can take back. */
	history: SavedEdit[];
}

/** The document has moved on: what came meanwhile, oldest first. */
export class Conflict extends Error {
	constructor(
		readonly revision: number,
		readonly since: SavedEdit[]
	) {
		super('the project has changed meanwhile');
	}
}
export class NotFound extends Error {}

export const editsRequestSchema = z.strictObject({
	base: z.number().int().min(0),
	commands: z
		.array(commandSchema.extend({ kind: z.enum(['do', 'undo', 'redo']) }))
		.min(1)
		.max(500)
});
export type EditsRequest = z.infer<typeof editsRequestSchema>;

/** Of old documents every so many are kept whole. */
const SNAPSHOT_EVERY = 100;
const uuid = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/;

export class Projects {
	constructor(private readonly db: Database) {}

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

	async create(
		document: Project,
		computed: { pieces: number; picture: string | null } = { pieces: 0, picture: null }
	): Promise<string> {
		const id = randomUUID();
		await this.db.transaction().execute(async (trx) => {
			await trx
				.insertInto('project')
				.values({ id, owner: LOCAL_OWNER, name: document.name, revision: 0, ...computed })
				.execute();
			await trx
				.insertInto('project_document')
				.values({ project_id: id, revision: 0, document: JSON.stringify(document) })
				.execute();
		});
		return id;
	}

	async duplicate(id: string): Promise<string> {
		const { document } = await this.open(id);
		const source = await this.row(id);
		return this.create(
			{ ...document, name: `${document.name} (copy)`.slice(0, 120) },
			{ pieces: source.pieces, picture: source.picture }
		);
	}

	private async row(id: string) {
		if (!uuid.test(id)) throw new NotFound('there is no such project');
		const row = await this.db
			.selectFrom('project')
			.selectAll()
			.where('id', '=', id)
			.where('deleted_at', 'is', null)
			.executeTakeFirst();
		if (!row) throw new NotFound('there is no such project');
		return row;
	}

	async open(id: string): Promise<OpenedProject> {
		const { revision } = await this.row(id);
		const { document } = await this.db
			.selectFrom('project_document')
			.select('document')
			.where('project_id', '=', id)
			.where('revision', '=', revision)
			.executeTakeFirstOrThrow();
		const history = await this.edits(id, 0);
		return { id, revision, document: readProject(document), history };
	}

	/** Commands after a revision, oldest first. */
	private async edits(id: string, after: number): Promise<SavedEdit[]> {
		const rows = await this.db
			.selectFrom('project_edit')
			.selectAll()
			.where('project_id', '=', id)
			.where('revision', '>', after)
			.orderBy('revision')
			.execute();
		return rows.map((row) => ({
			revision: row.revision,
			kind: row.kind,
			label: row.label,
			edits: row.edits,
			inverse: row.inverse,
			author: row.author,
			madeAt: row.made_at.toISOString()
		}));
	}

	/**
	 * Apply commands to the revision they were made on; each makes a revision of its own.
	 * @throws Conflict when the project has moved on, CommandError or DocumentError when one does not fit
	 */
	async save(id: string, { base, commands }: EditsRequest): Promise<number> {
		await this.row(id);
		return this.db.transaction().execute(async (trx) => {
			const { revision } = await trx
				.selectFrom('project')
				.select('revision')
				.where('id', '=', id)
				.forUpdate()
				.executeTakeFirstOrThrow();
			if (revision !== base) throw new Conflict(revision, await this.edits(id, base));
			const stored = await trx
				.selectFrom('project_document')
				.select('document')
				.where('project_id', '=', id)
				.where('revision', '=', revision)
				.executeTakeFirstOrThrow();
			let document = readProject(stored.document);
			let next = revision;
			for (const { kind, ...command } of commands) {
				const applied = applyCommand(document, command);
				document = applied.project;
				next++;
				await trx
					.insertInto('project_edit')
					.values({
						project_id: id,
						revision: next,
						kind,
						label: command.label,
						edits: JSON.stringify(command.edits),
						inverse: JSON.stringify(applied.inverse.edits),
						author: LOCAL_OWNER
					})
					.execute();
				await trx
					.insertInto('project_document')
					.values({ project_id: id, revision: next, document: JSON.stringify(document) })
					.execute();
			}
			// Documents can be large and every one follows from an earlier one and the commands since.
			await trx
				.deleteFrom('project_document')
				.where('project_id', '=', id)
				.where('revision', '<', next)
				.where(sql<boolean>`revision % ${SNAPSHOT_EVERY} <> 0`)
				.execute();
			await trx
				.updateTable('project')
				.set({ revision: next, name: document.name, changed_at: new Date() })
				.where('id', '=', id)
				.execute();
			return next;
		});
	}

	async setPicture(id: string, picture: string, pieces: number): Promise<void> {
		await this.row(id);
		await this.db.updateTable('project').set({ picture, pieces }).where('id', '=', id).execute();
	}

	async picture(id: string): Promise<string> {
		const { picture } = await this.row(id);
		if (!picture) throw new NotFound('there is no picture yet');
		return picture;
	}

	async remove(id: string): Promise<void> {
		await this.row(id);
		await this.db.updateTable('project').set({ deleted_at: new Date() }).where('id', '=', id).execute();
	}

	async restore(id: string): Promise<void> {
		if (!uuid.test(id)) throw new NotFound('there is no such project');
		await this.db.updateTable('project').set({ deleted_at: null }).where('id', '=', id).execute();
	}

	/** Do something once in this database's life. */
	async once(milestone: string, act: () => Promise<unknown>): Promise<void> {
		const known = await this.db
			.selectFrom('milestone')
			.select('name')
			.where('name', '=', milestone)
			.executeTakeFirst();
		if (known) return;
		await act();
		await this.db.insertInto('milestone').values({ name: milestone }).execute();
	}
}
