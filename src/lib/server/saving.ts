import { CommandError, DocumentError, faultsOf, MOST_FAULTS_TOLD } from '$core/project/faults';
import { Files, filesIn } from '$core/project/files';
import { hashOf } from '$core/project/hash';
import { carryOut, Overtaken, sentSchema, type Done, type Past, type SentCommand } from '$core/project/log';
import type { Project } from '$core/project/schema';
import { MOST_TOLD, type SaveAnswer, type SaveRequest } from '$lib/protocol';
import { sql } from 'kysely';
import type { Connection, Database } from './database';
import { epochOf, snapshot, type Documents } from './documents';
import { missingOn } from './files';
import { savedCommand } from './history';
import { OutOfStep, NotFound } from './refusals';

/** Until there are accounts, everything belongs to the person at this machine. */
export const LOCAL_OWNER = 'local';

interface Reading {
	readonly commands: SentCommand[];
	readonly refused: SaveAnswer['refused'];
}

/** Each command by itself: one that cannot be read does not keep the others from being carried out. */
function readCommands(sent: readonly unknown[]): Reading {
	const commands: SentCommand[] = [];
	const refused: SaveAnswer['refused'] = [];
	for (const one of sent) {
		const read = sentSchema.safeParse(one);
		if (read.success) commands.push(read.data);
		else {
			const id = (one as { id?: unknown } | null)?.id;
			const message = faultsOf(read.error.issues, []).slice(0, MOST_FAULTS_TOLD).join('; ');
			// One without a name cannot be told apart from others: the request as it is cannot be answered.
			if (typeof id !== 'string') throw new DocumentError([`a command without an id: ${message}`]);
			refused.push({ id, message, overtaken: false });
		}
	}
	return { commands, refused };
}

/** Commands whose large values are not where they are to be, each with the sentence that says so. */
async function withoutFiles(
	connection: Connection,
	commands: readonly SentCommand[]
): Promise<Map<string, string>> {
	const lacking = new Map<string, string>();
	for (const command of commands) {
		if (command.kind !== 'do') continue;
		if (new Files().detach(command.edits) !== command.edits)
			lacking.set(
				command.id,
				`“${command.label}” holds values so large that they are sent as files before it`
			);
		const missing = await missingOn(connection, filesIn(command.edits));
		if (missing.length)
			lacking.set(
				command.id,
				`“${command.label}” names files that are not on the server: ${missing.join(', ')}`
			);
	}
	return lacking;
}

interface Logged extends Done {
	readonly revision: number;
}

/** What undo and redo of these commands have to know of the log before them. */
async function pastOf(
	connection: Connection,
	project: string,
	commands: readonly SentCommand[]
): Promise<{ past: Past; add(command: Logged): void }> {
	const wanted = commands.flatMap((command) => (command.kind === 'do' ? [] : [command.of]));
	const known = new Map<string, Logged>();
	const decided: { revision: number; window: string; touched: readonly string[] }[] = [];
	if (wanted.length) {
		const rows = await connection
			.selectFrom('project_edit')
			.select(['id', 'window', 'label', 'inverse', 'touched', 'revision'])
			.where('project_id', '=', project)
			.where('id', 'in', wanted)
			.execute();
		for (const row of rows) known.set(row.id, row);
		const oldest = Math.min(...rows.map(({ revision }) => revision));
		if (rows.length)
			decided.push(
				...(await connection
					.selectFrom('project_edit')
					.select(['revision', 'window', 'touched'])
					.where('project_id', '=', project)
					.where('revision', '>', oldest)
					.where('window', 'not in', [...new Set(rows.map(({ window }) => window))])
					.execute())
			);
	}
	return {
		past: {
			find: (id) => known.get(id),
			decidedSince: ({ id, window }) => {
				const { revision } = known.get(id)!;
				return decided
					.filter((one) => one.revision > revision && one.window !== window)
					.map(({ touched }) => touched);
			}
		},
		add: (command) => {
			known.set(command.id, command);
			decided.push(command);
		}
	};
}

/**
 * Carries commands out exactly once, in the order they reach the project's row, on top of what came before.
 * The answer says everything that was carried out since the window's base, so that it comes to the same document.
 */
export class Saving {
	constructor(
		private readonly db: Database,
		private readonly documents: Documents
	) {}

	/** @throws NotFound, OutOfStep */
	async save(project: string, request: SaveRequest): Promise<SaveAnswer> {
		const { commands, refused } = readCommands(request.commands);
		if (!commands.length) {
			const answer = await snapshot(this.db, (connection) => this.told(connection, project, request));
			return { ...answer, refused };
		}
		const { answer, document, isNew } = await this.db
			.transaction()
			.execute((connection) => this.carryOut(connection, project, request, commands));
		this.documents.advance(project, answer.epoch, answer.revision, document);
		if (isNew)
			// The answer does not wait for it, and is right without it.
			void this.documents.snapshotIfDue(project, answer.revision, document).catch(() => {});
		return { ...answer, refused: [...refused, ...answer.refused] };
	}

