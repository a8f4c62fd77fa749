<script lang="ts">
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import { formatLength } from '$core/units/quantity';
	import { useDesk } from '$lib/state/desk.svelte';
	import {
		cssOf,
		curvatureWords,
		isMeasured,
		reachOf,
		surfaceColours,
		type SurfaceView
	} from '$lib/state/surface-view';

	const desk = useDesk();
	const surface = $derived(desk.surface);
	const masses = $derived(desk.model.view.masses);
	const colour = $derived(surface.colour);
	const reach = $derived(isMeasured(colour) ? reachOf(masses, colour, desk.selection.faces) : 0);
	const STOPS = 9;
	const change = (part: Partial<SurfaceView>) => (desk.surface = { ...surface, ...part });

	const legends = {
		gaussian: 'Saddles to the left, domes to the right. What is not 0 cannot be unrolled.',
		mean: 'Bulging out to the left, hollow to the right.',
		deviation: 'How far evened faces are from what they were made from; others stay plain.'
	};
	const switches = [
		['isolines', 'lines'],
		['handles', 'handles']
	] as const;
</script>

<section class="band" aria-label="Surface" data-testid="surface">
	<p class="sentence">
		Show faces in
		<ChoiceChip
			value={colour}
			options={surfaceColours}
			label="Show faces in"
			onchoose={(next) => change({ colour: next })}
		/>
	</p>
	{#if isMeasured(colour)}
		{@const from = colour === 'deviation' ? 0 : -reach}
		<div class="w-64 min-w-40" title={legends[colour]}>
			<div
				class="h-2.5 rounded-sm"
				style:background="linear-gradient(to right, {Array.from({ length: STOPS }, (_, k) =>
					cssOf(from + ((reach - from) * k) / (STOPS - 1), colour, reach)
				).join(',')})"
				aria-hidden="true"
			></div>
			<div class="figures text-ink-2 mt-0.5 flex justify-between text-[11px]" data-testid="curvature-legend">
				{#if colour === 'deviation'}
					<span>0</span><span>{formatLength(reach, desk.display, 2)}</span>
				{:else}
					<span>{colour === 'mean' ? 'out, ' : ''}{curvatureWords(-reach, colour)}</span>
					<span>{colour === 'mean' ? 'flat' : '0'}</span>
					<span>{colour === 'mean' ? 'in, ' : ''}{curvatureWords(reach, colour)}</span>
				{/if}
			</div>
		</div>
	{/if}
	<div class="flex gap-1.5">
		{#each switches as [key, label] (key)}
			<button
				type="button"
				class="rounded-full border px-2.5 py-[2px] text-[12px] {surface[key]
					? 'border-patina text-patina font-semibold'
					: 'border-hair text-ink-2'}"
				aria-pressed={surface[key]}
				onclick={() => change({ [key]: !surface[key] })}>{label}</button
			>
		{/each}
	</div>
	<p class="text-ink-2 text-[11.5px] leading-snug whitespace-normal max-lg:hidden">
		{#if isMeasured(colour)}{legends[colour]}{:else}Choose a face, then drag its dots; with Shift, straight up
			or down.{/if}
	</p>
</section>
