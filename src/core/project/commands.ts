import { z } from 'zod';
import { readProject } from './read';
import type { Project } from './schema';

/**
 * Every change of a project is a command: a label that names it for undo, and edits on document paths.
 * A path names list members by their id (`zones/gull/settingOut/up/count`), or by position where they have
 * none (`masses/drum/form/profile/points/2/0`).
 */
const path = z.string().min(1);
export const editSchema = z.discriminatedUnion('do', [
	z.strictObject({ do: z.literal('set'), path, value: z.unknown() }),
	z.strictObject({ do: z.literal('insert'), path, index: z.number().int().min(0), value: z.unknown() }),
	z.strictObject({ do: z.literal('remove'), path }),
	z.strictObject({ do: z.literal('move'), path, index: z.number().int().min(0) })
]);
export type Edit = z.infer<typeof editSchema>;

export const commandSchema = z.strictObject({
	label: z.string().min(1).max(200),
	edits: z.array(editSchema).min(1)
});
export type Command = z.infer<typeof commandSchema>;

export class CommandError extends Error {}

type Container = Record<string, unknown> | unknown[];

function isContainer(value: unknown): value is Container {
	return typeof value === 'object' && value !== null;
}

/** The key under which a container holds what a path segment names. */
function keyOf(container: Container, segment: string): string | number | undefined {
	if (!Array.isArray(container)) return Object.hasOwn(container, segment) ? segment : undefined;
	const byId = container.findIndex(
		(item) => isContainer(item) && !Array.isArray(item) && item['id'] === segment
	);
	if (byId >= 0) return byId;
	const index = Number(segment);
	return Number.isInteger(index) && index >= 0 && index < container.length ? index : undefined;
}

/** Paths in which an id itself contains a slash (an exception's address) write it as `~`. */
export const pathSegment = (id: string): string => id.replaceAll('/', '~');
const segmentsOf = (text: string) => text.split('/').map((segment) => segment.replaceAll('~', '/'));

/** The value at a path, or undefined. */
export function valueAt(document: unknown, text: string): unknown {
	let value = document;
	for (const segment of segmentsOf(text)) {
		if (!isContainer(value)) return undefined;
		const key = keyOf(value, segment);
		if (key === undefined) return undefined;
		value = (value as Record<string | number, unknown>)[key];
	}
	return value;
}

/** Rebuild the containers along a path, sharing everything beside it. */
function change(
	value: unknown,
	segments: readonly string[],
	act: (container: Container, key: string | number) => void,
	full: string
): unknown {
	const [head, ...rest] = segments as [string, ...string[]];
	if (!isContainer(value)) throw new CommandError(`${full}: there is nothing at this place`);
	const key = keyOf(value, head);
	if (key === undefined) throw new CommandError(`${full}: "${head}" is not there (any more)`);
	const copy = (Array.isArray(value) ? [...value] : { ...value }) as Container;
	if (rest.length === 0) act(copy, key);
	else {
		const record = copy as Record<string | number, unknown>;
		record[key] = change(record[key], rest, act, full);
	}
	return copy;
}

function listAt(container: Container, key: string | number, full: string): unknown[] {
	const list = (container as Record<string | number, unknown>)[key];
	if (!Array.isArray(list)) throw new CommandError(`${full}: a list is wanted at this place`);
	return [...list];
}

interface Applied {
	document: unknown;
	inverse: Edit;
}

function applyEdit(document: unknown, edit: Edit): Applied {
	const segments = segmentsOf(edit.path);
	let inverse: Edit | undefined;
	const next = change(
		document,
		segments,
		(container, key) => {
			const record = container as Record<string | number, unknown>;
			if (edit.do === 'set') {
				inverse = { do: 'set', path: edit.path, value: record[key] };
				record[key] = edit.value;
			} else if (edit.do === 'insert') {
				const list = listAt(container, key, edit.path);
				if (edit.index > list.length)
					throw new CommandError(`${edit.path}: position ${edit.index} is past the end of the list`);
				list.splice(edit.index, 0, edit.value);
				record[key] = list;
				const id = isContainer(edit.value) && !Array.isArray(edit.value) ? edit.value['id'] : undefined;
				const name = typeof id === 'string' ? pathSegment(id) : String(edit.index);
				inverse = { do: 'remove', path: `${edit.path}/${name}` };
			} else {
				if (!Array.isArray(container) || typeof key !== 'number')
					throw new CommandError(`${edit.path}: only members of a list can be taken out or moved`);
				const [member] = container.splice(key, 1);
				const parent = edit.path.split('/').slice(0, -1).join('/');
				if (edit.do === 'remove') inverse = { do: 'insert', path: parent, index: key, value: member };
				else {
					container.splice(edit.index, 0, member);
					inverse = { do: 'move', path: edit.path, index: key };
				}
			}
		},
		edit.path
	);
	return { document: next, inverse: inverse! };
}

/**
 * Apply a command.
 * @returns the new document and the command that takes it back
 * @throws CommandError when a path is gone, DocumentError when the result is not a project
 */
export function applyCommand(project: Project, command: Command): { project: Project; inverse: Command } {
	let document: unknown = project;
	const inverses: Edit[] = [];
	for (const edit of command.edits) {
		const applied = applyEdit(document, edit);
		document = applied.document;
		inverses.unshift(applied.inverse);
	}
	return {
		project: readProject(document),
		inverse: { label: command.label, edits: inverses }
	};
}
