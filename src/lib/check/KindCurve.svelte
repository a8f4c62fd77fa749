<script lang="ts">
	/** How many kinds there are at other tolerances; each can be taken. */
	import { below, pathTo } from '$core/project/typed-path';
	import { counted } from '$core/units/counted';
	import { formatNumber, formatQuantity } from '$core/units/quantity';
	import Unfold from '$lib/components/Unfold.svelte';
	import { useDesk } from '$lib/state/desk.svelte';

	const desk = useDesk();
	const { like } = $derived(desk.project.document);
	/** mm, each twice to two and a half times the one before. */
	const TOLERANCES = [0.2, 0.5, 1, 2, 5, 10, 20, 50];
	let isOpen = $state(false);
	/** By model, since it is another curve when that changes. */
	let found = $state.raw<{ readonly of: unknown; readonly counts: readonly number[] } | null>(null);
	const most = $derived(Math.max(1, ...(found?.counts ?? [])));
	$effect(() => {
		const of = desk.kinds.now;
		if (!isOpen || !of || found?.of === of) return;
		const { mirrored, tolerance } = like;
		void desk.model.service
			.kindsOver({ mirrored, tolerance }, TOLERANCES)
			.then((counts) => {
				if (counts) found = { of, counts };
			})
			// Another model is on its way.
			.catch(() => undefined);
	});
</script>

<div class="border-hair mt-2 border-t pt-1.5">
	<Unfold bind:open={isOpen} more="With more or less tolerance" less="At this tolerance alone">
		{#if !found}<p class="text-ink-2" role="status">counting …</p>{:else}
			<ul class="mt-1" aria-label="Kinds over tolerance">
				{#each TOLERANCES as tolerance, k (tolerance)}
					<li>
						<button
							type="button"
							class="hover:bg-wash grid w-full grid-cols-[52px_1fr_40px] items-center gap-2 px-1 py-[2px] text-left"
							aria-pressed={like.tolerance === tolerance}
							aria-label="{counted(found.counts[k]!, 'kind')} at {tolerance} mm: take it"
							onclick={() =>
								desk.set(below(pathTo('like'), 'tolerance'), tolerance, `kinds within ${tolerance} mm`)}
							><span class="figures text-right">{formatQuantity(tolerance, 'length')}</span><span
								class={['h-2 rounded-full', like.tolerance === tolerance ? 'bg-patina' : 'bg-ink/25']}
								style:width="{(100 * found.counts[k]!) / most}%"
							></span><span class="figures text-right">{formatNumber(found.counts[k]!)}</span></button
						>
					</li>
				{/each}
			</ul>
		{/if}
	</Unfold>
</div>
