import { Files, filesIn, hashOfFile, readFile, type FileKind } from '$core/project/files';
import { sql } from 'kysely';
import type { Connection, Database } from './database';
import { NotFound, Refused } from './refusals';

/** Files of one insertion: their texts go to the database together. */
const PAGE = 20;

/** The files of this server: each once, by its hash, for all projects that name it. */
export class StoredFiles {
	constructor(private readonly db: Database) {}

	/** Keep a file. @param content parsed JSON @throws Refused when it is not the file of that name, DocumentError when it is none of ours */
	async put(hash: string, content: unknown): Promise<void> {
		const { text } = readFile(content);
		if (hashOfFile(text) !== hash) throw new Refused(400, `what was sent is not the file ${hash}`);
		await keepFiles(this.db, new Map([[hash, text]]));
	}

	/** The text of a file. @throws NotFound */
	async text(hash: string): Promise<string> {
		const row = await this.db
			.selectFrom('file')
			.select('content')
			.where('hash', '=', hash)
			.executeTakeFirst();
		if (!row) throw new NotFound('there is no such file');
		return row.content;
	}
}

async function keepFiles(db: Database | Connection, texts: ReadonlyMap<string, string>): Promise<void> {
	const rows = [...texts].map(([hash, content]) => ({ hash, kind: kindOf(content), content }));
	for (let k = 0; k < rows.length; k += PAGE)
		await db
			.insertInto('file')
			.values(rows.slice(k, k + PAGE))
			.onConflict((conflict) => conflict.doNothing())
			.execute();
}

/** The one key that a file's text begins with. */
const kindOf = (text: string) => text.slice(2, text.indexOf('"', 2)) as FileKind;

/** Put a value's large ones into files of the database. @returns the value that names them */
export async function detachInto<T>(connection: Database | Connection, value: T): Promise<T> {
	const files = new Files();
	const detached = files.detach(value);
	if (detached === value) return value;
	const named = [...filesIn(detached).keys()].filter((hash) => files.has(hash));
	await keepFiles(connection, new Map(named.map((hash) => [hash, files.text(hash)!])));
	return detached;
}

/** Files that a value names and the database does not have as what they are to be. */
export async function missingOn(
	connection: Database | Connection,
	wanted: ReadonlyMap<string, FileKind>
): Promise<string[]> {
	if (!wanted.size) return [];
	const rows = await connection
		.selectFrom('file')
		.select(['hash', 'kind'])
		.where('hash', 'in', [...wanted.keys()])
		.execute();
	const there = new Map(rows.map(({ hash, kind }) => [hash, kind]));
	return [...wanted].filter(([hash, kind]) => there.get(hash) !== kind).map(([hash]) => hash);
}

const MOVED = 'large values in files';
/** JSON of so many bytes may hold a value that belongs in a file. */
const MAYBE_LARGE_BYTES = 16_000;

/** Databases from before there were files: what is large in their documents and commands is moved, once. */
export async function moveLargeValues(db: Database): Promise<void> {
	const done = await db.selectFrom('milestone').select('name').where('name', '=', MOVED).executeTakeFirst();
	if (done) return;
	const documents = await db
		.selectFrom('project_document')
		.select(['project_id', 'revision'])
		.where('bytes', '>=', MAYBE_LARGE_BYTES)
		.execute();
	for (const one of documents) await moveInDocument(db, one.project_id, one.revision);
	const edits = await db
		.selectFrom('project_edit')
		.select(['project_id', 'revision'])
		.where(sql<number>`octet_length(edits::text) + octet_length(inverse::text)`, '>=', MAYBE_LARGE_BYTES)
		.execute();
	for (const one of edits) await moveInEdits(db, one.project_id, one.revision);
	await db
		.insertInto('milestone')
		.values({ name: MOVED })
		.onConflict((conflict) => conflict.doNothing())
		.execute();
}

async function moveInDocument(db: Database, project: string, revision: number): Promise<void> {
	await db.transaction().execute(async (connection) => {
		const { document } = await connection
			.selectFrom('project_document')
			.select('document')
			.where('project_id', '=', project)
			.where('revision', '=', revision)
			.executeTakeFirstOrThrow();
		const moved = await detachInto(connection, document);
		if (moved === document) return;
		const text = JSON.stringify(moved);
		await connection
			.updateTable('project_document')
			.set({ document: text, bytes: text.length })
			.where('project_id', '=', project)
			.where('revision', '=', revision)
			.execute();
	});
}

async function moveInEdits(db: Database, project: string, revision: number): Promise<void> {
	await db.transaction().execute(async (connection) => {
		const row = await connection
			.selectFrom('project_edit')
			.select(['edits', 'inverse'])
			.where('project_id', '=', project)
			.where('revision', '=', revision)
			.executeTakeFirstOrThrow();
		const edits = await detachInto(connection, row.edits);
		const inverse = await detachInto(connection, row.inverse);
		if (edits === row.edits && inverse === row.inverse) return;
		await connection
			.updateTable('project_edit')
			.set({ edits: JSON.stringify(edits), inverse: JSON.stringify(inverse) })
			.where('project_id', '=', project)
			.where('revision', '=', revision)
			.execute();
	});
}
