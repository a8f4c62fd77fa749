<script lang="ts">
	import { scheduleNames, type ScheduleName } from '$core/project/schedules-schema';
	import { scheduleTitles } from '$core/schedule/table';
	import { formatNumber } from '$core/units/quantity';
	import StatusLine from '$lib/frame/StatusLine.svelte';
	import TopBar from '$lib/frame/TopBar.svelte';
	import { ScheduleList } from '$lib/schedule/list.svelte';
	import ScheduleSentence from '$lib/schedule/ScheduleSentence.svelte';
	import ScheduleTable from '$lib/schedule/ScheduleTable.svelte';
	import ScheduleTotals from '$lib/schedule/ScheduleTotals.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import ChevronDown from '@lucide/svelte/icons/chevron-down';
	import { DropdownMenu } from 'bits-ui';
	import { untrack } from 'svelte';

	const desk = useDesk();
	const list = new ScheduleList();
	const groups = $derived(desk.model.view.zones.flatMap((zone) => zone.groups));
	/** Lists of what few facades have are offered where there is some. */
	const isThere: Partial<Record<ScheduleName, () => boolean>> = {
		connectors: () => groups.some(({ over }) => over === 'node'),
		louvers: () => groups.some(({ role }) => role === 'louver'),
		blades: () => groups.some(({ role }) => role === 'louver'),
		structure: () => groups.some(({ role, over }) => role === 'structure' && over !== 'line')
	};
	/** Lists that are asked for now and then, and what they tell. */
	const lesser: Partial<Record<ScheduleName, string>> = {
		blades: 'one by one',
		materials: 'what is ordered of each',
		rules: 'what each clause comes to',
		lengths: 'bars cut from stock',
		sheets: 'plates cut from stock',
		anchors: 'points of every piece',
		nodes: 'setting-out points'
	};
	const names = $derived(scheduleNames.filter((name) => name === list.name || (isThere[name]?.() ?? true)));
	const tabs = $derived(names.filter((name) => name === list.name || !lesser[name]));
	$effect(() => {
		void desk.model.runs;
		if (desk.model.behind) return;
		const { name } = list;
		const keys = untrack(() => list.first);
		void desk.model.service.schedule(name, keys).then((made) => list.arrived(made));
	});
	$effect(() => {
		const { missing, name } = list;
		// They are asked for once: the same list again would be no news.
		if (missing) void desk.model.service.schedule(name, missing.keys).then((made) => list.arrived(made));
	});
</script>

<svelte:head><title>Schedule · {desk.project.document.name} · Zygaster</title></svelte:head>

<div class="grid h-screen grid-rows-[46px_1fr_28px]">
	<TopBar page="Schedule">
		{#snippet middle()}
			<div class="flex h-full">
				<div class="flex h-full" role="tablist" aria-label="Schedules">
					{#each tabs as name (name)}
						{@const count = list.counts[name]}
						<button
							type="button"
							role="tab"
							aria-selected={list.name === name}
							class={[
								'h-full border-b-2 px-2 max-lg:px-1',
								list.name === name
									? 'border-patina text-ink font-semibold'
									: 'text-ink-2 border-transparent font-medium'
							]}
							onclick={() => list.show(name)}
							>{scheduleTitles[name]}
							<span class="figures text-[12px]"
								>{count === undefined || list.name !== name ? '' : formatNumber(count)}</span
							></button
						>
					{/each}
				</div>
				<DropdownMenu.Root>
					<DropdownMenu.Trigger
						class="text-ink-2 hover:text-ink flex h-full items-center gap-1 px-2 font-medium max-lg:px-1"
						>More lists <ChevronDown size={13} /></DropdownMenu.Trigger
					>
					<DropdownMenu.Portal>
						<DropdownMenu.Content class="floating z-50 w-72 p-1 text-[13px]" align="start">
							{#each names.filter((name) => !tabs.includes(name)) as name (name)}
								<DropdownMenu.Item
									class="data-highlighted:bg-wash flex cursor-pointer items-baseline gap-3 rounded px-2 py-1.5 outline-none"
									onSelect={() => list.show(name)}
									><span class="font-medium">{scheduleTitles[name]}</span>
									<span class="text-ink-2 ml-auto text-right text-[11.5px]">{lesser[name]}</span
									></DropdownMenu.Item
								>
							{/each}
						</DropdownMenu.Content>
					</DropdownMenu.Portal>
				</DropdownMenu.Root>
			</div>
		{/snippet}
	</TopBar>
	<main class="grid min-h-0 grid-cols-[minmax(0,1fr)_290px] max-lg:grid-cols-[minmax(0,1fr)_220px]">
		<div class="grid min-h-0 grid-rows-[auto_1fr]">
			<ScheduleSentence {list} />
			<ScheduleTable {list} />
		</div>
		<ScheduleTotals {list} />
	</main>
	<StatusLine />
</div>
