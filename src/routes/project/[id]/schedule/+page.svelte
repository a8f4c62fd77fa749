<script lang="ts">
	import { goto } from '$app/navigation';
	import { scheduleCsv } from '$core/exchange/csv/write';
	import { queryRows, totalsOf, type Filter } from '$core/schedule/query';
	import {
		scheduleNames,
		scheduleTitles as titles,
		type Column,
		type Schedule,
		type ScheduleName
	} from '$core/schedule/table';
	import { formatNumber } from '$core/units/quantity';
	import { scales } from '$core/units/scale';
	import Histogram from '$lib/check/Histogram.svelte';
	import { sequence, sequenceStep, type Bin } from '$lib/check/measures';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import SeveralChip from '$lib/components/SeveralChip.svelte';
	import StatusLine from '$lib/frame/StatusLine.svelte';
	import TextChip from '$lib/components/TextChip.svelte';
	import TopBar from '$lib/frame/TopBar.svelte';
	import { fileStem, saveFile } from '$lib/frame/download';
	import { cellText, headUnit } from '$lib/schedule/cells';
	import { useDesk } from '$lib/state/desk.svelte';
	import { createVirtualizer } from '@tanstack/svelte-virtual';
	import { get } from 'svelte/store';
	import { untrack } from 'svelte';

	const desk = useDesk();
	const display = $derived(desk.display);
	/** Sums of lengths are read in metres. */
	const ofTotals = $derived(display === 'mm' ? 'm' : display);
	let name = $state<ScheduleName>('panels');
	let schedule = $state.raw<Schedule | null>(null);
	let counts = $state.raw<Partial<Record<ScheduleName, number>>>({});
	let sort = $state.raw<{ key: string; descending: boolean } | null>(null);
	let groupBy = $state('-');
	let hiddenOf = $state.raw<Record<ScheduleName, readonly string[]>>({
		panels: ['address', 'shortest_edge'],
		bars: ['address', 'fold'],
		connectors: ['address'],
		blades: ['address'],
		structure: ['address'],
		elements: ['address', 'zone', 'course', 'bay', 'number'],
		nodes: ['address']
	});
	const hidden = $derived(hiddenOf[name]);
	let filterKey = $state('-');
	let filterIs = $state<Filter['is']>('contains');
	let filterValue = $state('');
	let charted = $state('area');

	$effect(() => {
		void desk.model.runs;
		if (desk.model.behind) return;
		const wanted = name;
		void desk.model.service.schedule(wanted).then((made) => {
			if (wanted !== untrack(() => name)) return;
			schedule = made;
			counts = { ...untrack(() => counts), [wanted]: made.rows };
		});
	});
	const columns = $derived(schedule?.columns.filter((column) => !hidden.includes(column.key)) ?? []);
	const filterColumn = $derived(schedule?.columns.find((column) => column.key === filterKey));
	const filters = $derived.by((): Filter[] => {
		if (!filterColumn || !filterValue.trim()) return [];
		if (filterColumn.kind === 'text' || filterIs === 'contains')
			return [{ key: filterColumn.key, is: 'contains', value: filterValue }];
		const value = Number(filterValue.replace(',', '.'));
		return Number.isFinite(value)
			? [{ key: filterColumn.key, is: filterIs, value: value * scales[filterColumn.kind].size }]
			: [];
	});
	const groups = $derived(
		schedule ? queryRows(schedule, { filters, sort, groupBy: groupBy === '-' ? null : groupBy }) : []
	);
	/** Rows as they stand on the page: heads of groups and pieces. */
	const lines = $derived(
		groups.flatMap((group, g) => [
			...(group.label === null ? [] : [{ group: g, row: -1 }]),
			...Array.from(group.rows, (row) => ({ group: g, row }))
		])
	);
	const allRows = $derived(Uint32Array.from(groups.flatMap((group) => [...group.rows])));
	const totals = $derived(schedule ? totalsOf(schedule, allRows) : {});
	const addresses = $derived(schedule?.columns.find((column) => column.key === 'address')?.values ?? []);

	const ROW = 26;
	let viewport = $state<HTMLElement | null>(null);
	const virtual = createVirtualizer<HTMLElement, HTMLElement>({
		count: 0,
		getScrollElement: () => viewport,
		estimateSize: () => ROW,
		overscan: 12
	});
	$effect(() => {
		const count = lines.length;
		void viewport;
		untrack(() =>
			get(virtual).setOptions({
				count,
				getScrollElement: () => viewport,
				estimateSize: () => ROW,
				overscan: 12
			})
		);
	});
	let scrolledTo: string | null = null;
	$effect(() => {
		const { last } = desk.selection;
		if (!last || last === scrolledTo || !lines.length) return;
		const at = lines.findIndex((line) => line.row >= 0 && addresses[line.row] === last);
		scrolledTo = last;
		if (at >= 0) untrack(() => get(virtual).scrollToIndex(at, { align: 'auto' }));
	});

	function choose(row: number, extend: boolean) {
		const address = String(addresses[row]);
		scrolledTo = address;
		if (extend) desk.selection.toggle(address);
		else desk.selection.choose([address]);
	}
	function sortBy(key: string) {
		const numeric = schedule?.columns.find((column) => column.key === key)?.kind !== 'text';
		if (sort?.key !== key) sort = { key, descending: numeric };
		else if (sort.descending === numeric) sort = { key, descending: !numeric };
		else sort = null;
	}
	function download() {
		if (!schedule) return;
		saveFile(
			`${fileStem(desk.project.document.name)}-${name}.csv`,
			scheduleCsv(
				schedule,
				allRows,
				columns.map((column) => column.key)
			),
			'text/csv'
		);
	}
	const numberColumns = $derived(
		schedule?.columns.filter(
			(column) =>
				column.kind !== 'text' && !['course', 'bay', 'blade', 'number', 'corners'].includes(column.key)
		) ?? []
	);
	const chartColumn = $derived(numberColumns.find((column) => column.key === charted) ?? numberColumns[0]);
	const bins = $derived.by((): Bin[] => {
		if (!chartColumn || !allRows.length) return [];
		// A row without the value, as a bar has no area, is not a row of nought.
		const values = Array.from(allRows, (row) => chartColumn.values[row]).filter(
			(value) => typeof value === 'number'
		);
		if (!values.length) return [];
		const low = values.reduce((a, b) => Math.min(a, b));
		const high = values.reduce((a, b) => Math.max(a, b));
		const step = (high - low) / 12 || 1;
		return Array.from({ length: 12 }, (_, k) => {
			const from = low + k * step;
			return {
				from,
				to: from + step,
				count: values.filter((value) => Math.min(11, Math.floor((value - low) / step)) === k).length
			};
		});
	});
	function chooseBin(bin: Bin) {
		if (!chartColumn) return;
		const last = bin === bins.at(-1);
		const rows = Array.from(allRows).filter((row) => {
			const value = chartColumn.values[row];
			return typeof value === 'number' && value >= bin.from && (value < bin.to || last);
		});
		desk.selection.choose(rows.map((row) => String(addresses[row])));
	}
	const columnWidths: Record<string, string> = {
		mark: '128px',
		zone: '98px',
		part: '104px',
		variant: '82px',
		address: '178px',
		course: '66px',
		bay: '52px',
		blade: '60px',
		cell: '62px',
		corners: '72px',
		element: '112px',
		material: '104px',
		stock: '178px',
		thickness: '112px',
		longest_edge: '124px',
		shortest_edge: '124px',
		smallest_angle: '124px',
		flags: 'minmax(180px,1fr)'
	};
	/** Columns that parts bring along are as wide as their heads ask for (px). */
	const widthOf = ({ key, kind, title }: Column) =>
		columnWidths[key] ?? `${Math.max(kind === 'text' ? 78 : 88, 30 + 7 * title.length)}px`;
	const template = $derived(columns.map(widthOf).join(' '));
