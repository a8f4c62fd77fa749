<script lang="ts">
	/** What is said of pieces, in colour: how many of each word, and which. */
	import X from '@lucide/svelte/icons/x';
	import { formatNumber } from '$core/units/quantity';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { Told } from '$lib/state/told-colours.svelte';

	let { told }: { told: Told } = $props();
	const desk = useDesk();
	const counts = $derived.by(() => {
		const counts = told.words.map(() => 0);
		for (const { word } of told.pieces) counts[word]!++;
		return counts;
	});
</script>

<aside
	class="floating absolute top-[70px] left-3.5 z-10 max-h-[calc(100%-120px)] w-[280px] overflow-auto px-3.5 py-3 text-[12.5px] max-xl:max-h-[calc(100%-150px)]"
	aria-label="What is said of pieces"
	data-testid="told"
>
	<h3 class="flex items-start justify-between gap-2 text-[13.5px] font-semibold">
		{told.title}
		<button
			type="button"
			class="text-ink-2 hover:bg-wash rounded"
			aria-label="Close these colours"
			onclick={() => (desk.told.shown = null)}><X size={14} /></button
		>
	</h3>
	{#if told.pieces.length}
		<ul class="mt-1.5">
			{#each told.words as { label, colour }, word (label)}
				{#if counts[word]}<li class="border-hair border-t">
						<button
							type="button"
							class="hover:bg-wash flex w-full items-center gap-2 px-1 py-1 text-left"
							title="Choose them"
							onclick={() => desk.selection.choose(desk.told.addressesOf(word).reverse())}
							><span
								class="border-ink/20 size-3 shrink-0 rounded-[2px] border"
								style:background={colour}
								aria-hidden="true"
							></span>{label}<span class="figures ml-auto">{formatNumber(counts[word]!)}</span></button
						>
					</li>{/if}
			{/each}
		</ul>
		{#if desk.told.elsewhere}<p class="text-ink-2 mt-1.5">
				{formatNumber(desk.told.elsewhere)} of them {desk.told.elsewhere === 1 ? 'is' : 'are'} no cell’s own: bars,
				parts on nodes, what stands no longer. They are lit when chosen.
			</p>{/if}
	{:else}<p class="sentence text-ink-2 mt-1 text-[14px]!">Nothing is said of any piece in the model.</p>{/if}
</aside>
