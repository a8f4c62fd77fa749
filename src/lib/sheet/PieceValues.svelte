<script lang="ts">
	/** What a clause sets piece by piece: formulas over the fields of the sites it puts a part on. */
	import type { GridSite } from '$core/cladding/sites';
	import { fieldsOver } from '$core/field/fields';
	import type { PartDefinition } from '$core/project/part-definition';
	import { dimensionOf, type NumberKind } from '$core/units/dimension';
	import { checkFormula } from '$core/units/formula/check';
	import { numberOf } from '$core/units/formula/expression';
	import TextChip from '$lib/components/TextChip.svelte';

	let {
		values,
		part,
		over,
		onset
	}: {
		values: Readonly<Record<string, string>>;
		part: PartDefinition | undefined;
		over: GridSite;
		/** @param text null to take it from the variant again */
		onset: (name: string, text: string | null) => void;
	} = $props();

	const names = $derived(
		Object.fromEntries(
			fieldsOver(over).flatMap(({ name, kind }) => {
				const type = numberOf(dimensionOf(kind));
				return [
					[name, type],
					[`${over}.${name}`, type]
				];
			})
		)
	);
	function check(kind: NumberKind) {
		return (text: string) => {
			try {
				checkFormula(text, { names, functions: {}, expected: numberOf(dimensionOf(kind)) });
				return null;
			} catch (error) {
				return (error as Error).message;
			}
		};
	}
</script>

{#each Object.entries(values) as [name, text] (name)}
	{@const input = part?.inputs.find((one) => one.name === name)};
	<em>{(input?.label ?? name).toLowerCase()}</em> is
	<TextChip
		value={text}
		look="formula"
		label={input?.label ?? name}
		check={check((input?.kind ?? 'length') as NumberKind)}
		oncommit={(next) => onset(name, next)}
	/>
	<button
		type="button"
		class="text-ink-2 text-[12px] underline"
		onclick={() => onset(name, null)}
		aria-label="Take {name} from the variant again">reset</button
	>{/each}
