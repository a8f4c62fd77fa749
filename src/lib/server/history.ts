import type { HistoryEntry, SavedCommand } from '$lib/protocol';
import type { Selectable } from 'kysely';
import type { Connection } from './database';
import type { EditTable } from './schema';

export function savedCommand(row: Selectable<EditTable>): SavedCommand {
	return {
		revision: row.revision,
		id: row.id,
		window: row.window,
		kind: row.kind,
		of: row.of,
		label: row.label,
		edits: row.edits,
		inverse: row.inverse,
		touched: row.touched,
		author: row.author,
		madeAt: row.made_at.toISOString()
	};
}

const newestBefore = (connection: Connection, project: string, before: number, limit: number) =>
	connection
		.selectFrom('project_edit')
		.where('project_id', '=', project)
		.where('revision', '<', before)
		.orderBy('revision', 'desc')
		.limit(limit);

/** The newest commands before a revision, oldest first. */
export async function commandsBefore(
	connection: Connection,
	project: string,
	before: number,
	limit: number
): Promise<SavedCommand[]> {
	const rows = await newestBefore(connection, project, before, limit).selectAll().execute();
	return rows.reverse().map(savedCommand);
}

/** The same as a list for people, newest first. */
export async function entriesBefore(
	connection: Connection,
	project: string,
	before: number,
	limit: number
): Promise<HistoryEntry[]> {
	const rows = await newestBefore(connection, project, before, limit)
		.select(['revision', 'kind', 'label', 'author', 'window', 'made_at'])
		.execute();
	return rows.map(({ made_at, ...row }) => ({ ...row, madeAt: made_at.toISOString() }));
}
