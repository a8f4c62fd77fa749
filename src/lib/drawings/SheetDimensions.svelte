<script lang="ts">
	/** The dimensions of a sheet, each as a sentence: by keyboard, and those that have lost a point. */
	import { ways } from '$core/project/own-sheet-schema';
	import { below, setAt } from '$core/project/typed-path';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { Popover } from 'bits-ui';
	import type { LayingOut } from './laying-out.svelte';

	let { number, laying }: { number: string; laying: LayingOut } = $props();
	const desk = useDesk();
	const dimensions = $derived(laying.sheet?.dimensions ?? []);
	const lost = $derived(new Set(laying.layout?.lost ?? []));
	const told = $derived(
		[
			dimensions.length === 1 ? 'one dimension' : `${dimensions.length || 'no'} dimensions`,
			...(lost.size ? [`${lost.size} without a point`] : [])
		].join(', ')
	);
	/** Between the two points nearest to the eye; which ones it is to be is said in its sentence. */
	async function add() {
		const view = laying.view?.id ?? laying.sheet?.views[0]?.id;
		if (!view) return;
		const [from, to] = await desk.model.service.sheetPoints(number, view).catch(() => []);
		if (from && to) laying.measure({ view, from: from.address, to: to.address, way: 'along', off: 8 });
	}
	const options = ways.map((value) => ({ value, label: value }));
</script>

{#if laying.sheet?.views.length}
	<Popover.Root>
		<Popover.Trigger class={['chip-choice', lost.size && 'text-oxide']} aria-label="Dimensions: {told}"
			>{told}</Popover.Trigger
		>
		<Popover.Portal>
			<Popover.Content
				class="floating z-40 max-h-96 w-120 overflow-auto p-3 text-[13px]"
				sideOffset={8}
				collisionPadding={10}
				aria-label="Dimensions"
			>
				{#each dimensions as { id, view, from, to, way, off } (id)}
					<div class="border-hair mb-2 border-b pb-2 last:mb-0 last:border-0 last:pb-0">
						<p class="mb-1 flex items-baseline gap-1.5">
							<ChoiceChip
								value={way}
								{options}
								label="Measured"
								onchoose={(next) =>
									desk.do(`dimension ${next}`, setAt(below(laying.dimensionPath(id), 'way'), next))}
							/>
							in {laying.titleOf(view)}, its line
							<ValueChip
								path={below(laying.dimensionPath(id), 'off')}
								value={off}
								kind="length"
								label="Distance"
								of="dimension"
								step={1}
							/> off
							<button
								type="button"
								class="text-ink-2 hover:text-ink ml-auto"
								aria-label="Remove the dimension {way}"
								onclick={() => laying.remove({ is: 'dimension', id })}>×</button
							>
						</p>
						{#each [['from', from], ['to', to]] as const as [end, address] (end)}
							<p class="text-ink-2 flex items-baseline gap-1.5">
								{end}
								<TextChip
									value={address}
									label="Point it is measured {end}"
									look="formula"
									oncommit={(text) =>
										desk.do(`dimension ${end} ${text}`, setAt(below(laying.dimensionPath(id), end), text))}
								/>
							</p>
						{/each}
						{#if lost.has(id)}<p class="text-oxide mt-1">
								One of these points is there no more, or not in this view: it is not drawn. Say another, or
								remove it.
							</p>{/if}
					</div>
				{:else}
					<p class="text-ink-2 mb-2">
						Nothing is measured yet: <i>Measure</i> takes points by clicks, + Dimension by their addresses.
					</p>
				{/each}
				<button type="button" class="plain-button" onclick={() => void add()}>+ Dimension</button>
			</Popover.Content>
		</Popover.Portal>
	</Popover.Root>
{/if}
