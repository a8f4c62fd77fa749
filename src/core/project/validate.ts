import type { z } from 'zod';
import { DocumentError, faultsOf } from './faults';
import { idOf, isContainer, type Key } from './paths';
import { projectSchema } from './schema';

/**
 * Validation of what an edit touched. The schema is walked along the edit's keys and only what lies at their end is
 * parsed; everything beside is shared as it was, since it was valid before.
 */

type Schema = z.core.$ZodType;
interface Definition {
	readonly type: string;
	readonly checks?: readonly unknown[];
	readonly shape?: Record<string, Schema>;
	readonly element?: Schema;
	readonly items?: readonly Schema[];
	readonly valueType?: Schema;
	readonly innerType?: Schema;
	readonly getter?: () => Schema;
	readonly out?: Schema;
	readonly options?: readonly Schema[];
	readonly discriminator?: string;
}
const definitionOf = (schema: Schema) => schema._zod.def as unknown as Definition;

/** The schema behind defaults, nulls, earlier words and what is laid later. */
function bare(schema: Schema): Schema {
	for (;;) {
		const { type, innerType, getter, out } = definitionOf(schema);
		if (type === 'lazy' && getter) schema = getter();
		else if (type === 'pipe' && out) schema = out;
		else if (['default', 'optional', 'nullable'].includes(type) && innerType) schema = innerType;
		else return schema;
	}
}

/** The branch of a union told apart by a key, for a value that names it. */
function branchOf(definition: Definition, value: unknown): Schema | undefined {
	if (!definition.discriminator || !isContainer(value)) return undefined;
	const named = (value as Record<string, unknown>)[definition.discriminator];
	return definition.options?.find((option) => {
		const key = definitionOf(option).shape?.[definition.discriminator!];
		return key?._zod.values?.has(named as z.core.util.Primitive);
	});
}

/** The schema of what a container of this schema holds under a key; undefined: take the container whole. */
function below(schema: Schema, value: unknown, key: Key): Schema | undefined {
	const bared = bare(schema);
	const definition = definitionOf(bared);
	if (definition.type === 'union') {
		const branch = key === definition.discriminator ? undefined : branchOf(definition, value);
		return branch && below(branch, value, key);
	}
	if (definition.type === 'array') return definition.element;
	if (definition.checks?.length) return undefined;
	if (definition.type === 'object') return definition.shape?.[key];
	if (definition.type === 'tuple') return definition.items?.[key as number];
	if (definition.type === 'record') return definition.valueType;
	return undefined;
}

function parsed(schema: Schema, value: unknown, at: readonly Key[]): unknown {
	const result = (schema as z.ZodType).safeParse(value);
	if (!result.success) throw new DocumentError(faultsOf(result.error.issues, at));
	return result.data;
}

/** How many members a list may have is a property of the list, whatever its members are. */
function checkLength(schema: Schema, list: readonly unknown[], at: readonly Key[]): void {
	const bared = bare(schema);
	if (definitionOf(bared).type !== 'array') return;
	let [minimum, maximum] = [0, Infinity];
	for (const check of (definitionOf(bared).checks ?? []) as readonly z.core.$ZodCheck[]) {
		const { def } = check._zod as { def: { check: string; minimum?: number; maximum?: number } };
		if (def.check === 'min_length') minimum = def.minimum ?? minimum;
		else if (def.check === 'max_length') maximum = def.maximum ?? maximum;
	}
	if (list.length < minimum)
		throw new DocumentError([`${at.join('/')}: the list needs at least ${minimum} of them`]);
	if (list.length > maximum)
		throw new DocumentError([
			`${at.join('/')}: ${list.length} are too many; at most ${maximum} can stand here`
		]);
}

/**
 * The document with what lies at the keys validated and its defaults filled in.
 * @param document its containers along the keys are copies of the edit's own and may be written to
 * @throws DocumentError
 */
export function validateAlong(document: unknown, keys: readonly Key[], onlyLength: boolean): unknown {
	let schema: Schema = projectSchema;
	let value = document;
	let holder: Record<Key, unknown> | null = null;
	for (const [depth, key] of keys.entries()) {
		const next = below(schema, value, key);
		if (!next)
			return replaced(document, holder, keys.slice(0, depth), parsed(schema, value, keys.slice(0, depth)));
		if (Array.isArray(value)) checkLength(schema, value, keys.slice(0, depth));
		holder = value as Record<Key, unknown>;
		value = holder[key];
		schema = next;
	}
	if (onlyLength && Array.isArray(value) && definitionOf(bare(schema)).type === 'array') {
		checkLength(schema, value, keys);
		return document;
	}
	return replaced(document, holder, keys, parsed(schema, value, keys));
}

function replaced(
	document: unknown,
	holder: Record<Key, unknown> | null,
	keys: readonly Key[],
	value: unknown
): unknown {
	if (!holder) return value;
	holder[keys.at(-1)!] = value;
	return document;
}

/** Lists whose members are named by ids, each used once. */
const namedLists = [
	['levels'],
	['masses'],
	['guides'],
	['tiles'],
	['zones'],
	['variants'],
	['materials'],
	['parts'],
	['views'],
	['notes'],
	['zones', '*', 'rules'],
	['zones', '*', 'runs'],
	['zones', '*', 'nodes'],
	['zones', '*', 'exceptions'],
	['zones', '*', 'exceptions', '*', 'sites']
] as const;

function* listsAlong(
	value: unknown,
	pattern: readonly string[],
	keys: readonly Key[],
	at: readonly Key[]
): Generator<[readonly Key[], readonly unknown[]]> {
	const [head, ...rest] = pattern;
	if (head === undefined) {
		if (Array.isArray(value)) yield [at, value];
		return;
	}
	if (!isContainer(value)) return;
	const [wanted, ...further] = keys;
	const record = value as Record<Key, unknown>;
	const names = head === '*' ? (wanted === undefined ? Object.keys(value) : [wanted]) : [head];
	if (head !== '*' && wanted !== undefined && wanted !== head) return;
	for (const name of names)
		yield* listsAlong(record[name], rest, further, [...at, Array.isArray(value) ? Number(name) : name]);
}

/**
 * Every id of a named list is used once, in the lists at, above and below the keys (none: in all).
 * @throws DocumentError
 */
export function checkIds(document: unknown, keys: readonly Key[] = []): void {
	const faults: string[] = [];
	for (const pattern of namedLists)
		for (const [at, list] of listsAlong(document, pattern, keys, [])) {
			const key = keys[at.length];
			// Something deeper than the member's own id has changed: the list is as it was.
			if (key !== undefined && keys.length > at.length + 2) continue;
			if (key !== undefined && keys.length === at.length + 2 && keys.at(-1) !== 'id') continue;
			const seen = new Set<string>();
			for (const member of list) {
				const id = idOf(member);
				if (id === undefined) continue;
				if (seen.has(id))
					faults.push(
						`${nameOf(document, at)}: the id "${id}" is used twice; every id in a list is used once`
					);
				seen.add(id);
			}
		}
	if (faults.length) throw new DocumentError(faults);
}

/** A place with ids where there are such. */
function nameOf(document: unknown, keys: readonly Key[]): string {
	let value = document;
	return keys
		.map((key) => {
			value = (value as Record<Key, unknown>)[key];
			return idOf(value) ?? String(key);
		})
		.join('/');
}
