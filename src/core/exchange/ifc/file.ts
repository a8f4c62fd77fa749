import { exactReal, list, NONE, real, StepWriter, text, type StepValue } from '../step/text';
import { globalId } from './global-id';

/** What every part of the file is written with: rooted entities, their sets and relations, places. */
export class IfcFile {
	readonly step = new StepWriter();

	/** @param projectId permanent, so that GlobalIds are */
	constructor(private readonly projectId: string) {}

	/** From what is there for good: renaming changes none. */
	private id(role: string): StepValue {
		return text(globalId(`${this.projectId}|${role}`));
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
		const { step } = this;
		const all = values.map(([key, value]) =>
			typeof value === 'string'
				? step.once('IFCPROPERTYSINGLEVALUE', text(key), NONE, value, NONE)
				: step.add('IFCPROPERTYLISTVALUE', text(key), NONE, list(value), NONE)
		);
		const set = step.add('IFCPROPERTYSET', ...this.root(`${name} of ${role}`, name), list(all));
		step.add('IFCRELDEFINESBYPROPERTIES', this.id(`${name} to ${role}`), NONE, NONE, NONE, list([of]), set);
	}

	quantities(
		of: StepValue,
		role: string,
		name: string,
		values: readonly (readonly [string, string, number])[]
	): void {
		const { step } = this;
		const all = values.map(([kind, key, value]) =>
			step.add(`IFCQUANTITY${kind}`, text(key), NONE, NONE, exactReal(Number(value.toPrecision(9))), NONE)
		);
		const set = step.add('IFCELEMENTQUANTITY', ...this.root(`${name} of ${role}`, name), NONE, list(all));
		step.add('IFCRELDEFINESBYPROPERTIES', this.id(`${name} to ${role}`), NONE, NONE, NONE, list([of]), set);
	}
}
