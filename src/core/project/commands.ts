import { z } from 'zod';
import { editOfToday } from './earlier-edits';
import { applyEdit, editSchema, type Edit } from './edits';
import { DocumentError } from './faults';
import type { Key } from './paths';
import { readProject } from './read';
import type { Project } from './schema';
import { checkIds, validateAlong } from './validate';

export const MOST_LABEL = 200;
/** Edits of one command. */
const MOST_EDITS = 50_000;

/** Every change of a project is a command: a label that names it for undo, and edits on document paths. */
export const commandSchema = z.strictObject({
	label: z.string().min(1).max(MOST_LABEL, `a label has at most ${MOST_LABEL} letters`),
	edits: z.array(editSchema).min(1).max(MOST_EDITS, `a command has at most ${MOST_EDITS} edits`)
});
export type Command = z.infer<typeof commandSchema>;

export interface Applied {
	/** Everything the edits did not touch is shared with the project before. */
	readonly project: Project;
	/** The edits that take the command back. */
	readonly inverse: Edit[];
	/** The paths whose values it decided. */
	readonly touched: string[];
}

/** Carry the edits out one after another. @param validated whether what each touches is validated at once */
function carryOut(project: Project, edits: readonly Edit[], validated: boolean) {
	const own = new WeakSet<object>();
	let document: unknown = project;
	const inverse: Edit[] = [];
	const touched = new Set<string>();
	const fresh: (readonly Key[])[] = [];
	for (const given of edits) {
		const edit = editOfToday(document, given);
		const edited = applyEdit(document, edit, own);
		document = validated ? validateAlong(edited.document, edited.keys, edited.onlyLength) : edited.document;
		if (!edited.onlyLength) fresh.push(edited.keys);
		inverse.push(edited.inverse);
		touched.add(edited.touched);
	}
	return { document, inverse: inverse.reverse(), touched: [...touched], fresh };
}

/**
 * Apply edits; only what they touch is validated again.
 *
 * ```ts
 * const { project: next, inverse } = applyEdits(project, [setAt(pathTo('name'), 'Harbour hall')]);
 * ```
 * @throws CommandError when a path is gone, DocumentError when the result is not a project
 */
export function applyEdits(project: Project, edits: readonly Edit[]): Applied {
	try {
		const { document, inverse, touched, fresh } = carryOut(project, edits, true);
		// Lists that many edits went into are looked through once.
		if (fresh.length) checkIds(document, fresh.length === 1 ? fresh[0] : []);
		return { project: document as Project, inverse, touched };
	} catch (error) {
		// On the way of several edits the document may be no project, as long as it is one in the end.
		if (!(error instanceof DocumentError) || edits.length === 1) throw error;
		const { document, inverse, touched } = carryOut(project, edits, false);
		return { project: readProject(document), inverse, touched };
	}
}
