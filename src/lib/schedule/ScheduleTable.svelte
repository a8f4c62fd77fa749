<script lang="ts">
	import { scheduleTitles, type Column } from '$core/schedule/table';
	import { formatNumber } from '$core/units/quantity';
	import { useDesk } from '$lib/state/desk.svelte';
	import { createVirtualizer } from '@tanstack/svelte-virtual';
	import { untrack } from 'svelte';
	import { get } from 'svelte/store';
	import { cellText, headUnit, metres, widthOf } from './cells';
	import type { ScheduleList } from './list.svelte';

	/** The rows that are listed; only those in sight are on the page. */
	let { list }: { list: ScheduleList } = $props();
	const desk = useDesk();
	const display = $derived(desk.display);
	const template = $derived(list.columns.map(widthOf).join(' '));

	const ROW = 26;
	let viewport = $state<HTMLElement | null>(null);
	const settings = (count: number) => ({
		count,
		getScrollElement: () => viewport,
		estimateSize: () => ROW,
		overscan: 12
	});
	const virtual = createVirtualizer<HTMLElement, HTMLElement>(settings(0));
	$effect(() => {
		const count = list.lines.length;
		void viewport;
		untrack(() => get(virtual).setOptions(settings(count)));
	});
	let scrolledTo: string | null = null;
	$effect(() => {
		const { last } = desk.selection;
		if (!last || last === scrolledTo || !list.lines.length) return;
		const at = list.lineOf(last);
		// It may be in another list, which is looked at later.
		if (at < 0) return;
		scrolledTo = last;
		untrack(() => get(virtual).scrollToIndex(at, { align: 'auto' }));
	});

	function choose(row: number, extend: boolean) {
		const address = list.addressOf(row);
		scrolledTo = address;
		if (extend) desk.selection.toggle(address);
		else desk.selection.choose([address]);
	}
	function order({ key }: Column): 'ascending' | 'descending' | 'none' {
		if (list.sort?.key !== key) return 'none';
		return list.sort.descending ? 'descending' : 'ascending';
	}
	const arrows = { none: '', ascending: ' ↑', descending: ' ↓' } as const;
	function lookOf({ key, kind }: Column): string {
		if (kind !== 'text') return 'figures text-right text-[12px]';
		if (key === 'mark' || key === 'address') return 'figures text-[12px]';
		return key === 'flags' ? 'text-oxide' : '';
	}
</script>

{#snippet head(column: Column)}
	<div role="columnheader" aria-sort={order(column)} class={column.kind === 'text' ? '' : 'text-right'}>
		<button
			type="button"
			class={[
				'w-full truncate px-2.5 py-1.5 font-semibold text-inherit',
				column.kind === 'text' ? 'text-left' : 'text-right'
			]}
			onclick={() => list.sortBy(column)}
			>{column.title}
			<span class="text-ink-2 font-normal">{headUnit(column, display)}</span>{arrows[order(column)]}</button
		>
	</div>
{/snippet}

{#snippet groupHead(g: number, top: number)}
	{@const group = list.groups[g]!}
	<div
		role="row"
		class="border-hair absolute inset-x-0 flex items-center gap-3 border-b bg-[#EFEBDF] px-2.5 font-semibold"
		style:top="{top}px"
		style:height="{ROW}px"
	>
		<span role="cell">{list.column(list.groupBy)?.title} {group.label}</span>
		<span role="cell" class="figures text-ink-2 text-[12px]">{formatNumber(group.rows.length)} rows</span>
		{#each list.all.filter(({ key, total }) => total && group.totals[key]) as column (column.key)}
			<span role="cell" class="figures text-[12px]"
				>{column.title.toLowerCase()}
				{cellText(column, group.totals[column.key] ?? 0, metres(display))}
				{headUnit(column, metres(display))}</span
			>
		{/each}
	</div>
{/snippet}

{#snippet row(r: number, top: number)}
	{@const chosen = desk.selection.set.has(list.addressOf(r))}
	<!-- The mark in the row is a button -->
	<!-- svelte-ignore a11y_click_events_have_key_events -->
	<div
		role="row"
		tabindex="-1"
		aria-selected={chosen}
		class={[
			'border-hair/70 hover:bg-sheet absolute inset-x-0 grid cursor-pointer items-center border-b',
			chosen && 'bg-gold-wash! shadow-[inset_0_1px_0_#D98E1F,inset_0_-1px_0_#D98E1F]'
		]}
		style:grid-template-columns={template}
		style:top="{top}px"
		style:height="{ROW}px"
		onclick={(event) => choose(r, event.shiftKey)}
	>
		{#each list.columns as column (column.key)}
			<div role="cell" class={['truncate px-2.5', lookOf(column)]}>
				{#if column.key === 'mark'}<button type="button" class="font-[inherit]" aria-pressed={chosen}
						>{column.values[r]}</button
					>{:else}{cellText(column, column.values[r] ?? null, display)}{/if}
			</div>
		{/each}
	</div>
{/snippet}

<!-- A scrolling region has to be reached by keyboard -->
<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
<div
	class="min-h-0 overflow-auto"
	bind:this={viewport}
	role={list.columns.length ? 'table' : 'region'}
	aria-label={scheduleTitles[list.name]}
	aria-rowcount={list.columns.length ? list.lines.length : undefined}
	tabindex="0"
>
	<div class="w-max min-w-full">
		{#if list.columns.length}<div
				class="border-ink bg-sheet sticky top-0 z-10 grid border-b"
				role="row"
				style:grid-template-columns={template}
			>
				{#each list.columns as column (column.key)}{@render head(column)}{/each}
			</div>{/if}
		{#if !list.schedule}<p class="sentence text-ink-2 p-10">Computing the model …</p>
		{:else if list.schedule.rows === 0}<p class="sentence text-ink-2 p-10">
				No {list.name} yet. A rule of the build sheet that puts one makes the first row.
			</p>{/if}
		<div class="relative" style:height="{$virtual.getTotalSize()}px">
			{#each $virtual.getVirtualItems() as item (item.index)}
				{@const line = list.lines[item.index]}
				{#if line !== undefined}
					{#if line < 0}{@render groupHead(-1 - line, item.start)}{:else}{@render row(line, item.start)}{/if}
				{/if}
			{/each}
		</div>
	</div>
</div>
