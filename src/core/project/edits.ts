import { z } from 'zod';
import { CommandError } from './faults';
import { idOf, isContainer, keyOf, pathSegment, segmentsOf, type Container, type Key } from './paths';

const MOST_PATH = 1000;
const path = z.string().min(1).max(MOST_PATH, `a path has at most ${MOST_PATH} letters`);
const index = z.number().int().min(0).max(10_000_000);

/** One change of the document at a path. */
export const editSchema = z.discriminatedUnion('do', [
	z.strictObject({ do: z.literal('set'), path, value: z.unknown() }),
	z.strictObject({ do: z.literal('insert'), path, index, value: z.unknown() }),
	z.strictObject({ do: z.literal('remove'), path }),
	z.strictObject({ do: z.literal('move'), path, index })
]);
export type Edit = z.infer<typeof editSchema>;

/** An edit carried out: the document with everything beside the path shared, and what has to be known of it. */
export interface Edited {
	readonly document: unknown;
	readonly inverse: Edit;
	/** Keys from the root to what is new, and whether only the length of the list there has changed. */
	readonly keys: readonly Key[];
	readonly onlyLength: boolean;
	/** The path whose value it decides; two edits that decide the same are in each other's way. */
	readonly touched: string;
}

/** The part of a path before its last segment. */
const parentOf = (text: string) => text.slice(0, Math.max(0, text.lastIndexOf('/')));

/**
 * @param own containers that were copied for this command already, which are written to and not copied again
 * @throws CommandError when there is nothing at the path, or the edit is not one for what is there
 */
export function applyEdit(document: unknown, edit: Edit, own: WeakSet<object>): Edited {
	const segments = segmentsOf(edit.path);
	const root = copyOf(document, edit.path, own);
	const keys: Key[] = [];
	let container = root;
	for (const [depth, segment] of segments.entries()) {
		const key = keyOf(container, segment);
		if (key === undefined) throw new CommandError(`${edit.path}: "${segment}" is not there (any more)`);
		keys.push(key);
		if (depth === segments.length - 1) break;
		const below = copyOf((container as Record<Key, unknown>)[key], edit.path, own);
		(container as Record<Key, unknown>)[key] = below;
		container = below;
	}
	return { document: root, ...change(container, keys, edit, own) };
}

function copyOf(value: unknown, full: string, own: WeakSet<object>): Container {
	if (!isContainer(value)) throw new CommandError(`${full}: there is nothing at this place`);
	if (own.has(value)) return value;
	const copy = Array.isArray(value) ? value.slice() : { ...value };
	own.add(copy);
	return copy;
}

/** Carry the edit out in the container of its last key, a copy already. */
function change(
	container: Container,
	keys: Key[],
	edit: Edit,
	own: WeakSet<object>
): Omit<Edited, 'document'> {
	const { path } = edit;
	const key = keys.at(-1)!;
	const record = container as Record<Key, unknown>;
	if (edit.do === 'set') {
		const inverse: Edit = { do: 'set', path, value: record[key] };
		record[key] = edit.value;
		return { inverse, keys, onlyLength: false, touched: path };
	}
	if (edit.do === 'insert') {
		if (!Array.isArray(record[key])) throw new CommandError(`${path}: a list is wanted at this place`);
		const list = copyOf(record[key], path, own) as unknown[];
		if (edit.index > list.length)
			throw new CommandError(`${path}: position ${edit.index} is past the end of the list`);
		list.splice(edit.index, 0, edit.value);
		record[key] = list;
		const id = idOf(edit.value);
		const member = `${path}/${id === undefined ? edit.index : pathSegment(id)}`;
		return {
			inverse: { do: 'remove', path: member },
			keys: [...keys, edit.index],
			onlyLength: false,
			// Where members have no ids, one more moves all behind it.
			touched: id === undefined ? path : member
		};
	}
	if (!Array.isArray(container) || typeof key !== 'number')
		throw new CommandError(`${path}: only members of a list can be taken out or moved`);
	const [member] = container.splice(key, 1);
	const named = idOf(member) !== undefined;
	const list = parentOf(path);
	if (edit.do === 'remove')
		return {
			inverse: { do: 'insert', path: list, index: key, value: member },
			keys: keys.slice(0, -1),
			onlyLength: true,
			touched: named ? path : list
		};
	container.splice(edit.index, 0, member);
	return {
		inverse: { do: 'move', path, index: key },
		keys: keys.slice(0, -1),
		onlyLength: true,
		// The order of named members is a thing of its own, which values do not hang on.
		touched: named ? `${list}/ order of ${pathSegment(idOf(member)!)}` : list
	};
}
