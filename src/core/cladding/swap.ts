import { inputKind } from '../part/inputs';
import type { Edit } from '../project/commands';
import type { PartDefinition, PartInput } from '../project/part-definition';
import type { Project, Variant } from '../project/schema';

/** What becomes of a variant whose part is swapped for another. */
export interface Swap {
	readonly edits: readonly Edit[];
	/** Labels of inputs whose values stay, and of those that the other part does not have. */
	readonly kept: readonly string[];
	readonly dropped: readonly string[];
}

/** Whether one input's values can be taken for the other's. */
function agrees(one: PartInput, other: PartInput | undefined, value: unknown): boolean {
	if (!other || one.kind !== other.kind) return false;
	if (other.options) return other.options.some(({ name }) => name === value);
	const { min = -Infinity, max = Infinity } = other;
	return typeof value !== 'number' || (value >= min && value <= max);
}

/**
 * Put another part in a variant's place, wherever it is used: pieces stay where they are, and every value
 * stays that both parts have by name and kind, within the other's range.
 */
export function swapPart(project: Project, variant: Variant, from: PartDefinition, to: PartDefinition): Swap {
	const input = (part: PartDefinition, name: string) => part.inputs.find((one) => one.name === name);
	const kept: string[] = [];
	const dropped: string[] = [];
	const sorted = (name: string, stays: boolean) => {
		const label = input(from, name)?.label ?? name;
		const list = stays ? kept : dropped;
		if (!list.includes(label)) list.push(label);
		return stays;
	};
	const values = Object.entries(variant.values).filter(([name, value]) => {
		const own = input(from, name);
		return sorted(name, own !== undefined && agrees(own, input(to, name), value));
	});
	const next: Variant = { ...variant, part: to.id, values: Object.fromEntries(values) };
	const edits: Edit[] = [{ do: 'set', path: `variants/${variant.id}`, value: next }];
	// Formulas that set values piece by piece stay where the other part takes such a value piece by piece too.
	for (const zone of project.zones)
		for (const rule of zone.rules) {
			if (rule.put === 'open' || rule.put.variant !== variant.id) continue;
			const stays = Object.entries(rule.put.values).filter(([name]) => {
				const [own, other] = [input(from, name), input(to, name)];
				const alike =
					own !== undefined &&
					other?.scope === 'per piece' &&
					inputKind(own) === inputKind(other) &&
					own.kind === other.kind;
				return sorted(name, alike);
			});
			if (stays.length < Object.keys(rule.put.values).length)
				edits.push({
					do: 'set',
					path: `zones/${zone.id}/rules/${rule.id}/put/values`,
					value: Object.fromEntries(stays)
				});
		}
	return { edits, kept, dropped };
}
