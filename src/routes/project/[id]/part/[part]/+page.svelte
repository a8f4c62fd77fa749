<script lang="ts">
	import { page } from '$app/state';
	import TopBar from '$lib/frame/TopBar.svelte';
	import BenchSheet from '$lib/bench/BenchSheet.svelte';
	import BenchStage from '$lib/bench/BenchStage.svelte';
	import TrialCard from '$lib/bench/TrialCard.svelte';
	import TrialStrip from '$lib/bench/TrialStrip.svelte';
	import VariantTable from '$lib/bench/VariantTable.svelte';
	import { Bench } from '$lib/bench/bench.svelte';
	import { usesInWords } from '$lib/bench/uses';
	import { useDesk } from '$lib/state/desk.svelte';

	const desk = useDesk();
	const bench = $derived(new Bench(desk, page.params['part']!));
	let tab = $state<'make' | 'variants'>('make');
	const used = $derived(usesInWords(desk.project.document, desk.model.view, bench.id));
</script>

<svelte:head
	><title>{bench.part?.label ?? bench.id} · {desk.project.document.name} · Zygaster</title></svelte:head
>

<div class="grid h-screen grid-rows-[46px_1fr]">
	<TopBar page={bench.part?.label ?? bench.id}>
		{#snippet middle()}
			<div class="flex h-full items-center gap-5">
				<div class="flex h-full gap-0.5" role="tablist" aria-label="Of the part">
					{#each [['make', 'Make'], ['variants', 'Variants']] as const as [value, label] (value)}
						<button
							type="button"
							role="tab"
							aria-selected={tab === value}
							class="h-full border-b-2 px-3 {tab === value
								? 'border-patina font-semibold'
								: 'text-ink-2 border-transparent'}"
							onclick={() => (tab = value)}>{label}</button
						>
					{/each}
				</div>
				<span class="text-ink-2 text-[12.5px]" data-testid="uses"
					>{used ? `Used ${used}` : 'Not used yet'}</span
				>
				<a class="text-patina-deep text-[12.5px] underline" href="/project/{desk.project.id}/kit">Kit</a>
			</div>
		{/snippet}
	</TopBar>
	{#if !bench.part}
		<main class="grid place-items-center">
			<p class="sentence text-ink-2">
				The part "{bench.id}" is not in the kit.
				<a class="underline" href="/project/{desk.project.id}/kit">See what is</a>.
			</p>
		</main>
	{:else if tab === 'variants'}
		<main class="overflow-auto"><VariantTable part={bench.part} /></main>
	{:else}
		<main class="grid min-h-0 grid-cols-[392px_1fr]">
			<BenchSheet {bench} part={bench.part} />
			<div class="grid min-h-0 grid-rows-[1fr_142px]">
				<div class="relative min-h-0">
					<BenchStage {bench} />
					<TrialCard {bench} />
				</div>
				<div class="border-hair bg-sheet min-w-0 border-t"><TrialStrip {bench} /></div>
			</div>
		</main>
	{/if}
</div>
