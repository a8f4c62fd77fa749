<script lang="ts">
	/** What heat and light go through, and what that comes to by zone. */
	import { throughOf, type Through } from '$core/heat/shipped';
	import type { Material } from '$core/project/material-schema';
	import { below, insertAt, pathTo, setAt } from '$core/project/typed-path';
	import { formatNumber, formatQuantity } from '$core/units/quantity';
	import NumberChip from '$lib/components/NumberChip.svelte';
	import Clause from '$lib/frame/Clause.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';

	let { number }: { number: string } = $props();
	const desk = useDesk();
	const path = pathTo('heat');
	const { document } = $derived(desk.project);
	const heat = $derived(document.heat);
	/** Materials of units on cells, glass first. */
	const materials = $derived.by(() => {
		const found = new Map<string, Pick<Material, 'id' | 'label' | 'glass'>>();
		for (const { groups } of desk.model.view.zones)
			for (const { over, elements } of groups)
				if (over === 'cell') for (const { material } of elements) found.set(material.id, material);
		return [...found.values()].sort((a, b) => Number(b.glass) - Number(a.glass));
	});
	function set({ id, label }: (typeof materials)[number], through: Through) {
		const own = heat.materials.some((one) => one.id === id);
		const next = { id, ...through };
		desk.do(
			`heat through ${label}`,
			own
				? setAt(pathTo('heat', 'materials', id), next)
				: insertAt(pathTo('heat', 'materials'), heat.materials.length, next)
		);
	}
	const zones = $derived(
		document.zones.flatMap(({ id, name }) => {
			const own = desk.totals.now?.heat.get(id);
			return own ? [{ id, name, own }] : [];
		})
	);
</script>

{#if materials.length}
	<Clause {number} {path}>
		Through {#each materials as material, k (material.id)}{@const through = throughOf(heat, material)}{k
				? ', '
				: ''}{material.label}{' '}<NumberChip
				value={through.u}
				kind="transmittance"
				label="U of {material.label}"
				step={0.1}
				min={0}
				oncommit={(u) => set(material, { ...through, u })}
			/>{#if material.glass}{' '}and <NumberChip
					value={through.g ?? 0}
					kind="ratio"
					label="g of {material.label}"
					step={0.01}
					min={0}
					max={1}
					oncommit={(g) => set(material, { ...through, g })}
				/> of the sun{/if}{/each}; along the edges of panes <ValueChip
			path={below(path, 'spacer')}
			value={heat.spacer}
			kind="ratio"
			label="ψ of the spacer"
			of="Heat"
			step={0.01}
			min={0}
		/> W/mK.
		{#snippet outcome()}
			{#if zones.length}<table class="w-full" aria-label="Heat and light by zone">
					<thead class="text-left"
						><tr
							><th class="font-normal">of the units, by area</th><th class="text-right font-normal">U</th><th
								class="text-right font-normal">glass</th
							><th class="text-right font-normal">g</th></tr
						></thead
					>
					<tbody class="[&_td]:figures text-ink">
						{#each zones as { id, name, own } (id)}<tr
								><th class="max-w-32 truncate text-left font-normal" scope="row">{name}</th><td
									class="text-right">{formatQuantity(own.u, 'transmittance')}</td
								><td class="text-right">{formatNumber(100 * own.glassShare)} %</td><td class="text-right"
									>{formatNumber(own.g, 2)}</td
								></tr
							>{/each}
					</tbody>
				</table>{/if}{#if desk.selection.clause === path}<p>
					Reckoned: (Σ A U + Σ l ψ) / A, the component method of EN ISO 12631, from memory; what of a cell is
					no plate is frame.
				</p>{/if}
		{/snippet}
	</Clause>
{/if}