	/** What came since the window's base. */
	private async told(connection: Connection, project: string, request: SaveRequest): Promise<SaveAnswer> {
		const { epoch, revision } = await this.rowFor(connection, project, request);
		const document = await this.documents.at(connection, epoch, project, revision);
		return {
			epoch,
			revision,
			hash: hashOf(document),
			log: await this.logSince(connection, project, request.base, new Set()),
			known: [],
			refused: []
		};
	}

	private async rowFor(connection: Connection, project: string, { epoch, base }: SaveRequest, lock = false) {
		const query = connection
			.selectFrom('project')
			.select('revision')
			.where('id', '=', project)
			.where('deleted_at', 'is', null);
		const row = await (lock ? query.forUpdate() : query).executeTakeFirst();
		if (!row) throw new NotFound('there is no such project (any more)');
		const here = await epochOf(connection);
		if (epoch !== here || base > row.revision)
			throw new OutOfStep('the server’s data was put back to another state');
		if (row.revision - base > MOST_TOLD)
			throw new OutOfStep('so much was changed meanwhile that it comes as a whole');
		return { epoch: here, revision: row.revision };
	}

	private async logSince(
		connection: Connection,
		project: string,
		base: number,
		own: ReadonlySet<string>
	): Promise<SaveAnswer['log']> {
		const rows = await connection
			.selectFrom('project_edit')
			.selectAll()
			.where('project_id', '=', project)
			.where('revision', '>', base)
			.orderBy('revision')
			.execute();
		return rows.map((row) => (own.has(row.id) ? { revision: row.revision, id: row.id } : savedCommand(row)));
	}

	private async carryOut(
		connection: Connection,
		project: string,
		request: SaveRequest,
		commands: readonly SentCommand[]
	) {
		const { epoch, revision } = await this.rowFor(connection, project, request, true);
		const ids = commands.map(({ id }) => id);
		const stored = await connection
			.selectFrom('project_edit')
			.select(['id', 'revision'])
			.where('project_id', '=', project)
			.where('id', 'in', ids)
			.orderBy('revision')
			.execute();
		const known = new Set(stored.map(({ id }) => id));
		const log = await this.logSince(connection, project, request.base, new Set(ids));
		let document = await this.documents.at(connection, epoch, project, revision);
		const { past, add } = await pastOf(connection, project, commands);
		const lacking = await withoutFiles(connection, commands);
		const refused: SaveAnswer['refused'] = [];
		const rows: EditRow[] = [];
		for (const command of commands) {
			if (known.has(command.id)) continue;
			known.add(command.id);
			try {
				const lacks = lacking.get(command.id);
				if (lacks) throw new CommandError(lacks);
				const applied = carryOut(document, command, past);
				const made = revision + rows.length + 1;
				rows.push(rowOf(project, made, command, applied));
				document = applied.project;
				add({ ...command, inverse: applied.inverse, touched: applied.touched, revision: made });
				log.push({ revision: made, id: command.id });
			} catch (error) {
				if (!(error instanceof CommandError || error instanceof DocumentError)) throw error;
				refused.push({ id: command.id, message: error.message, overtaken: error instanceof Overtaken });
			}
		}
		if (rows.length) await this.keep(connection, project, document, rows);
		const answer: SaveAnswer = {
			epoch,
			revision: revision + rows.length,
			hash: hashOf(document),
			log,
			known: stored.filter((one) => one.revision <= request.base).map(({ id }) => id),
			refused
		};
		return { answer, document, isNew: rows.length > 0 };
	}

	private async keep(
		connection: Connection,
		project: string,
		document: Project,
		rows: readonly EditRow[]
	): Promise<void> {
		await connection.insertInto('project_edit').values(rows).execute();
		const bytes = rows.reduce((sum, { edits }) => sum + edits.length, 0);
		await connection
			.updateTable('project')
			.set({
				revision: rows.at(-1)!.revision,
				name: document.name,
				changed_at: new Date(),
				bytes_since_snapshot: sql`bytes_since_snapshot + ${bytes}`
			})
			.where('id', '=', project)
			.execute();
	}
}

type EditRow = ReturnType<typeof rowOf>;

function rowOf(
	project: string,
	revision: number,
	command: SentCommand,
	applied: ReturnType<typeof carryOut>
) {
	return {
		project_id: project,
		revision,
		id: command.id,
		window: command.window,
		kind: command.kind,
		of: command.kind === 'do' ? null : command.of,
		label: command.label,
		edits: JSON.stringify(applied.edits),
		inverse: JSON.stringify(applied.inverse),
		touched: JSON.stringify(applied.touched),
		author: LOCAL_OWNER
	};
}
