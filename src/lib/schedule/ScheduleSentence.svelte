<script lang="ts">
	import type { Filter } from '$core/schedule/query';
	import { scheduleTitles, type Column } from '$core/schedule/table';
	import { formatNumber, formatQuantity } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import SeveralChip from '$lib/components/SeveralChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { headUnit } from './cells';
	import ScheduleFiles from './ScheduleFiles.svelte';
	import type { ScheduleList } from './list.svelte';

	/** What is listed, as a sentence. */
	let { list }: { list: ScheduleList } = $props();
	const desk = useDesk();

	/** Stands for "none" in a list of columns. */
	const NONE = '-';
	const groupKeys = [
		'zone',
		'course',
		'part',
		'variant',
		'cell',
		'slot',
		'line',
		'element',
		'category',
		'material',
		'stock',
		'flags'
	];
	const named = (column: { key: string; title: string }) => ({
		value: column.key,
		label: column.title.toLowerCase()
	});
	const groupings = $derived([
		{ value: NONE, label: 'building order' },
		...groupKeys.flatMap((key) => list.column(key) ?? []).map(named)
	]);
	const ways: readonly { value: Filter['is']; label: string }[] = $derived(
		list.filterColumn?.kind === 'text'
			? [{ value: 'contains', label: 'contains' }]
			: [
					{ value: 'at least', label: 'is at least' },
					{ value: 'at most', label: 'is at most' },
					{ value: 'equal', label: 'is' }
				]
	);
	const alikeText = ({ values: [value], kind }: Column) =>
		typeof value === 'number' && kind !== 'text'
			? formatQuantity(value, kind, desk.display)
			: value || 'none';
</script>

<div class="sentence border-hair bg-sheet flex items-baseline gap-x-1.5 border-b px-4 py-2.5">
	<div class="grow">
		List <b class="font-semibold">{scheduleTitles[list.name].toLowerCase()}</b>, by
		<ChoiceChip
			value={list.groupBy ?? NONE}
			options={groupings}
			label="Group by"
			onchoose={(key) => (list.groupBy = key === NONE ? null : key)}
		/>, where
		<ChoiceChip
			value={list.filterKey ?? NONE}
			options={[{ value: NONE, label: 'anything' }, ...list.all.map(named)]}
			label="Filter by"
			onchoose={(key) => list.filterBy(key === NONE ? null : key)}
		/>{#if list.filterColumn}{' '}
			<ChoiceChip value={list.filterIs} options={ways} label="How" onchoose={(is) => (list.filterIs = is)} />
			<TextChip
				value={list.filterValue || '…'}
				look="formula"
				label="Filter value"
				oncommit={(text) => (list.filterValue = text)}
			/>
			{headUnit(list.filterColumn, 'mm')}{/if}, showing
		<SeveralChip
			values={list.columns.map(({ key }) => key)}
			options={list.all.map((column) => ({ value: column.key, label: column.title }))}
			label="Columns"
			empty="no columns"
			plural="columns"
			onchoose={(keys) => list.showColumns(keys)}
		/>.{#if list.alike.length}{' '}
			<span class="text-ink-2 text-[13px]"
				>All alike: {list.alike
					.map((column) => `${column.title.toLowerCase()} ${alikeText(column)}`)
					.join('; ')}.</span
			>{/if}
	</div>
	<span class="figures text-ink-2 text-[12px] whitespace-nowrap" data-testid="row-count"
		>{formatNumber(list.rows.length)} of {formatNumber(list.schedule?.rows ?? 0)}</span
	>
	<ScheduleFiles {list} />
</div>
