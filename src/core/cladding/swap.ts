import { inputKind } from '../part/inputs';
import type { Driver } from '../project/driver-schema';
import type { Edit } from '../project/edits';
import type { PartDefinition, PartInput } from '../project/part-definition';
import type { Project, Variant } from '../project/schema';
import { below, pathTo, setAt } from '../project/typed-path';

/** What becomes of a variant whose part is swapped for another. */
export interface Swap {
	readonly edits: readonly Edit[];
	/** Labels of inputs whose values stay, and of those that the other part does not have. */
	readonly kept: readonly string[];
	readonly dropped: readonly string[];
}

const inputOf = (part: PartDefinition, name: string) => part.inputs.find((one) => one.name === name);

/** Whether one input's values can be taken for the other's. */
function agrees(one: PartInput, other: PartInput | undefined, value: unknown): boolean {
	if (!other || one.kind !== other.kind) return false;
	if (other.options) return other.options.some(({ name }) => name === value);
	const { min = -Infinity, max = Infinity } = other;
	return typeof value !== 'number' || (value >= min && value <= max);
}

/** Sorts names of inputs into what stays and what is dropped, by their labels. */
class Sorting {
	readonly kept: string[] = [];
	readonly dropped: string[] = [];

	constructor(
		private readonly from: PartDefinition,
		private readonly to: PartDefinition
	) {}

	private sorted(name: string, stays: boolean): boolean {
		const label = inputOf(this.from, name)?.label ?? name;
		const list = stays ? this.kept : this.dropped;
		if (!list.includes(label)) list.push(label);
		return stays;
	}

	/** Values of a variant that the other part can take. */
	values(values: Variant['values']): Variant['values'] {
		return Object.fromEntries(
			Object.entries(values).filter(([name, value]) => {
				const own = inputOf(this.from, name);
				return this.sorted(name, own !== undefined && agrees(own, inputOf(this.to, name), value));
			})
		);
	}

	/** Formulas that set values piece by piece, where the other part takes such a value piece by piece too. */
	formulas(formulas: Readonly<Record<string, Driver>>): Record<string, Driver> {
		return Object.fromEntries(
			Object.entries(formulas).filter(([name]) => {
				const [own, other] = [inputOf(this.from, name), inputOf(this.to, name)];
				const alike =
					own !== undefined &&
					other?.scope === 'per piece' &&
					inputKind(own) === inputKind(other) &&
					own.kind === other.kind;
				return this.sorted(name, alike);
			})
		);
	}
}

/**
 * Put another part in a variant's place, wherever it is used: pieces stay where they are, and every value
 * stays that both parts have by name and kind, within the other's range.
 *
 * ```ts
 * const { edits, kept } = swapPart(project, variant, part, otherPart); // inputs of the same name stay
 * ```
 */
export function swapPart(project: Project, variant: Variant, from: PartDefinition, to: PartDefinition): Swap {
	const sorting = new Sorting(from, to);
	const next: Variant = { ...variant, part: to.id, values: sorting.values(variant.values) };
	const edits: Edit[] = [setAt(pathTo('variants', variant.id), next)];
	for (const zone of project.zones)
		for (const rule of zone.rules) {
			if (rule.put === 'open' || rule.put.variant !== variant.id) continue;
			const stays = sorting.formulas(rule.put.values);
			if (Object.keys(stays).length < Object.keys(rule.put.values).length)
				edits.push(setAt(below(pathTo('zones', zone.id, 'rules', rule.id), 'put', 'values'), stays));
		}
	return { edits, kept: sorting.kept, dropped: sorting.dropped };
}

/** What is put on single pieces instead of a variant: the variant of the other part, and formulas that stay. */
export interface PieceSwap {
	readonly variant: Variant;
	/** Whether the project has to be given it first. */
	readonly isNew: boolean;
	readonly values: Readonly<Record<string, Driver>>;
	readonly kept: readonly string[];
	readonly dropped: readonly string[];
}

/**
 * Another part for some pieces only: with the values of theirs that both parts have. A variant that has just
 * these is used again.
 *
 * ```ts
 * const { values } = swapPieces(project, variant, { depth: 'height / 10' }, part, otherPart);
 * ```
 * @param formulas what their rule sets piece by piece
 */
export function swapPieces(
	project: Project,
	variant: Variant,
	formulas: Readonly<Record<string, Driver>>,
	from: PartDefinition,
	to: PartDefinition
): PieceSwap {
	const sorting = new Sorting(from, to);
	const values = sorting.values(variant.values);
	const same = (one: Variant) =>
		one.part === to.id &&
		Object.keys(one.values).length === Object.keys(values).length &&
		Object.entries(values).every(([name, value]) => one.values[name] === value);
	const known = project.variants.find(same);
	const taken = new Set(project.variants.map(({ id }) => id));
	let id = variant.id;
	for (let n = 2; taken.has(id); n++) id = `${variant.id}-${n}`;
	return {
		variant: known ?? { ...variant, id, part: to.id, values },
		isNew: !known,
		values: sorting.formulas(formulas),
		kept: sorting.kept,
		dropped: sorting.dropped
	};
}