</script>

<svelte:head><title>Schedule · {desk.project.document.name} · Zygaster</title></svelte:head>

<div class="grid h-screen grid-rows-[46px_1fr_28px]">
	<TopBar page="Schedule">
		{#snippet middle()}
			<div class="flex h-full" role="tablist" aria-label="Schedules">
				{#each scheduleNames as one (one)}
					<button
						type="button"
						role="tab"
						aria-selected={name === one}
						class="h-full border-b-2 px-4 {name === one
							? 'border-patina text-ink font-semibold'
							: 'text-ink-2 border-transparent font-medium'}"
						onclick={() => {
							name = one;
							sort = null;
						}}
						>{titles[one]}
						<span class="figures text-[12px]"
							>{counts[one] === undefined ? '' : formatNumber(counts[one])}</span
						></button
					>
				{/each}
			</div>
		{/snippet}
	</TopBar>
	<main class="grid min-h-0 grid-cols-[minmax(0,1fr)_290px]">
		<div class="grid min-h-0 grid-rows-[auto_1fr]">
			<div class="sentence border-hair bg-sheet flex items-baseline gap-x-1.5 border-b px-4 py-2.5">
				<div class="grow">
					List <b class="font-semibold">{name}</b>, by
					<ChoiceChip
						value={groupBy}
						options={[
							{ value: '-', label: 'building order' },
							...[
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
							]
								.flatMap((key) => schedule?.columns.find((column) => column.key === key) ?? [])
								.map((column) => ({ value: column.key, label: column.title.toLowerCase() }))
						]}
						label="Group by"
						onchoose={(key) => (groupBy = key)}
					/>, where
					<ChoiceChip
						value={filterKey}
						options={[
							{ value: '-', label: 'anything' },
							...(schedule?.columns ?? []).map((column) => ({
								value: column.key,
								label: column.title.toLowerCase()
							}))
						]}
						label="Filter by"
						onchoose={(key) => (
							(filterKey = key),
							(filterIs =
								schedule?.columns.find((column) => column.key === key)?.kind === 'text'
									? 'contains'
									: 'at least')
						)}
					/>{#if filterColumn}{' '}
						<ChoiceChip
							value={filterIs}
							options={filterColumn.kind === 'text'
								? [{ value: 'contains' as const, label: 'contains' }]
								: [
										{ value: 'at least' as const, label: 'is at least' },
										{ value: 'at most' as const, label: 'is at most' },
										{ value: 'equal' as const, label: 'is' }
									]}
							label="How"
							onchoose={(is) => (filterIs = is)}
						/>
						<TextChip
							value={filterValue || '…'}
							look="formula"
							label="Filter value"
							oncommit={(text) => (filterValue = text)}
						/>
						{headUnit(filterColumn, 'mm')}{/if}, showing
					<SeveralChip
						values={columns.map((column) => column.key)}
						options={(schedule?.columns ?? []).map((column) => ({ value: column.key, label: column.title }))}
						label="Columns"
						empty="no columns"
						plural="columns"
						onchoose={(keys) =>
							(hiddenOf = {
								...hiddenOf,
								[name]: (schedule?.columns ?? [])
									.map((column) => column.key)
									.filter((key) => !keys.includes(key))
							})}
					/>.
				</div>
				<span class="figures text-ink-2 text-[12px] whitespace-nowrap" data-testid="row-count"
					>{formatNumber(allRows.length)} of {formatNumber(schedule?.rows ?? 0)}</span
				>
				<button type="button" class="plain-button font-sans text-[12px]" onclick={download}>CSV</button>
			</div>
			<!-- A scrolling region has to be reached by keyboard -->
			<!-- svelte-ignore a11y_no_noninteractive_tabindex -->
			<div
				class="min-h-0 overflow-auto"
				bind:this={viewport}
				role="table"
				aria-label={titles[name]}
				aria-rowcount={lines.length}
				tabindex="0"
			>
				<div class="w-max min-w-full">
					<div
						class="border-ink bg-sheet sticky top-0 z-10 grid border-b"
						role="row"
						style:grid-template-columns={template}
					>
						{#each columns as column (column.key)}
							<div
								role="columnheader"
								aria-sort={sort?.key === column.key ? (sort.descending ? 'descending' : 'ascending') : 'none'}
								class={column.kind === 'text' ? '' : 'text-right'}
							>
								<button
									type="button"
									class="w-full truncate px-2.5 py-1.5 font-semibold text-inherit {column.kind === 'text'
										? 'text-left'
										: 'text-right'}"
									onclick={() => sortBy(column.key)}
									>{column.title}
									<span class="text-ink-2 font-normal">{headUnit(column, display)}</span>{sort?.key ===
									column.key
										? sort.descending
											? ' ↓'
											: ' ↑'
										: ''}</button
								>
							</div>
						{/each}
					</div>
					{#if schedule && schedule.rows === 0}<p class="sentence text-ink-2 p-10">
							No {name} yet. A rule of the build sheet that puts one makes the first row.
						</p>{/if}
					{#if !schedule}<p class="sentence text-ink-2 p-10">Computing the model …</p>{/if}
					<div class="relative" style:height="{$virtual.getTotalSize()}px">
						{#each $virtual.getVirtualItems() as item (item.index)}
							{@const line = lines[item.index]}
							{#if line && schedule}
								{#if line.row < 0}
									{@const group = groups[line.group]!}
									<div
										role="row"
										class="border-hair absolute inset-x-0 flex items-center gap-3 border-b bg-[#EFEBDF] px-2.5 font-semibold"
										style:top="{item.start}px"
										style:height="{ROW}px"
									>
										<span role="cell"
											>{schedule.columns.find((column) => column.key === groupBy)?.title} {group.label}</span
										>
										<span role="cell" class="figures text-ink-2 text-[12px]"
											>{formatNumber(group.rows.length)} rows</span
										>
										{#each schedule.columns.filter(({ key, total }) => total && group.totals[key]) as column (column.key)}
											<span role="cell" class="figures text-[12px]"
												>{column.title.toLowerCase()}
												{cellText(column, group.totals[column.key] ?? 0, ofTotals)}
												{headUnit(column, ofTotals)}</span
											>
										{/each}
									</div>
								{:else}
									{@const chosen = desk.selection.set.has(String(addresses[line.row]))}
									<!-- The mark in the row is a button -->
									<!-- svelte-ignore a11y_click_events_have_key_events -->
									<div
										role="row"
										tabindex="-1"
										aria-selected={chosen}
										class="border-hair/70 hover:bg-sheet absolute inset-x-0 grid cursor-pointer items-center border-b {chosen
											? 'bg-gold-wash! shadow-[inset_0_1px_0_#D98E1F,inset_0_-1px_0_#D98E1F]'
											: ''}"
										style:grid-template-columns={template}
										style:top="{item.start}px"
										style:height="{ROW}px"
										onclick={(event) => choose(line.row, event.shiftKey)}
									>
										{#each columns as column (column.key)}
											<div
												role="cell"
												class="truncate px-2.5 {column.kind === 'text'
													? column.key === 'mark' || column.key === 'address'
														? 'figures text-[12px]'
														: column.key === 'flags'
															? 'text-oxide'
															: ''
													: 'figures text-right text-[12px]'}"
											>
												{#if column.key === 'mark'}<button
														type="button"
														class="font-[inherit]"
														aria-pressed={chosen}>{column.values[line.row]}</button
													>{:else}{cellText(column, column.values[line.row] ?? null, display)}{/if}
											</div>
										{/each}
									</div>
								{/if}
							{/if}
						{/each}
					</div>
				</div>
			</div>
		</div>
		<aside class="border-hair min-h-0 overflow-auto border-l px-4 py-4" aria-label="Totals">
			{#if chartColumn}
				<p class="sentence mb-1">
					Chart of <ChoiceChip
						value={chartColumn.key}
						options={numberColumns.map((column) => ({
							value: column.key,
							label: column.title.toLowerCase()
						}))}
						label="Chart column"
						onchoose={(key) => (charted = key)}
					/> <span class="text-ink-2 text-[12px]">{headUnit(chartColumn, display)}</span>
				</p>
				{#key bins}<Histogram
						{bins}
						colours={bins.map((_, k) => sequence[sequenceStep((k + 0.5) / 12)]!)}
						format={(value) => cellText(chartColumn, value, display)}
						label="{chartColumn.title} of {name}"
						onchoose={chooseBin}
					/>{/key}
			{/if}
			<h2 class="mt-4 mb-1.5 font-semibold">Totals</h2>
			<dl class="[&_dd]:figures grid grid-cols-[1fr_auto] gap-y-1 [&_dd]:text-[12px]">
				<dt>{titles[name]}</dt>
				<dd class="text-right">{formatNumber(allRows.length)}</dd>
				{#each schedule?.columns.filter((column) => column.total) ?? [] as column (column.key)}
					<dt>{column.title}</dt>
					<dd class="text-right">
						{cellText(column, totals[column.key] ?? 0, ofTotals)}
						{headUnit(column, ofTotals)}
					</dd>
				{/each}
			</dl>
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
		</aside>
	</main>
	<StatusLine />
</div>
