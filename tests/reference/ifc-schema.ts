/**
 * A file against the schema it names: types, attribute counts, required values, enumerations, references and
 * aggregates, from the entity metadata of @ifc-lite/parser (IFC4 ADD2 TC1, ISO 16739-1).
 */
import { SCHEMA_REGISTRY } from '@ifc-lite/parser';
import type { StepFile, StepValue } from '../../src/core/exchange/step/part21';

type Attribute = (typeof SCHEMA_REGISTRY.entities)[string]['attributes'][number];

const entityByName = new Map(
	Object.values(SCHEMA_REGISTRY.entities).map((one) => [one.name.toUpperCase(), one])
);
const typeByName = new Map(Object.keys(SCHEMA_REGISTRY.types).map((name) => [name.toUpperCase(), name]));

/** Attributes a subtype derives, written as *. Source: IFC4 schema, DERIVE of IfcSIUnit. */
const derived = new Set(['IfcSIUnit.Dimensions']);

function isKindOf(name: string, wanted: string): boolean {
	for (let at: string | undefined = name; at; at = SCHEMA_REGISTRY.entities[at]?.parent)
		if (at === wanted) return true;
	return false;
}

/** A select's members, selects within selects included. */
function membersOf(select: string): string[] {
	return (SCHEMA_REGISTRY.selects[select] ?? []).flatMap((one) =>
		SCHEMA_REGISTRY.selects[one] ? membersOf(one) : [one]
	);
}

const simple: Record<string, (value: StepValue) => boolean> = {
	REAL: (v) => typeof v === 'number',
	NUMBER: (v) => typeof v === 'number',
	INTEGER: (v) => typeof v === 'number' && Number.isInteger(v),
	STRING: (v) => typeof v === 'object' && v !== null && 'text' in v,
	BINARY: (v) => typeof v === 'object' && v !== null && 'text' in v,
	BOOLEAN: (v) => typeof v === 'object' && v !== null && 'name' in v && ['T', 'F'].includes(v.name),
	LOGICAL: (v) => typeof v === 'object' && v !== null && 'name' in v && ['T', 'F', 'U'].includes(v.name)
};

/** What is wrong with a value of a type, or null. */
function faultOf(file: StepFile, type: string, value: StepValue): string | null {
	const shown = JSON.stringify(value).slice(0, 60);
	if (type.endsWith('[]')) {
		if (!Array.isArray(value)) return `a list of ${type} is wanted, not ${shown}`;
		for (const one of value) {
			const fault = faultOf(file, type.slice(0, -2), one);
			if (fault) return fault;
		}
		return null;
	}
	const members = SCHEMA_REGISTRY.selects[type] ? membersOf(type) : null;
	if (members || SCHEMA_REGISTRY.entities[type]) {
		if (typeof value !== 'object' || value === null) return `${type} is wanted, not ${shown}`;
		if ('ref' in value) {
			const [record] = file.records(value.ref);
			const name = entityByName.get(record!.type)?.name ?? '?';
			return (members ?? [type]).some((one) => isKindOf(name, one))
				? null
				: `#${value.ref} is ${name}, not ${type}`;
		}
		if (members && 'type' in value) {
			const name = typeByName.get(value.type) ?? '?';
			if (!members.includes(name)) return `${name} is not of ${type}`;
			return value.values.length === 1 ? faultOf(file, name, value.values[0]!) : `${name} takes one value`;
		}
		return `${type} is wanted, not ${shown}`;
	}
	const names = SCHEMA_REGISTRY.enums[type];
	if (names)
		return typeof value === 'object' && value !== null && 'name' in value && names.includes(value.name)
			? null
			: `${shown} is not of ${type}`;
	const underlying = SCHEMA_REGISTRY.types[type];
	if (underlying && underlying !== type) return faultOf(file, underlying, value);
	const check = simple[type.replace(/\(.*/, '')];
	if (!check) return `the schema says nothing of ${type}`;
	return check(value) ? null : `${type} is wanted, not ${shown}`;
}

function attributeFault(file: StepFile, attribute: Attribute, value: StepValue): string | null {
	if (value === null) return attribute.optional ? null : 'must not be empty';
	if (!(attribute.isList || attribute.isSet || attribute.isArray))
		return faultOf(file, attribute.type, value);
	if (!Array.isArray(value)) return 'a list is wanted';
	const [least, most] = attribute.arrayBounds ?? [0, null];
	if (value.length < (least ?? 0) || (most && value.length > most))
		return `${value.length} members, ${least} to ${most ?? 'any number'} are wanted`;
	for (const one of value) {
		const fault = faultOf(file, attribute.type, one);
		if (fault) return fault;
	}
	return null;
}

/** Every fault of every instance, as sentences; `most` at the most. */
export function schemaFaults(file: StepFile, most = 20): string[] {
	const faults: string[] = [];
	for (const type of file.allTypes) {
		const entity = entityByName.get(type);
		if (!entity) {
			faults.push(`${type} is not in ${SCHEMA_REGISTRY.name}`);
			continue;
		}
		if (entity.isAbstract) faults.push(`${entity.name} is abstract`);
		const attributes = entity.allAttributes ?? entity.attributes;
		for (const id of file.ids(type)) {
			const [record] = file.records(id);
			const values = record!.values;
			if (values.length !== attributes.length)
				faults.push(`#${id} ${entity.name}: ${values.length} attributes, ${attributes.length} are wanted`);
			attributes.forEach((attribute, k) => {
				const value = values[k] ?? null;
				const full = `${entity.name}.${attribute.name}`;
				const fault =
					value === '*'
						? derived.has(full)
							? null
							: 'is not derived'
						: derived.has(full)
							? 'has to be *'
							: attributeFault(file, attribute, value);
				if (fault) faults.push(`#${id} ${full}: ${fault}`);
			});
			if (faults.length >= most) return faults;
		}
	}
	return faults;
}
