<script lang="ts">
	import { changes, type Change, type Difference } from '$core/release/compare';
	import { formatNumber } from '$core/units/quantity';
	import ChoiceChip from '$lib/components/ChoiceChip.svelte';
	import StatusLine from '$lib/frame/StatusLine.svelte';
	import TopBar from '$lib/frame/TopBar.svelte';
	import DifferenceTable from '$lib/releases/DifferenceTable.svelte';
	import ReleaseList from '$lib/releases/ReleaseList.svelte';
	import { differencesTold } from '$lib/releases/told';
	import { Releases } from '$lib/releases/releases.svelte';
	import { useDesk } from '$lib/state/desk.svelte';
	import { goto } from '$app/navigation';
	import { onMount, untrack } from 'svelte';

	const desk = useDesk();
	const releases = new Releases(desk);
	onMount(() => {
		void releases.load();
		return desk.partners.watch();
	});
	$effect(() => {
		void [releases.before, releases.after, desk.model.runs];
		if (!desk.model.behind) untrack(() => void releases.compare());
	});
	const TODAY = 'today';
	const sides = $derived(
		(releases.cards ?? []).map(({ number }) => ({ value: String(number), label: `release ${number}` }))
	);
	const later = $derived([{ value: TODAY, label: 'the project as it is' }, ...sides]);
	/** Which of the differences are listed. */
	let shown = $state<Difference['is'] | Change | 'all'>('all');
	const all = $derived(releases.compared?.differences ?? []);
	const isShown = (one: Difference) =>
		shown === 'all' || one.is === shown || one.what.some((change) => change === shown);
	const listed = $derived(all.filter(isShown));
	/** Of those that are listed what is there to be seen, each place once. */
	const there = $derived([
		...new Set(listed.filter(({ is }) => is !== 'removed').map(({ address }) => address))
	]);
	function show() {
		desk.selection.choose(there);
		void goto(`/project/${desk.project.id}`);
	}
	function colour() {
		const { before, after } = releases;
		const to = after === TODAY ? 'today' : `release ${after}`;
		desk.showTold(differencesTold(`From release ${before} to ${to}`, listed));
		void goto(`/project/${desk.project.id}`);
	}
	function cloud() {
		desk.cloudsSince = releases.before;
		void goto(`/project/${desk.project.id}/drawings`);
	}
	const counts = $derived.by(() => {
		const found = new Map<string, number>();
		const add = (key: string) => found.set(key, (found.get(key) ?? 0) + 1);
		for (const one of all) {
			add(one.is);
			one.what.forEach(add);
		}
		return found;
	});
	const filters = $derived([
		{ value: 'all' as const, label: 'all differences' },
		...(['added', 'removed', 'changed', ...changes] as const)
			.filter((one) => counts.get(one))
			.map((value) => ({ value, label: `${value} (${formatNumber(counts.get(value)!)})` }))
	]);
</script>

<svelte:head><title>Releases · {desk.project.document.name} · Zygaster</title></svelte:head>

<div class="grid h-screen grid-rows-[46px_1fr_28px]">
	<TopBar page="Releases">{#snippet middle()}<span></span>{/snippet}</TopBar>
	<main class="grid min-h-0 grid-cols-[340px_minmax(0,1fr)]">
		<ReleaseList {releases} />
		<div class="grid min-h-0 grid-rows-[auto_1fr]">
			{#if releases.before === null}
				<p class="sentence text-ink-2 p-10">
					{releases.cards
						? 'What differs from a release stands here once there is one.'
						: 'Reading the releases …'}
				</p>
			{:else}
				<div class="border-hair flex flex-wrap items-center gap-x-4 gap-y-1 border-b px-5 py-3">
					<p class="sentence">
						From <ChoiceChip
							value={String(releases.before)}
							options={sides}
							label="Before"
							onchoose={(value) => (releases.before = Number(value))}
						/> to <ChoiceChip
							value={String(releases.after)}
							options={later}
							label="After"
							onchoose={(value) => (releases.after = value === TODAY ? TODAY : Number(value))}
						/>, listed: <ChoiceChip
							value={shown}
							options={filters}
							label="Listed"
							onchoose={(value) => (shown = value)}
						/>
					</p>
					<p class="text-ink-2 text-[13px]" data-testid="compared" aria-live="polite">
						{#if releases.compared}{formatNumber(counts.get('added') ?? 0)} added · {formatNumber(
								counts.get('removed') ?? 0
							)} removed · {formatNumber(counts.get('changed') ?? 0)} changed · {formatNumber(
								releases.compared.same
							)} the same{:else}Comparing …{/if}
					</p>
					{#if all.length}<span class="ml-auto flex gap-2">
							<button type="button" class="plain-button" disabled={!there.length} onclick={show}
								>Choose these in the model</button
							>
							<button type="button" class="plain-button" disabled={!there.length} onclick={colour}
								>Show in colour</button
							>
							{#if releases.after === TODAY}<button type="button" class="plain-button" onclick={cloud}
									>Clouds on drawings</button
								>{/if}
							<button type="button" class="plain-button" onclick={() => void releases.write()}
								>Write XLSX</button
							>
						</span>{/if}
				</div>
				{#if releases.compared && !all.length}<p class="sentence text-ink-2 p-10">
						Nothing differs: every piece is as it was released.
					</p>{:else}<DifferenceTable differences={listed} />{/if}
			{/if}
		</div>
	</main>
	<StatusLine />
</div>
