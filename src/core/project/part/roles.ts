import type { z } from 'zod';

/**
 * What a text of a part is to it. Renaming, what a step refers to and what is declared all follow from it; a field
 * that holds a name says so here, in the schema, and nowhere else.
 * - *name*: a value of the part that others use: an input, a step, an option
 * - *use*: one of those names
 * - *formula*: arithmetic that may hold such names
 * - *element*: a name that nothing in the part uses
 * - *material*: one by its id, or the input that names one
 * - *choice*: what an input is by default: one of its options, or a text that is no name at all
 */
export type TextRole = 'name' | 'use' | 'formula' | 'element' | 'material' | 'choice';

const roles = new WeakMap<z.core.$ZodType, TextRole>();

/** The same schema, of texts with a role. */
export function withRole<T extends z.ZodType>(schema: T, role: TextRole): T {
	const own = schema.clone();
	roles.set(own, role);
	return own;
}

/** The insides of Zod's schemas that are walked; see `zod/v4/core`. */
type Definition = z.core.$ZodTypes['_zod']['def'];
const definitionOf = (schema: z.core.$ZodType): Definition => (schema as z.core.$ZodTypes)._zod.def;

/** The member of a union that a value is of, or null. */
function memberFor({ options, ...rest }: z.core.$ZodUnionDef, value: unknown): z.core.$ZodType | null {
	if ('discriminator' in rest) {
		const key = (rest as z.core.$ZodDiscriminatedUnionDef).discriminator;
		const kind = (value as Readonly<Record<string, unknown>>)[key];
		const isOf = (option: z.core.$ZodType) => {
			const { shape } = definitionOf(option) as z.core.$ZodObjectDef;
			return (definitionOf(shape[key]!) as z.core.$ZodLiteralDef<z.core.util.Literal>).values.some(
				(one) => one === kind
			);
		};
		return options.find(isOf) ?? null;
	}
	return options.find((option) => (option as z.ZodType).safeParse(value).success) ?? null;
}

/** Called with every text that has a role. @param owner the object that holds it; null in a list */
type Visit = (role: TextRole, text: string, owner: Readonly<Record<string, unknown>> | null) => string;

/**
 * A value with its texts replaced, by their roles; what has none stays as it is.
 *
 * ```ts
 * const louder = mapTexts(partSchema, part, (role, text) => (role === 'formula' ? text.trim() : text));
 * ```
 * @param schema what the value has passed
 */
export function mapTexts(
	schema: z.core.$ZodType,
	value: unknown,
	visit: Visit,
	owner: Readonly<Record<string, unknown>> | null = null
): unknown {
	const role = roles.get(schema);
	if (role && typeof value === 'string') return visit(role, value, owner);
	if (value === undefined || value === null) return value;
	const definition = definitionOf(schema);
	const inner = (one: z.core.$ZodType, held: unknown) => mapTexts(one, held, visit, owner);
	switch (definition.type) {
		case 'optional':
		case 'default':
		case 'nullable':
			return inner(definition.innerType, value);
		case 'lazy':
			return inner(definition.getter(), value);
		case 'pipe':
			return inner(definition.out, value);
		case 'union': {
			const member = memberFor(definition, value);
			return member ? inner(member, value) : value;
		}
		case 'array':
			return (value as readonly unknown[]).map((one) => inner(definition.element, one));
		case 'tuple':
			return (value as readonly unknown[]).map((one, k) => inner(definition.items[k]!, one));
		case 'record':
			return Object.fromEntries(
				Object.entries(value).map(([key, one]) => [key, inner(definition.valueType, one)])
			);
		case 'object': {
			const held = value as Readonly<Record<string, unknown>>;
			return Object.fromEntries(
				Object.entries(held).map(([key, one]) => {
					const of = definition.shape[key];
					return [key, of ? mapTexts(of, one, visit, held) : one];
				})
			);
		}
		default:
			return value;
	}
}

/**
 * Look at every text that has a role.
 *
 * ```ts
 * eachText(partSchema, part, (role, text) => tell(`${role}: ${text}`));
 * ```
 */
export function eachText(
	schema: z.core.$ZodType,
	value: unknown,
	look: (role: TextRole, text: string) => void
): void {
	mapTexts(schema, value, (role, text) => {
		look(role, text);
		return text;
	});
}
