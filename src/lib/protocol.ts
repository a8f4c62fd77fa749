import { MOST_LABEL } from '$core/project/commands';
import { editSchema } from '$core/project/edits';
import type { Progress } from '$core/partner/message-schema';
import type { Project } from '$core/project/schema';
import type { ProjectSummary } from '$core/schedule/summary';
import { z } from 'zod';

/** What goes over the wire, for browser and server alike. */

export interface ProjectCard {
	id: string;
	name: string;
	pieces: number;
	changedAt: string;
	hasPicture: boolean;
}

/** A release as it is listed. */
export interface ReleaseCard {
	readonly number: number;
	readonly revision: number;
	readonly note: string;
	readonly author: string;
	readonly pieces: number;
	readonly summary: ProjectSummary;
	readonly madeAt: string;
	/** What is kept of it as files, and how large (bytes). */
	readonly papers: readonly { readonly kind: PaperKind; readonly size: number }[];
	/** Why there are none; null where there are. */
	readonly lacking: Lacking | null;
}
/** Papers of a release that are not there: they come, they failed, or none are kept; in a sentence. */
export interface Lacking {
	readonly is: 'coming' | 'failed' | 'none kept';
	readonly says: string;
}
/** What is kept of a release as files. */
export const paperKinds = [
	{ kind: 'drawings', label: 'Drawings', format: 'pdf', ending: '.pdf', type: 'application/pdf' },
	{
		kind: 'schedules',
		label: 'Schedules',
		format: 'xlsx',
		ending: '.xlsx',
		type: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet'
	}
] as const;
export type PaperKind = (typeof paperKinds)[number]['kind'];
/** Simulated, shipped with the application. */
export const partners = [
	{ id: 'desk', name: 'fabricator desk', setting: 'FABRICATOR_DESK' },
	{ id: 'site', name: 'site receiver', setting: 'SITE_RECEIVER' }
] as const;
export type PartnerId = (typeof partners)[number]['id'];

/** A partner that releases can be sent to. */
export interface Partner {
	readonly id: PartnerId;
	/** Where it answers, without a slash at the end. */
	readonly address: string;
}

/** How far a release has come with a partner. */
export interface SendingCard {
	readonly number: number;
	readonly partner: PartnerId;
	readonly madeAt: string;
	readonly stopped: boolean;
	readonly batches: number;
	readonly answered: number;
	readonly pieces: number;
	readonly accepted: number;
	readonly refused: number;
	/** Working days until the last of what is accepted is there, where that is known. */
	readonly leadDays: number | null;
	readonly made: number;
	readonly delivered: number;
	readonly set: number;
	/** Messages that went wrong the last time, and the one that was tried most often. */
	readonly trouble: {
		readonly batches: number;
		readonly tries: number;
		readonly failure: string;
		readonly nextAt: string;
	} | null;
}

/** What partners say of the pieces of a release, column by column. */
export interface PartnerAnswers {
	readonly list: readonly string[];
	readonly address: readonly string[];
	readonly mark: readonly string[];
	readonly is: readonly ('accepted' | 'refused' | Progress)[];
	readonly reason: readonly string[];
	readonly leadDays: readonly (number | null)[];
}

/** Letters of the note of a release at most. */
export const MOST_RELEASE_NOTE = 2000;

/** A command as it is kept, with the revision it made. */
export const savedCommandSchema = z.object({
	revision: z.number().int(),
	id: z.string(),
	window: z.string(),
	kind: z.enum(['do', 'undo', 'redo']),
	/** The command that an undo or redo takes back. */
	of: z.string().nullable(),
	label: z.string().max(MOST_LABEL),
	edits: z.array(editSchema),
	inverse: z.array(editSchema),
	touched: z.array(z.string()),
	author: z.string(),
	madeAt: z.string()
});
export type SavedCommand = z.infer<typeof savedCommandSchema>;

/** Commands of a request at most, and their bytes; more go in several. */
export const MOST_COMMANDS = 500;
export const MOST_REQUEST_BYTES = 8_000_000;
/** A window further behind than this takes the whole document anew. */
export const MOST_TOLD = 1000;

/** Commands to be carried out; none: only what came since is asked for. Each command is checked by itself. */
export const saveRequestSchema = z.strictObject({
	/** The database the window has its document from. */
	epoch: z.uuid(),
	/** The last revision it knows. */
	base: z.number().int().min(0).max(2_147_483_647),
	commands: z.array(z.unknown()).max(MOST_COMMANDS)
});
export interface SaveRequest {
	readonly epoch: string;
	readonly base: number;
	readonly commands: readonly unknown[];
}

/** Everything that was carried out after the base, in order; a command of the request by its id alone. */
export const saveAnswerSchema = z.object({
	epoch: z.string(),
	revision: z.number().int(),
	/** Of the document at that revision. */
	hash: z.string(),
	log: z.array(z.union([z.strictObject({ revision: z.number().int(), id: z.string() }), savedCommandSchema])),
	/** Commands of the request that had been carried out at or before the base. */
	known: z.array(z.string()),
	/** Commands of the request that cannot be carried out; overtaken: another window decided the same since. */
	refused: z.array(z.object({ id: z.string(), message: z.string(), overtaken: z.boolean() }))
});
export type SaveAnswer = z.infer<typeof saveAnswerSchema>;

/** Commands of the newest history that come with a project; older ones are asked for. */
export const HISTORY_PAGE = 200;

export interface OpenedProject {
	id: string;
	epoch: string;
	revision: number;
	hash: string;
	document: Project;
	/** The newest commands, oldest first. */
	history: SavedCommand[];
}

/** A command in the list of a project's history: who, when, what. */
export type HistoryEntry = Pick<SavedCommand, 'revision' | 'kind' | 'label' | 'author' | 'window' | 'madeAt'>;
