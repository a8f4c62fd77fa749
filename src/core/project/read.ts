import type { z } from 'zod';
import { upToDate, type OldDocument } from './migrate';
import { DOCUMENT_FORMAT, DOCUMENT_VERSION, projectSchema, type Project } from './schema';

/** A document that cannot be taken: one sentence per fault, each naming its path. */
export class DocumentError extends Error {
	constructor(readonly faults: readonly string[]) {
		super(faults.join('\n'));
	}
}

function pathText(path: readonly PropertyKey[]): string {
	return path.length ? path.map(String).join('/') : 'the document';
}

/** The deepest faults of a failed parse: a union's own message says less than that of its best branch. */
function faultsOf(issues: readonly z.core.$ZodIssue[], prefix: readonly PropertyKey[]): string[] {
	return issues.flatMap((issue) => {
		const path = [...prefix, ...issue.path];
		if (issue.code === 'invalid_union' && issue.errors.length > 0) {
			const closest = issue.errors.reduce((a, b) => (depth(b) > depth(a) ? b : a));
			if (depth(closest) > 0) return faultsOf(closest, path);
		}
		if (issue.code === 'unrecognized_keys')
			return issue.keys.map((key) => `${pathText([...path, key])}: this key is not known here`);
		return [`${pathText(path)}: ${issue.message}`];
	});
}

const depth = (issues: readonly z.core.$ZodIssue[]) =>
	Math.max(0, ...issues.map((issue) => issue.path.length));

function listIds(project: Project): string[] {
	const lists = {
		levels: project.levels,
		masses: project.masses,
		guides: project.guides,
		tiles: project.tiles,
		zones: project.zones,
		variants: project.variants,
		parts: project.parts,
		...Object.fromEntries(
			project.zones.flatMap((zone) => [
				[`zones/${zone.id}/rules`, zone.rules],
				[`zones/${zone.id}/runs`, zone.runs],
				[`zones/${zone.id}/exceptions`, zone.exceptions]
			])
		)
	} as Record<string, readonly { id: string }[]>;
	return Object.entries(lists).flatMap(([list, items]) => {
		const seen = new Set<string>();
		return items
			.filter((item) => seen.has(item.id) || !seen.add(item.id))
			.map((item) => `${list}: the id "${item.id}" is used twice; every id in a list is used once`);
	});
}

/**
 * Take a parsed JSON value as a project, defaults filled in.
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
	const twice = listIds(parsed.data);
	if (twice.length) throw new DocumentError(twice);
	return parsed.data;
}

/** The same for JSON text. @throws DocumentError */
export function readProjectText(text: string): Project {
	let value: unknown;
	try {
		value = JSON.parse(text);
	} catch (error) {
		throw new DocumentError([`the document: not JSON (${(error as Error).message})`]);
	}
	return readProject(value);
}
