<script lang="ts">
	import Scan from '@lucide/svelte/icons/scan';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { Section } from '$core/project/view-schema';
	import type { Snippet } from 'svelte';
	import { viewNames, type ViewName } from './eye';

	/** What can be done with the picture of the model. */
	interface Props {
		/** The view the eye stands in, if it stands in one. */
		name: ViewName | null;
		onlook: (name: ViewName) => void;
		onwhole: () => void;
		/** A section to begin with. */
		section: () => Section;
		/** Looks and kept views. */
		more: Snippet;
	}
	let { name, onlook, onwhole, section, more }: Props = $props();
	const desk = useDesk();
	const look = (on: boolean) =>
		`bg-sheet rounded-full border px-2.5 py-[3px] text-[12px] ${
			on ? 'border-patina text-patina font-semibold' : 'border-hair text-ink-2 hover:border-ink-3'
		}`;
</script>

<div
	class="absolute right-14 bottom-3 left-3.5 flex flex-wrap-reverse gap-1.5 gap-x-3"
	style:pointer-events="none"
>
	<div class="pointer-events-auto flex gap-1.5" role="group" aria-label="Views">
		<button
			type="button"
			class="{look(false)} flex items-center"
			aria-label="Whole model"
			title="Whole model (Home)"
			onclick={onwhole}><Scan size={14} /></button
		>
		{#each viewNames as one (one)}
			<button type="button" class={look(name === one)} aria-pressed={name === one} onclick={() => onlook(one)}
				>{one}</button
			>
		{/each}
	</div>
	<div class="pointer-events-auto flex gap-1.5" role="group" aria-label="Looking closer">
		<button
			type="button"
			class={look(desk.section !== null)}
			aria-pressed={desk.section !== null}
			onclick={() => (desk.section = desk.section ? null : section())}
			>Section <kbd class="key-cap">C</kbd></button
		>
		<button
			type="button"
			class={look(desk.measures)}
			aria-pressed={desk.measures}
			onclick={() => (desk.measures = !desk.measures)}>Measure <kbd class="key-cap">D</kbd></button
		>
		<button
			type="button"
			class={look(desk.labels)}
			aria-pressed={desk.labels}
			onclick={() => (desk.labels = !desk.labels)}>Labels <kbd class="key-cap">L</kbd></button
		>
		{@render more()}
	</div>
</div>
