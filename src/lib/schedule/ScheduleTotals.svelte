<script lang="ts">
	import { goto } from '$app/navigation';
	import MarksWords from './MarksWords.svelte';
	import OwnColumns from './OwnColumns.svelte';
	import SeveralChip from '$lib/components/SeveralChip.svelte';
	import { isPlan, scheduleTitles } from '$core/schedule/table';
	import { formatNumber } from '$core/units/quantity';
	import Histogram from '$lib/check/Histogram.svelte';
	import { sequence, sequenceStep } from '$lib/check/measures';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import Reckoned from '$lib/card/Reckoned.svelte';
	import { piecesAt } from '$lib/state/pieces-at';
	import { find } from '$lib/state/selection.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { cellText, headUnit, metres } from './cells';
	import type { ScheduleList } from './list.svelte';
	import StockWords from './StockWords.svelte';

	/** A chart and the sums of what is listed, and how many of it are chosen. */
	let { list }: { list: ScheduleList } = $props();
	const desk = useDesk();
	const ofTotals = $derived(metres(desk.display));
	/** The one piece that is chosen. */
	const piece = $derived.by(() => {
		const { last, addresses } = desk.selection;
		const found = last && addresses.length === 1 ? find(desk.model.view, last) : null;
		return found ? (piecesAt(desk.model.view, found)[0] ?? null) : null;
	});
</script>

<aside class="border-hair min-h-0 overflow-auto border-l px-4 py-4" aria-label="Totals">
	{#if list.chart}
		{@const { chart, bins } = list}
		<p class="sentence mb-1">
			Chart of <ChoiceChip
				value={chart.key}
				options={list.numbers.map(({ key, title }) => ({ value: key, label: title.toLowerCase() }))}
				label="Chart column"
				onchoose={(key) => list.chartOf(key)}
			/> <span class="text-ink-2 text-[12px]">{headUnit(chart, desk.display)}</span>
		</p>
		<div class="h-28">
			{#if bins.length}{#key bins}<Histogram
						{bins}
						colours={bins.map((_, k) => sequence[sequenceStep((k + 0.5) / bins.length)]!)}
						format={(value) => cellText(chart, value, desk.display)}
						label="{chart.title} of {list.name}"
						onchoose={(bin) => desk.selection.choose(list.within(bin))}
					/>{/key}{/if}
		</div>
	{/if}
	<h2 class="mt-4 mb-1.5 flex items-baseline justify-between gap-2 font-semibold">
		Totals {#if list.heads.some(({ total }) => total)}<span class="sentence text-[13px]! font-normal"
				>of <SeveralChip
					values={list.summed.map(({ key }) => key)}
					options={list.heads
						.filter(({ total }) => total)
						.map(({ key, title }) => ({ value: key, label: title.toLowerCase() }))}
					label="Summed"
					empty="nothing"
					plural="columns"
					onchoose={(totals) => list.read({ totals })}
				/></span
			>{/if}
	</h2>
	<dl class="[&_dd]:figures grid grid-cols-[1fr_auto] gap-y-1 [&_dd]:text-[12px]">
		<dt>{scheduleTitles[list.name]}</dt>
		<dd class="text-right">{formatNumber(list.rows.length)}</dd>
		{#each list.summed as column (column.key)}
			<dt>{column.title}</dt>
			<dd class="text-right">
				{cellText(column, list.totals[column.key] ?? 0, ofTotals)}
				{headUnit(column, ofTotals)}
			</dd>
		{/each}
	</dl>
	{#if isPlan(list.name)}<StockWords {list} />{/if}
	<MarksWords {list} />
	<OwnColumns {list} />
	<p class="border-hair text-ink-2 mt-4 border-t pt-3">
		{#if desk.selection.addresses.length}
			{formatNumber(desk.selection.addresses.length)} chosen.
			<button
				type="button"
				class="text-patina-deep underline"
				onclick={() => goto(`/project/${desk.project.id}`)}>Show in the model</button
			>
		{:else}Choose a row and it is chosen in the model too.{/if}
	</p>
	{#if piece}<Reckoned {piece} asked={list.asked} />{/if}
</aside>
