<script lang="ts">
	import { cellOf, type Column } from '$core/schedule/column';
	import { isGathered, scheduleTitles } from '$core/schedule/table';
	import HandCell from './HandCell.svelte';
	import { keyOfOwn } from '$core/schedule/own-columns';
	import { counted } from '$core/units/counted';
	import { formatNumber } from '$core/units/quantity';
	import { useDesk } from '$lib/state/desk.svelte';
	import { createVirtualizer } from '@tanstack/svelte-virtual';
	import { untrack } from 'svelte';
	import { get } from 'svelte/store';
	import { toast } from 'svelte-sonner';
	import { asText, cellText, figureOf, headUnit, metres, widthOf } from './cells';
	import type { ScheduleList } from './list.svelte';

	/** The rows that are listed; only those in sight are on the page. */
	let { list }: { list: ScheduleList } = $props();
	const desk = useDesk();
	const display = $derived(desk.display);
	const template = $derived(list.columns.map(widthOf).join(' '));

	/** Pictures need more room. */
	const ROW = $derived(list.columns.some(({ key }) => key === 'picture') ? 48 : 26);
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
		void ROW;
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

	/** The row that keys go on from. */
	let at = $state<number | null>(null);
	function choose(row: number, extend: boolean) {
		const addresses = list.addressesOf(row);
		scrolledTo = addresses.at(-1)!;
		at = row;
		if (isGathered(list.name)) {
			const before = picked.of === list.stamp ? [...picked.rows] : [];
			if (!extend) pick([row]);
			else pick(isChosen(row) ? before.filter((one) => one !== row) : [...before, row]);
		} else if (extend) desk.selection.toggle(addresses[0]!);
		else desk.selection.choose(addresses);
	}
	/** Rows that stand for several pieces share these with others: of them those are chosen that were asked for. */
	let picked = $state.raw<{ readonly of: number | null; readonly rows: ReadonlySet<number> }>({
		of: null,
		rows: new Set()
	});
	const isChosen = (row: number) =>
		isGathered(list.name)
			? picked.of === list.stamp && picked.rows.has(row)
			: list.addressesOf(row).every((one) => desk.selection.set.has(one));
	function pick(rows: readonly number[]) {
		picked = { of: list.stamp, rows: new Set(rows) };
		desk.selection.choose(rows.flatMap((row) => list.addressesOf(row)));
	}
	/** Rows that are listed and chosen, in their order. */
	const chosenRows = () => Array.from(list.rows).filter(isChosen);
	async function copy() {
		const rows = chosenRows();
		if (!rows.length) return;
		await navigator.clipboard.writeText(asText(list.columns, rows));
		toast(`${counted(rows.length, 'row')} copied as text`);
	}
	/** Keys of the table: from row to row, all of them, copied. */
	function keydown(event: KeyboardEvent) {
		if (event.target instanceof HTMLInputElement) return;
		const command = event.ctrlKey || event.metaKey;
		const rows = list.rows;
		const here = at === null ? -1 : rows.indexOf(at);
		const page = Math.max(1, Math.floor((viewport?.clientHeight ?? ROW) / ROW) - 2);
		const to: Partial<Record<string, number>> = {
			ArrowDown: here + 1,
			ArrowUp: here - 1,
			PageDown: here + page,
			PageUp: here - page,
			Home: 0,
			End: rows.length - 1
		};
		if (command && event.key.toLowerCase() === 'c') void copy();
		else if (command && event.key.toLowerCase() === 'a') pick(Array.from(rows));
		else if (event.key === 'Enter' && at !== null && !(event.target instanceof HTMLButtonElement)) {
			const sorted = list.columns.find(({ key }) => key === list.sort?.key);
			const asked = sorted ?? list.columns.find((column) => figureOf(list.name, column));
			if (asked) ask(at, asked);
		} else if (!command && to[event.key] !== undefined && rows.length) {
			const row = rows[Math.min(rows.length - 1, Math.max(0, to[event.key]!))]!;
			if (!event.shiftKey || !isChosen(row)) choose(row, event.shiftKey);
			else at = row;
			get(virtual).scrollToIndex(list.lines.indexOf(row), { align: 'auto' });
		} else return;
		event.preventDefault();
		event.stopPropagation();
	}
	/** How a number is reckoned stands beside the list, with what it is reckoned from. */
	function ask(row: number, column: Column) {
		const figure = figureOf(list.name, column);
		if (!figure) return;
		choose(row, false);
		list.asked = figure;
	}
	function order({ key }: Column): 'ascending' | 'descending' | 'none' {
		if (list.sort?.key !== key) return 'none';
		return list.sort.descending ? 'descending' : 'ascending';
	}
	const arrows = { none: '', ascending: ' ↑', descending: ' ↓' } as const;
	/** Columns that are written by hand, by their keys. */
	const byHand = $derived(
		new Map(
			desk.project.document.schedules.columns
				.filter((one) => one.list === list.name && one.by.is === 'hand')
				.map((one) => [keyOfOwn(one.id), one])
		)
	);
	/** What a row is chosen by with keys. */
	const isMark = ({ key }: Column) => key === list.names;
	function lookOf({ key, kind }: Column): string {
		if (kind !== 'text') return 'figures text-right text-[12px]';
		if (key === list.names || ['mark', 'address', 'edges', 'start', 'end'].includes(key))
			return 'figures text-[12px]';
		return key === 'flags' ? 'text-oxide' : '';
	}
