import type { Edit } from './edits';
import { pathSegment, type Key } from './paths';
import type { Project, projectSchema, Zone, ZoneInput } from './schema';
import type { z } from 'zod';

/** What a document may be put together of: values that have a default may be left out. */
type Document = Omit<z.input<typeof projectSchema>, 'parts' | 'zones'> &
	Pick<Project, 'parts'> & { zones: PutZone[] };
type PutZone = Omit<ZoneInput, 'exceptions' | 'rules'> & Pick<Zone, 'exceptions' | 'rules'>;

declare const takes: unique symbol;

/**
 * A path into the document that knows what may be put at its place.
 * Where less may be put than somebody wants to, it does not fit: `Path<number>` is no `Path<number | string>`.
 */
export type Path<T> = string & { readonly [takes]: (value: T) => void };

/** A place that something can be said of or taken out from, whatever it holds. */
export type Place = Path<never>;

/** What a value has below it: members of a list by id or position, fields by name. */
export type KeyOf<T> = T extends readonly unknown[] ? Key : T extends object ? keyof T & string : never;

/** What may be put below a value. Where the value is of several kinds, whatever one of them takes. */
export type Below<T, K> = T extends readonly (infer Member)[]
	? Member
	: T extends object
		? K extends keyof T
			? Exclude<T[K], undefined>
			: never
		: never;

/**
 * The place below another.
 *
 * ```ts
 * below(pathTo('zones', zone.id), 'settingOut', 'up'); // Path<Spacing>: `zones/gull/settingOut/up`
 * ```
 */
export function below<T, A extends KeyOf<T>>(path: Path<T>, a: A): Path<Below<T, A>>;
export function below<T, A extends KeyOf<T>, B extends KeyOf<Below<T, A>>>(
	path: Path<T>,
	a: A,
	b: B
): Path<Below<Below<T, A>, B>>;
export function below<
	T,
	A extends KeyOf<T>,
	B extends KeyOf<Below<T, A>>,
	C extends KeyOf<Below<Below<T, A>, B>>
>(path: Path<T>, a: A, b: B, c: C): Path<Below<Below<Below<T, A>, B>, C>>;
export function below<
	T,
	A extends KeyOf<T>,
	B extends KeyOf<Below<T, A>>,
	C extends KeyOf<Below<Below<T, A>, B>>,
	D extends KeyOf<Below<Below<Below<T, A>, B>, C>>
>(path: Path<T>, a: A, b: B, c: C, d: D): Path<Below<Below<Below<Below<T, A>, B>, C>, D>>;
export function below(path: string, ...keys: Key[]): string {
	return [path, ...keys.map((key) => pathSegment(String(key)))].join('/');
}

/**
 * A place by its way from the top of the document.
 *
 * ```ts
 * pathTo('levels', 'sun-deck', 'height'); // Path<number>: `levels/sun-deck/height`
 * ```
 */
export function pathTo<A extends KeyOf<Document>>(a: A): Path<Below<Document, A>>;
export function pathTo<A extends KeyOf<Document>, B extends KeyOf<Below<Document, A>>>(
	a: A,
	b: B
): Path<Below<Below<Document, A>, B>>;
export function pathTo<
	A extends KeyOf<Document>,
	B extends KeyOf<Below<Document, A>>,
	C extends KeyOf<Below<Below<Document, A>, B>>
>(a: A, b: B, c: C): Path<Below<Below<Below<Document, A>, B>, C>>;
export function pathTo<
	A extends KeyOf<Document>,
	B extends KeyOf<Below<Document, A>>,
	C extends KeyOf<Below<Below<Document, A>, B>>,
	D extends KeyOf<Below<Below<Below<Document, A>, B>, C>>
>(a: A, b: B, c: C, d: D): Path<Below<Below<Below<Below<Document, A>, B>, C>, D>>;
export function pathTo<
	A extends KeyOf<Document>,
	B extends KeyOf<Below<Document, A>>,
	C extends KeyOf<Below<Below<Document, A>, B>>,
	D extends KeyOf<Below<Below<Below<Document, A>, B>, C>>,
	E extends KeyOf<Below<Below<Below<Below<Document, A>, B>, C>, D>>
>(a: A, b: B, c: C, d: D, e: E): Path<Below<Below<Below<Below<Below<Document, A>, B>, C>, D>, E>>;
export function pathTo(...keys: Key[]): string {
	return keys.map((key) => pathSegment(String(key))).join('/');
}

/**
 * Put a value at a place.
 *
 * ```ts
 * setAt(pathTo('zones', zone.id, 'name'), 'South roof');
 * ```
 */
export const setAt = <T>(path: Path<T>, value: NoInfer<T>): Edit => ({ do: 'set', path, value });

/**
 * Put one more member into a list.
 *
 * ```ts
 * insertAt(pathTo('zones'), project.zones.length, zone);
 * ```
 */
export const insertAt = <T>(list: Path<T[]>, index: number, value: NoInfer<T>): Edit => ({
	do: 'insert',
	path: list,
	index,
	value
});

/**
 * Take a member out of its list.
 *
 * ```ts
 * removeAt(pathTo('levels', 'sun-deck'));
 * ```
 */
export const removeAt = (path: Place): Edit => ({ do: 'remove', path });

/**
 * Move a member within its list.
 *
 * ```ts
 * moveAt(pathTo('zones', zone.id, 'rules', 'whole'), 0); // the first rule to be asked
 * ```
 */
export const moveAt = (path: Place, index: number): Edit => ({ do: 'move', path, index });
