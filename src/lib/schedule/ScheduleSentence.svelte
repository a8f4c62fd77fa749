<script lang="ts">
	import type { Filter } from '$core/project/schedules-schema';
	import { cellOf, type Column, type ColumnHead } from '$core/schedule/column';
	import { scheduleTitles } from '$core/schedule/table';
	import { formatNumber, formatQuantity } from '$core/units/quantity';
	import { scales } from '$core/units/scale';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import SeveralChip from '$lib/components/SeveralChip.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { headUnit } from './cells';
	import LayoutWords from './LayoutWords.svelte';
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
		'kind',
		'cell',
		'slot',
		'line',
		'clause',
		'sites',
		'element',
		'category',
		'material',
		'stock',
		'flags'
	];
	const named = ({ key, title }: ColumnHead) => ({ value: key, label: title.toLowerCase() });
	const head = (key: string) => list.heads.find((one) => one.key === key);
	const groupings = $derived([
		{ value: NONE, label: 'building order' },
		...list.heads.filter(({ key }) => groupKeys.includes(key) || key.startsWith('own ')).map(named)
	]);
	const fields = $derived([
		{ value: NONE, label: 'anything' },
		...list.heads.filter(({ key }) => key !== 'picture').map(named)
	]);
	const ways = (kind: ColumnHead['kind']): readonly { value: Filter['is']; label: string }[] =>
		kind === 'text'
			? [
					{ value: 'contains', label: 'contains' },
					{ value: 'equal', label: 'is' }
				]
			: [
					{ value: 'at least', label: 'is at least' },
					{ value: 'at most', label: 'is at most' },
					{ value: 'equal', label: 'is' }
				];

	/** By a column; what of it is to be said yet. */
	function filterBy(place: number, key: string) {
		const of = head(key);
		list.setFilter(place, of ? { key, is: of.kind === 'text' ? 'contains' : 'at least', value: '' } : null);
	}
	const numberIn = (text: string) => Number(text.replace(',', '.').replace('−', '-').replace(/\s/g, ''));
	/** What is typed, in the unit of the column's head. */
	function setValue(place: number, filter: Filter, text: string) {
		const kind = head(filter.key)?.kind ?? 'text';
		list.setFilter(place, {
			...filter,
			value: kind === 'text' ? text : numberIn(text) * scales[kind].size
		});
	}
	const valueText = ({ key, value }: Filter) => {
		const kind = head(key)?.kind ?? 'text';
		if (value === '') return '…';
		return kind === 'text' || typeof value === 'string'
			? String(value)
			: String(Number((value / scales[kind].size).toFixed(6)));
	};
	const alikeText = (column: Column) => {
		const value = cellOf(column, 0);
		return typeof value === 'number' && column.kind !== 'text'
			? formatQuantity(value, column.kind, desk.display)
			: value || 'none';
	};
</script>

<div class="sentence border-hair bg-sheet flex items-baseline gap-x-1.5 border-b px-4 py-2.5">
	<div class="grow">
		List <b class="font-semibold">{scheduleTitles[list.name].toLowerCase()}</b>, by
		<ChoiceChip
			value={list.groupBy ?? NONE}
			options={groupings}
			label="Group by"
			onchoose={(key) => list.read({ groupBy: key === NONE ? null : key })}
		/>, where
		{#each list.filters as filter, k (k)}
			{@const of = head(filter.key)}
			{#if k}and
			{/if}<ChoiceChip
				value={filter.key}
				options={fields}
				label="Filter by"
				onchoose={(key) => filterBy(k, key)}
			/>{' '}
			<ChoiceChip
				value={filter.is}
				options={ways(of?.kind ?? 'text')}
				label="How"
				onchoose={(is) => list.setFilter(k, { ...filter, is })}
			/>
			<TextChip
				value={valueText(filter)}
				look="formula"
				label="Filter value"
				check={(text) =>
					of && of.kind !== 'text' && !Number.isFinite(numberIn(text))
						? `a number is accepted, in ${headUnit(of, 'mm') || 'plain digits'}`
						: null}
				oncommit={(text) => setValue(k, filter, text)}
			/>
			{of ? headUnit(of, 'mm') : ''}{' '}
		{/each}<ChoiceChip
			value={NONE}
			options={list.filters.length ? [{ value: NONE, label: 'and …' }, ...fields.slice(1)] : fields}
			label={list.filters.length ? 'And by' : 'Filter by'}
			onchoose={(key) => filterBy(list.filters.length, key)}
		/>, showing
		<SeveralChip
			values={list.columns.map(({ key }) => key)}
			options={list.heads.map(({ key, title }) => ({ value: key, label: title }))}
			label="Columns"
			empty="no columns"
			plural="columns"
			onchoose={(columns) => list.read({ columns })}
		/><LayoutWords {list} />{#if list.alike.length}{' '}
			<span class="text-ink-2 text-[13px]"
				>All alike: {list.alike
					.map((column) => `${column.title.toLowerCase()} ${alikeText(column)}`)
					.join('; ')}.</span
			>{/if}
	</div>
	<span class="figures text-ink-2 text-[12px] whitespace-nowrap" data-testid="row-count"
		>{formatNumber(list.rows.length)} of {formatNumber(list.count ?? 0)}</span
	>
	<ScheduleFiles {list} />
</div>