</script>

{#snippet head(column: Column)}
	<div
		role="columnheader"
		aria-sort={order(column)}
		class={[column.kind !== 'text' && 'text-right', isMark(column) && 'sticky left-0 z-10 bg-inherit']}
	>
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
		<span role="cell">{list.heads.find(({ key }) => key === list.groupBy)?.title} {group.label}</span>
		<span role="cell" class="figures text-ink-2 text-[12px]">{formatNumber(group.rows.length)} rows</span>
		{#each list.summed.filter(({ key }) => group.totals[key]) as column (column.key)}
			<span role="cell" class="figures text-[12px]"
				>{column.title.toLowerCase()}
				{cellText(column, group.totals[column.key] ?? 0, metres(display))}
				{headUnit(column, metres(display))}</span
			>
		{/each}
	</div>
{/snippet}

{#snippet row(r: number, top: number)}
	{@const chosen = isChosen(r)}
	<!-- The mark in the row is a button -->
	<!-- svelte-ignore a11y_click_events_have_key_events -->
	<div
		role="row"
		tabindex="-1"
		aria-selected={chosen}
		class={[
			'border-hair/70 bg-paper hover:bg-sheet absolute inset-x-0 grid cursor-pointer items-center border-b',
			chosen && 'bg-gold-wash! shadow-[inset_0_1px_0_#D98E1F,inset_0_-1px_0_#D98E1F]'
		]}
		style:grid-template-columns={template}
		style:top="{top}px"
		style:height="{ROW}px"
		onclick={(event) => choose(r, event.shiftKey)}
	>
		{#each list.columns as column (column.key)}
			<!-- Enter on a row does the same for its piece -->
			<div
				role="cell"
				tabindex="-1"
				ondblclick={() => ask(r, column)}
				title={figureOf(list.name, column) ? 'Twice: how it is reckoned' : undefined}
				class={['truncate px-2.5', lookOf(column), isMark(column) && 'sticky left-0 bg-inherit']}
			>
				{#if isMark(column)}<button
						type="button"
						class="max-w-full truncate font-[inherit]"
						aria-pressed={chosen}>{cellOf(column, r)}</button
					>{:else if column.key === 'picture'}<svg
						viewBox="-4 -4 108 108"
						class="my-0.5 h-10 w-12"
						aria-hidden="true"
						><path
							d={String(cellOf(column, r))}
							fill="#FAEBCB"
							stroke="#B97714"
							stroke-width="2.5"
							stroke-linejoin="round"
						/></svg
					>{:else if byHand.has(column.key)}<HandCell
						column={byHand.get(column.key)!}
						rows={() => (chosen ? chosenRows() : [r])}
						name={list.nameOf(r)}
						{list}
					/>{:else}{cellText(column, cellOf(column, r), display)}{/if}
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
	aria-busy={list.isComing}
	tabindex="0"
	onkeydown={keydown}
>
	<div class="w-max min-w-full">
		{#if list.columns.length}<div
				class="border-ink bg-sheet sticky top-0 z-10 grid border-b"
				role="row"
				style:grid-template-columns={template}
			>
				{#each list.columns as column (column.key)}{@render head(column)}{/each}
			</div>{/if}
		{#if list.count === null}<p class="sentence text-ink-2 p-10">Computing the model …</p>
		{:else if list.count === 0}<p class="sentence text-ink-2 p-10">
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
