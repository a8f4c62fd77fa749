<script lang="ts">
	/** What a view shows and how large, as a sentence. */
	import { corners, sides, type PlacedView } from '$core/project/own-sheet-schema';
	import { below } from '$core/project/typed-path';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { LayingOut } from './laying-out.svelte';

	let { view, laying }: { view: PlacedView; laying: LayingOut } = $props();
	const desk = useDesk();
	const document = $derived(desk.project.document);
	const named = (values: readonly string[]) => values.map((value) => ({ value, label: value }));
	const zones = $derived(document.zones.map(({ id, name }) => ({ value: id, label: name })));
	const ofWhat = $derived([{ value: '', label: 'the whole' }, ...zones]);
	const sections = $derived(
		document.drawings.sections.map(({ id }, k) => ({
			value: id,
			label: `S-${String(k + 1).padStart(2, '0')}`
		}))
	);
	const title = $derived(laying.titleOf(view.id));
	const fault = $derived(laying.layout?.views.find(({ id }) => id === view.id)?.fault ?? null);
</script>

<p class="sentence flex items-center gap-1.5 text-[14px]!">
	{#if view.of.shows === 'elevation' || view.of.shows === 'picture'}
		{@const of = view.of}
		Seen from <ChoiceChip
			value={of.from}
			options={named(of.shows === 'elevation' ? sides : corners)}
			label="Seen from"
			onchoose={(from) => laying.show(view, { ...of, from } as typeof of, `from ${from}`)}
		/> of <ChoiceChip
			value={of.zone ?? ''}
			options={ofWhat}
			label="What is seen"
			onchoose={(zone) => laying.show(view, { ...of, zone: zone || null }, 'of another zone')}
		/>
	{:else if view.of.shows === 'section'}
		Section <ChoiceChip
			value={view.of.section}
			options={sections}
			label="Section"
			onchoose={(section) => laying.show(view, { shows: 'section', section }, 'is another section')}
		/>
	{:else}
		{@const of = view.of}
		<ChoiceChip
			value={of.zone}
			options={zones}
			label="Zone"
			onchoose={(zone) => laying.show(view, { ...of, zone, face: 1 }, 'of another zone')}
		/> laid flat, face <ValueChip
			path={below(laying.viewPath(view.id), 'of', 'face')}
			value={of.face}
			kind="count"
			label="Face"
			of={title}
			min={1}
		/>
	{/if}
	at 1 : <ValueChip
		path={below(laying.viewPath(view.id), 'scale')}
		value={view.scale}
		kind="count"
		label="Scale"
		of={title}
		step={10}
		min={1}
		max={100_000}
	/>
	<button
		type="button"
		class="plain-button ml-2 font-sans text-[13px]!"
		onclick={() => laying.remove({ is: 'view', id: view.id })}>Remove view</button
	>
	{#if fault}<span class="text-oxide ml-2">But {fault}.</span>{/if}
</p>
