import { list, NONE, real, text, type StepValue } from '../step/text';
import { StepWriter } from '../step/writer';
import { globalIds } from './global-id';

/** mm, m², m³, kg: a mm³ and a mg are still told. */
const quantityDecimals = { LENGTH: 6, AREA: 9, VOLUME: 9, WEIGHT: 6 } as const;
type QuantityKind = keyof typeof quantityDecimals;

/** What every part of the file is written with: rooted entities, their sets and relations, places. */
export class IfcFile {
	readonly step: StepWriter;
	private readonly globalId: (role: string) => string;

	/** @param projectId permanent, so that GlobalIds are @param header lines of the file's own */
	constructor(projectId: string, header: readonly string[]) {
		this.step = new StepWriter(header);
		this.globalId = globalIds(`${projectId}|`);
	}

	/** From what is there for good: renaming changes none. */
	private id(role: string): StepValue {
		return `'${this.globalId(role)}'`;
	}

	/** Attributes every rooted entity starts with. */
	root(role: string, name: string): StepValue[] {
		return [this.id(role), NONE, text(name), NONE];
	}

	aggregate(role: string, whole: StepValue, parts: readonly StepValue[]): void {
		if (parts.length)
			this.step.add(
				'IFCRELAGGREGATES',
				...this.root(`${role} parts`, `Parts of the ${role}`),
				whole,
				list(parts)
			);
	}

	axesAt(origin: readonly number[]): StepValue {
		const point = this.step.once('IFCCARTESIANPOINT', list(origin.map((value) => real(value))));
		return this.step.once('IFCAXIS2PLACEMENT3D', point, NONE, NONE);
	}

	/** @param values each under its name; several are a list of their own */
	properties(
		of: StepValue,
		role: string,
		name: string,
		values: readonly (readonly [string, StepValue | readonly StepValue[]])[]
	): void {
		this.define(`${name} to ${role}`, [of], this.propertySet(role, name, values));
	}

	/** Say that some things have a set of properties or quantities. */
	define(role: string, of: readonly StepValue[], set: StepValue): void {
		this.step.add('IFCRELDEFINESBYPROPERTIES', this.id(role), NONE, NONE, NONE, list(of), set);
	}

	/** @param values each under its name; several are a list of their own */
	propertySet(
		role: string,
		name: string,
		values: readonly (readonly [string, StepValue | readonly StepValue[]])[]
	): StepValue {
		const { step } = this;
		const all = values.map(([key, value]) =>
			typeof value === 'string'
				? step.add('IFCPROPERTYSINGLEVALUE', text(key), NONE, value, NONE)
				: step.add('IFCPROPERTYLISTVALUE', text(key), NONE, list(value), NONE)
		);
		return step.add('IFCPROPERTYSET', ...this.root(`${name} of ${role}`, name), list(all));
	}

	quantities(
		of: StepValue,
		role: string,
		name: string,
		values: readonly (readonly [QuantityKind, string, number])[]
	): void {
		const { step } = this;
		const all = values.map(([kind, key, value]) =>
			step.once(`IFCQUANTITY${kind}`, text(key), NONE, NONE, real(value, quantityDecimals[kind]), NONE)
		);
		const set = step.add('IFCELEMENTQUANTITY', ...this.root(`${name} of ${role}`, name), NONE, list(all));
		this.define(`${name} to ${role}`, [of], set);
	}
}
