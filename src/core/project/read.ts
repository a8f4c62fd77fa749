import { DocumentError, faultsOf } from './faults';
import { upToDate, type OldDocument } from './migrate';
import { DOCUMENT_FORMAT, DOCUMENT_VERSION, projectSchema, type Project } from './schema';
import { checkIds } from './validate';

/**
 * Take a parsed JSON value as a project, defaults filled in.
 *
 * ```ts
 * const project = readProject(JSON.parse(text));
 * ```
 * @throws DocumentError with every fault and its path
 */
export function readProject(value: unknown): Project {
	if (typeof value !== 'object' || value === null || Array.isArray(value))
		throw new DocumentError(['the document: a JSON object is wanted']);
	const { format, version } = value as { format?: unknown; version?: unknown };
	if (format !== DOCUMENT_FORMAT) throw new DocumentError([`format: "${DOCUMENT_FORMAT}" is wanted`]);
	if (typeof version !== 'number' || !Number.isInteger(version) || version < 1 || version > DOCUMENT_VERSION)
		throw new DocumentError([
			`version: ${JSON.stringify(version)} is not known; this release reads versions 1 to ${DOCUMENT_VERSION}`
		]);
	const parsed = projectSchema.safeParse(upToDate(value as OldDocument));
	if (!parsed.success) throw new DocumentError(faultsOf(parsed.error.issues, []));
	checkIds(parsed.data);
	return parsed.data;
}

/**
 * The same for JSON text.
 *
 * ```ts
 * const project = readProjectText(text);
 * ```
 * @throws DocumentError
 */
export function readProjectText(text: string): Project {
	let value: unknown;
	try {
		value = JSON.parse(text);
	} catch (error) {
		throw new DocumentError([`the document: not JSON (${(error as Error).message})`]);
	}
	return readProject(value);
}
