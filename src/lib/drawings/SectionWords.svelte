<script lang="ts">
	/** Where a section cuts, as a sentence. */
	import { lookings, type Section } from '$core/project/drawings-schema';
	import { below, pathTo, removeAt, setAt } from '$core/project/typed-path';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import ValueChip from '$lib/frame/ValueChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';

	let { section, name }: { section: Section; name: string } = $props();
	const desk = useDesk();
	const path = $derived(pathTo('drawings', 'sections', section.id));
	const options = lookings.map((value) => ({ value, label: value }));
	const isAlongY = $derived(section.looking === 'north' || section.looking === 'south');
</script>

<p class="sentence flex items-center gap-1.5 text-[14px]!">
	Looking <ChoiceChip
		value={section.looking}
		{options}
		label="Looking"
		onchoose={(looking) => desk.do(`${name} looking ${looking}`, setAt(below(path, 'looking'), looking))}
	/>, cut at {isAlongY ? 'y' : 'x'} = <ValueChip
		path={below(path, 'at')}
		value={section.at}
		kind="length"
		label="Place of the cut"
		of={name}
		step={100}
	/>
	<button
		type="button"
		class="plain-button ml-2 font-sans text-[13px]!"
		onclick={() => desk.do(`${name} removed`, removeAt(path))}>Remove</button
	>
</p>
