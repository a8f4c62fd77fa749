import type { ColumnType, Generated, JSONColumnType } from 'kysely';
import type { Edit } from '$core/project/commands';
import type { Project } from '$core/project/schema';

type Timestamp = ColumnType<Date, Date | string | undefined, Date | string>;

export interface ProjectTable {
	id: string;
	/** There are no accounts yet; every project belongs to somebody all the same. */
	owner: string;
	name: string;
	revision: number;
	pieces: Generated<number>;
	/** A small SVG of the model, made when it was last computed. */
	picture: string | null;
	created_at: Timestamp;
	changed_at: Timestamp;
	/** Deleted projects are hidden, not lost. */
	deleted_at: ColumnType<Date | null, Date | null | undefined, Date | null>;
}

/** The document of each revision. */
export interface DocumentTable {
	project_id: string;
	revision: number;
	document: JSONColumnType<Project>;
}

/** Every command, with the one that takes it back. */
export interface EditTable {
	project_id: string;
	/** The revision it made. */
	revision: number;
	kind: 'do' | 'undo' | 'redo';
	label: string;
	edits: JSONColumnType<Edit[]>;
	inverse: JSONColumnType<Edit[]>;
	author: string;
	made_at: Timestamp;
}

/** Things done once for a database, such as loading the demo project. */
export interface MilestoneTable {
	name: string;
	reached_at: Timestamp;
}

export interface Schema {
	project: ProjectTable;
	project_document: DocumentTable;
	project_edit: EditTable;
	milestone: MilestoneTable;
}
