import type { PaperKind } from '$lib/protocol';
import type { ColumnType, Generated, JSONColumnType } from 'kysely';
import type { Edit } from '$core/project/edits';
import type { FileKind } from '$core/project/files';
import type { PieceAnswer, Progress } from '$core/partner/message-schema';
import type { ReleasedNumber, ReleasedText } from '$core/release/pieces';
import type { ProjectSummary } from '$core/schedule/summary';

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
	/** Of the commands since the last snapshot. */
	bytes_since_snapshot: Generated<string | number>;
}

/** Snapshots: the document of some revisions; those between follow from the commands. */
export interface DocumentTable {
	project_id: string;
	revision: number;
	document: JSONColumnType<object>;
	/** Of its JSON text. */
	bytes: number;
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
	/** The command's name for good, made in the window where it was done. */
	id: Generated<string>;
	window: Generated<string>;
	/** The command that an undo or redo takes back. */
	of: string | null;
	/** The paths whose values it decided. */
	touched: JSONColumnType<string[]>;
}

/** Large values of documents, each once; never changed. */
export interface FileTable {
	/** SHA-256 of its content. */
	hash: string;
	kind: FileKind;
	/** JSON. */
	content: string;
	made_at: Timestamp;
}

/** One row: a database that is put back to an earlier state gets a new one, by which windows notice. */
export interface EpochTable {
	id: Generated<string>;
	began_at: Timestamp;
}

/** A dated copy of a project, numbered from 1; the database refuses to change it. */
export interface ReleaseTable {
	id: string;
	project_id: string;
	number: number;
	/** Of the document it is of. */
	revision: number;
	note: string;
	author: string;
	pieces: number;
	document: JSONColumnType<object>;
	summary: JSONColumnType<ProjectSummary>;
	made_at: Timestamp;
}

/** A piece of a release. mm, mm², rad, kg */
export type ReleaseRowTable = { release_id: string; place: number } & Record<ReleasedText, string> &
	Record<ReleasedNumber, number | null>;

/** A file that is kept of a release: its drawings, its schedules. */
export interface ReleasePaperTable {
	release_id: string;
	kind: PaperKind;
	sha256: string;
	/** Bytes. */
	size: number;
	content: Buffer;
	made_at: Timestamp;
}

/** A release on its way to a partner. */
export interface SendingTable {
	id: string;
	release_id: string;
	/** The key of a partner. */
	partner: string;
	author: string;
	made_at: Timestamp;
	/** Nothing more of it goes out until it goes on. */
	stopped_at: ColumnType<Date | null, Date | null | undefined, Date | null>;
	/** Where the partner's news are to be asked from, and when. */
	news_from: Generated<number>;
	news_at: Timestamp;
}

/** A message of a sending: pieces of some places, under a key that stays the same however often it goes out. */
export interface SendingBatchTable {
	sending_id: string;
	/** From 1. */
	batch: number;
	key: Generated<string>;
	/** The first place, and the one after the last; places count from 1. */
	from_place: number;
	to_place: number;
	answered_at: ColumnType<Date | null, Date | null | undefined, Date | null>;
	tries: Generated<number>;
	next_at: Timestamp;
	/** Somebody is at it until then. */
	leased_until: ColumnType<Date | null, Date | null | undefined, Date | null>;
	/** What went wrong the last time, in a sentence. */
	failure: string | null;
}

/** What a partner says of a piece: once, whatever comes twice. */
export interface SendingAnswerTable {
	sending_id: string;
	place: number;
	is: PieceAnswer['is'];
	reason: string;
	lead_days: number | null;
	progress: Progress | null;
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
	file: FileTable;
	milestone: MilestoneTable;
	database_epoch: EpochTable;
	release: ReleaseTable;
	release_row: ReleaseRowTable;
	release_paper: ReleasePaperTable;
	sending: SendingTable;
	sending_batch: SendingBatchTable;
	sending_answer: SendingAnswerTable;
}
