/**
 * Paths into the document. A segment names a member of a list by its id (`zones/gull/settingOut/up/count`), or by
 * its position where members have none (`masses/drum/form/profile/points/2/0`).
 */

export type Container = Record<string, unknown> | unknown[];
export type Key = string | number;

export function isContainer(value: unknown): value is Container {
	return typeof value === 'object' && value !== null;
}

/** The id by which a list's member is named, if it has one. */
export function idOf(member: unknown): string | undefined {
	if (!isContainer(member) || Array.isArray(member)) return undefined;
	const id = member['id'];
	return typeof id === 'string' ? id : undefined;
}

/** The key under which a container holds what a path segment names. */
export function keyOf(container: Container, segment: string): Key | undefined {
	if (!Array.isArray(container)) return Object.hasOwn(container, segment) ? segment : undefined;
	for (let k = 0; k < container.length; k++) if (idOf(container[k]) === segment) return k;
	const index = Number(segment);
	return Number.isInteger(index) && index >= 0 && index < container.length ? index : undefined;
}

/** Paths in which an id itself contains a slash (an exception's address) write it as `~`. */
export const pathSegment = (id: string): string => id.replaceAll('/', '~');
export const segmentsOf = (text: string): string[] =>
	text.split('/').map((segment) => segment.replaceAll('~', '/'));

/**
 * The value at a path, or undefined.
 *
 * ```ts
 * const height = valueAt(project, 'levels/eaves/height');
 * ```
 */
export function valueAt(document: unknown, text: string): unknown {
	let value = document;
	for (const segment of segmentsOf(text)) {
		if (!isContainer(value)) return undefined;
		const key = keyOf(value, segment);
		if (key === undefined) return undefined;
		value = (value as Record<Key, unknown>)[key];
	}
	return value;
}

/** Whether one of two paths lies at or below the other. */
export function pathsMeet(a: string, b: string): boolean {
	const [short, long] = a.length < b.length ? [a, b] : [b, a];
	return long.startsWith(short) && (long.length === short.length || long[short.length] === '/');
}

/**
 * Whether a path is a place or lies below it.
 *
 * ```ts
 * isWithin('zones/gull/settingOut/up', 'zones/gull'); // true
 * ```
 */
export const isWithin = (path: string, place: string): boolean =>
	path === place || path.startsWith(`${place}/`);
