import { same } from '../../units/same';
import { NONE, real, text, typed, type StepRef, type StepValue } from '../step/text';
import { StepWriter } from '../step/writer';
import { globalIds } from './global-id';

/** mm, m², m³, kg: a mm³ and a mg are still told. */
const quantityDecimals = { LENGTH: 6, AREA: 9, VOLUME: 9, WEIGHT: 6 } as const;
type QuantityKind = keyof typeof quantityDecimals;

/** What something measures, each under its name. */
export type Quantities = readonly (readonly [QuantityKind, string, number])[];

/** A property that many have alike: its type, and how much. */
export interface Measure {
	readonly type: string;
	readonly value: number;
}
const MEASURE_DECIMALS = 6;

/** Properties, each under its name; several values are a list of their own. */
export type Properties = readonly (readonly [string, string | readonly string[] | Measure])[];

/** A set of quantities, and what has it. */
interface AlikeSet {
	readonly name: string;
	readonly quantities: readonly StepRef[];
	readonly set: StepRef;
	readonly role: string;
	readonly of: StepRef[];
}

/** What every part of the file is written with: rooted entities, their sets and relations, places. */
export class IfcFile {
	readonly step: StepWriter;
	/** From what is there for good: renaming changes none. */
	private readonly globalId: (role: string) => Uint8Array;
	/** What many have alike is written once: by what it is called, and by its value as it is told. */
	private readonly measured = new Map<string, Map<number, StepRef>>();
	/** Sets of quantities, by the last written of what is in them: that tells nearly all apart without a text of each. */
	private readonly alike = new Map<StepRef, AlikeSet[]>();
	private readonly names = new Map<string, string>();

	/** @param projectId permanent, so that GlobalIds are @param header lines of the file's own */
	constructor(projectId: string, header: readonly string[]) {
		this.step = new StepWriter(header);
		this.globalId = globalIds(`${projectId}|`);
	}

	/** An entity that is found again by its id. @param role that no other has */
	rooted(entity: string, role: string, name: string, ...attributes: readonly StepValue[]): StepRef {
		return this.step.add(entity, this.globalId(role), NONE, text(name), NONE, ...attributes);
	}

	aggregate(role: string, whole: StepRef, parts: readonly StepRef[]): void {
		if (parts.length) this.rooted('IFCRELAGGREGATES', `${role} parts`, `Parts of the ${role}`, whole, parts);
	}

	axesAt(origin: readonly number[]): StepRef {
		const point = this.step.once(
			'IFCCARTESIANPOINT',
			origin.map((value) => real(value))
		);
		return this.step.once('IFCAXIS2PLACEMENT3D', point, NONE, NONE);
	}

	properties(of: StepRef, role: string, name: string, values: Properties): void {
		this.define(`${name} to ${role}`, [of], this.propertySet(role, name, values));
	}

	/** Say that some things have a set of properties or quantities. */
	define(role: string, of: readonly StepRef[], set: StepRef): void {
		this.step.add('IFCRELDEFINESBYPROPERTIES', this.globalId(role), NONE, NONE, NONE, of, set);
	}

	private property(key: string, value: Properties[number][1]): StepRef {
		const { step } = this;
		if (typeof value === 'string')
			return step.add('IFCPROPERTYSINGLEVALUE', this.named(key), NONE, value, NONE);
		if (!('type' in value)) return step.add('IFCPROPERTYLISTVALUE', this.named(key), NONE, value, NONE);
		return this.once(key, value.value, MEASURE_DECIMALS, (amount) =>
			this.property(key, typed(value.type, amount))
		);
	}

	/** The name of a property as it is told: there are few, and each is told of every piece. */
	private named(key: string): string {
		const known = this.names.get(key);
		if (known !== undefined) return known;
		const name = text(key);
		this.names.set(key, name);
		return name;
	}

	/** @param make of the value as it is told */
	private once(key: string, value: number, decimals: number, make: (amount: string) => StepRef): StepRef {
		let known = this.measured.get(key);
		if (!known) this.measured.set(key, (known = new Map()));
		const parts = Math.round(value * 10 ** decimals);
		let made = known.get(parts);
		if (made === undefined) known.set(parts, (made = make(real(value, decimals))));
		return made;
	}

	propertySet(role: string, name: string, values: Properties): StepRef {
		const all = values.map(([key, value]) => this.property(key, value));
		return this.rooted('IFCPROPERTYSET', `${name} of ${role}`, name, all);
	}

	/** What several pieces measure alike is one set, which {@link relate} says they have. @param role of the first of them */
	quantities(of: StepRef, role: string, name: string, values: Quantities): void {
		const { step } = this;
		const all = values.map(([kind, key, value]) =>
			this.once(key, value, quantityDecimals[kind], (amount) =>
				step.add(`IFCQUANTITY${kind}`, this.named(key), NONE, NONE, amount, NONE)
			)
		);
		const last = all.reduce((most, one) => Math.max(most, one), 0);
		const alike = this.alike.get(last) ?? [];
		const known = alike.find((one) => one.name === name && same(one.quantities, all));
		if (known) {
			known.of.push(of);
			return;
		}
		const set = this.rooted('IFCELEMENTQUANTITY', `${name} of ${role}`, name, NONE, all);
		alike.push({ name, quantities: all, set, role: `${name} to ${role}`, of: [of] });
		this.alike.set(last, alike);
	}

	/** Say what has which quantities, when all is written. */
	relate(): void {
		for (const alike of this.alike.values())
			for (const { role, of, set } of alike) this.define(role, of, set);
	}
}
