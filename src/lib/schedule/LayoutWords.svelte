<script lang="ts">
	/** How a list is read, kept under a name: its columns, heads, order, filters and totals. */
	import { below, insertAt, pathTo, removeAt, setAt } from '$core/project/typed-path';
	import { scheduleTitles } from '$core/schedule/table';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import ChipInput from '$lib/components/ChipInput.svelte';
	import { freshId } from '$lib/edits/fresh-id';
	import { useDesk } from '$lib/state/desk.svelte';
	import type { ScheduleList } from './list.svelte';

	let { list }: { list: ScheduleList } = $props();
	const desk = useDesk();
	const OPENS = '-';
	const layouts = $derived(desk.project.document.schedules.layouts);
	const own = $derived(layouts.filter((one) => one.list === list.name));
	const chosen = $derived(own.find(({ id }) => id === list.layout) ?? null);
	const isChanged = $derived(!list.isAs(chosen));

	function keep() {
		const name = `${scheduleTitles[list.name]} ${own.length + 1}`;
		const id = freshId('layout', layouts);
		const layout = { id, name, list: list.name, ...$state.snapshot(list.reading) };
		if (desk.do(`layout ${name} kept`, insertAt(pathTo('schedules', 'layouts'), layouts.length, layout)))
			list.layout = id;
	}
	function keepIn(id: string, name: string) {
		const layout = { id, name, list: list.name, ...$state.snapshot(list.reading) };
		desk.do(`layout ${name} changed`, setAt(pathTo('schedules', 'layouts', id), layout));
	}
	let renaming = $state<string | null>(null);
	function rename() {
		const name = renaming?.trim();
		renaming = null;
		if (chosen && name && name !== chosen.name)
			desk.set(
				below(pathTo('schedules', 'layouts', chosen.id), 'name'),
				name,
				`layout ${chosen.name} → ${name}`
			);
	}
	function remove(id: string, name: string) {
		if (desk.do(`layout ${name} removed`, removeAt(pathTo('schedules', 'layouts', id)))) list.layout = null;
	}
	function choose(id: string) {
		list.layOut(own.find((one) => one.id === id) ?? null);
	}
	const button = 'text-ink-2 hover:text-patina-deep font-sans text-[12px] underline';
</script>

{#if own.length || isChanged}, laid out {#if renaming !== null && chosen}<ChipInput
			bind:value={renaming}
			label="Name of the layout"
			fault={null}
			width={24}
			onaccept={rename}
			onleave={() => (renaming = null)}
		/>{:else if own.length}<ChoiceChip
			value={chosen?.id ?? OPENS}
			options={[
				{ value: OPENS, label: 'as it opens' },
				...own.map(({ id, name }) => ({ value: id, label: name }))
			]}
			label="Layout"
			onchoose={choose}
		/>{:else}your way{/if}{#if isChanged}{own.length ? ', changed' : ''}:
		{#if chosen}<button type="button" class={button} onclick={() => keepIn(chosen.id, chosen.name)}
				>keep in {chosen.name}</button
			>{' '}{/if}<button type="button" class={button} onclick={keep}>keep as a layout</button>
		<button type="button" class={button} onclick={() => list.layOut(chosen)}>take back</button
		>{:else if chosen}{' '}<button type="button" class={button} onclick={() => (renaming = chosen.name)}
			>rename</button
		>
		<button type="button" class={button} onclick={() => remove(chosen.id, chosen.name)}>remove</button
		>{/if}{/if}.
