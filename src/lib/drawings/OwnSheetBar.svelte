<script lang="ts">
	/** What is done with a sheet that is laid out by hand. */
	import { ways } from '$core/project/own-sheet-schema';
	import AddOne from '$lib/components/AddOne.svelte';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { toast } from 'svelte-sonner';
	import type { LayingOut } from './laying-out.svelte';
	import SheetDimensions from './SheetDimensions.svelte';
	import ViewWords from './ViewWords.svelte';
	import { viewOffers, type ViewOffer } from './view-offers';

	let { number, laying }: { number: string; laying: LayingOut } = $props();
	const desk = useDesk();
	const zones = $derived(
		desk.model.view.zones.map(({ id, faces }) => ({
			id,
			name: desk.project.document.zones.find((zone) => zone.id === id)?.name ?? id,
			faces: faces.length
		}))
	);
	const offers = $derived(viewOffers(desk.project.document, zones));
	const words = $derived(
		laying.chosen?.is === 'written'
			? (laying.sheet?.written.find(({ id }) => id === laying.chosen?.id) ?? null)
			: null
	);
	/** What is being drawn to find its room. */
	let awaited = $state<string | null>(null);
	async function add({ label, of }: ViewOffer) {
		awaited = label;
		try {
			const place = await desk.model.service.placeForView(number, of);
			if (place) laying.addView(of, label, place);
		} catch (error) {
			toast.error(`${label} cannot be shown: ${(error as Error).message}`);
		} finally {
			awaited = null;
		}
	}
	const wayOptions = ways.map((value) => ({ value, label: value }));
	/** What is to be done next while something is measured. */
	const next = $derived(
		['click its first point', 'click its second point', 'click where its line lies'][
			laying.measuring?.points.length ?? 0
		]
	);
</script>

{#if laying.sheet}
	{#if laying.measuring}
		<p class="sentence flex items-center gap-1.5 text-[14px]!" role="status">
			Measured <ChoiceChip
				value={laying.measuring.way}
				options={wayOptions}
				label="Measured"
				onchoose={(way) => laying.measuring && (laying.measuring = { ...laying.measuring, way })}
			/>: {next}.
			<button
				type="button"
				class="plain-button ml-2 font-sans text-[13px]!"
				onclick={() => (laying.measuring = null)}>Done</button
			>
		</p>
	{:else if laying.view}
		<ViewWords view={laying.view} {laying} />
	{:else if words}
		<p class="sentence flex items-center gap-1.5 text-[14px]!">
			Words: <TextChip
				value={words.text}
				label="Words"
				look="name"
				oncommit={(text) => laying.reword(words.id, text)}
			/>
			<button
				type="button"
				class="plain-button ml-2 font-sans text-[13px]!"
				onclick={() => laying.remove({ is: 'written', id: words.id })}>Remove words</button
			>
		</p>
	{:else}
		<b class="font-semibold">{number}</b>
		<TextChip
			value={laying.sheet.title}
			label="Title of the sheet"
			look="name"
			oncommit={(title) => laying.rename(title)}
		/>
		{#if awaited}<span class="text-ink-2" role="status">Drawing {awaited} …</span>
		{:else}<AddOne label="View" {offers} onadd={(offer) => void add(offer)} />{/if}
		<button
			type="button"
			class="plain-button"
			disabled={!laying.sheet.views.length}
			title={laying.sheet.views.length ? '' : 'A dimension is measured in a view: add one first'}
			onclick={() => (laying.measuring = { way: 'along', view: null, points: [] })}>Measure</button
		>
		<SheetDimensions {number} {laying} />
		<button type="button" class="plain-button" onclick={() => laying.write()}>Write words</button>
		<button type="button" class="plain-button" onclick={() => laying.drop()}>Remove sheet</button>
	{/if}
{/if}
