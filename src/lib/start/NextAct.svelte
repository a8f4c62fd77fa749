<script lang="ts">
	/** What comes next in a project that is begun: offered over the model until it has been done once. */
	import { formatNumber } from '$core/units/quantity';
	import PutPart from '$lib/sheet/PutPart.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { Snippet } from 'svelte';

	const desk = useDesk();
	// Without what is only looked at, so that a list stays open over what it shows.
	const zones = $derived(desk.project.done.zones.filter(({ on }) => on.is === 'faces'));
	const zone = $derived(zones.find(({ id }) => id === desk.activeZone) ?? zones[0]);
	const state = $derived(desk.model.view.zones.find(({ id }) => id === zone?.id));
	const cells = $derived(state?.faces.reduce((sum, { cells: { count } }) => sum + count, 0) ?? 0);
	const [anyRule, anyRun] = $derived([
		zones.some(({ rules }) => rules.length > 0),
		zones.some(({ runs }) => runs.length > 0)
	]);
	let left = $state(false);
</script>

{#snippet offer(what: Snippet)}
	<!-- Beside the card of what is chosen, not beneath it. -->
	<div
		class={[
			'pointer-events-none absolute top-3.5 left-3.5 z-10 flex justify-center',
			desk.selection.last && !desk.measures ? 'right-[284px]' : 'right-3.5'
		]}
	>
		<div
			class="floating pointer-events-auto flex flex-wrap items-baseline gap-x-2 px-4 py-2"
			role="status"
			aria-label="Next"
		>
			{@render what()}
		</div>
	</div>
{/snippet}

{#if zone && cells && !left && !(anyRule && anyRun)}
	{#snippet put()}
		{#if !anyRule}
			<span class="sentence whitespace-nowrap!"
				><span class="figures">{formatNumber(cells)}</span> cells wait for a part:</span
			>
			<PutPart {zone} over="cell" say="choose one" label="Next, a part for the cells" />
		{:else}
			<span class="sentence whitespace-nowrap!">The lines between them are bare:</span>
			<PutPart {zone} over="line" say="run bars along them" label="Next, a part along lines" />
			<button type="button" class="text-ink-2 text-[12px] underline" onclick={() => (left = true)}
				>leave them so</button
			>
		{/if}
	{/snippet}
	{@render offer(put)}
{:else if zone && cells && !left && zones.length === 1 && desk.project.undoLabel?.includes('added')}
	{#snippet list()}
		<span class="sentence whitespace-nowrap!">It can be listed and ordered:</span>
		<a class="chip-offer" href="/project/{desk.project.id}/schedule">open the schedule</a>
		<button type="button" class="text-ink-2 text-[12px] underline" onclick={() => (left = true)}
			>not now</button
		>
	{/snippet}
	{@render offer(list)}
{/if}
