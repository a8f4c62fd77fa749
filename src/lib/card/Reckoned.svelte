<script lang="ts">
	/** All that is reckoned of a piece: each figure with its formula, what it is reckoned from, and where that is from. */
	import { formatQuantity } from '$core/units/quantity';
	import Unfold from '$lib/components/Unfold.svelte';
	import type { PieceView } from '$lib/state/pieces-at';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { ReckonedFigure } from '$lib/worker/reckoned';

	interface Props {
		piece: PieceView;
		/** The figure that is asked for, by its id. */
		asked?: string | null;
	}
	let { piece, asked = null }: Props = $props();
	const desk = useDesk();
	let isOpen = $state(false);
	$effect(() => {
		if (asked === null) return;
		isOpen = true;
		opened = asked;
	});
	let figures = $state.raw<readonly ReckonedFigure[] | null>(null);
	let opened = $state<string | null>(null);
	/** What was asked for elsewhere may lie out of sight. */
	const intoSight = (node: HTMLElement) => {
		if (asked !== null) node.scrollIntoView({ block: 'nearest' });
	};
	const { serial } = $derived(piece.group);
	$effect(() => {
		if (!isOpen) return;
		const { row } = piece;
		let left = false;
		figures = null;
		void desk.model.service
			.reckoned(serial, row)
			.then((found) => {
				if (!left) figures = found;
			})
			// Another model is on its way: its piece is asked when it stands.
			.catch(() => undefined);
		return () => (left = true);
	});
</script>

<div class="mt-1 text-[12px]" data-testid="reckoned">
	<Unfold bind:open={isOpen} more="All figures, and how they are reckoned" less="Fewer figures">
		{#if !figures}<p class="text-ink-2" role="status">reckoning …</p>{:else}
			<ul class="mt-1" aria-label="All figures">
				{#each figures as { id, label, kind, value, how, lacks, given } (id)}
					<li class="border-hair border-t">
						<button
							type="button"
							class="hover:bg-wash flex w-full items-baseline justify-between gap-3 py-[3px] text-left"
							aria-expanded={opened === id}
							onclick={() => (opened = opened === id ? null : id)}
							><span class="first-letter:uppercase">{label}</span><span class="figures shrink-0 text-[12px]"
								>{value === null
									? lacks
										? `waits for ${lacks}`
										: '–'
									: formatQuantity(value, kind, desk.display)}</span
							></button
						>
						{#if opened === id}<p class="text-ink-2 pb-1 leading-snug" {@attach intoSight}>{how}.</p>
							{#if given.length}<dl class="figures mb-1.5 grid grid-cols-[1fr_auto] gap-x-3 text-[11.5px]">
									{#each given as one, k (k)}
										<dt class="text-ink-2 font-sans">{one.label}</dt>
										<dd class="text-right">
											{Number.isFinite(one.value)
												? formatQuantity(one.value, one.kind, desk.display)
												: 'none'}
										</dd>
									{/each}
								</dl>{/if}{/if}
					</li>
				{/each}
			</ul>
		{/if}
	</Unfold>
</div>
