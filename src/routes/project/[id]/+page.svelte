<script lang="ts">
	import CheckPanel from '$lib/check/CheckPanel.svelte';
	import FindDialog from '$lib/frame/FindDialog.svelte';
	import KeysDialog from '$lib/frame/KeysDialog.svelte';
	import SelectionCard from '$lib/card/SelectionCard.svelte';
	import StatusLine from '$lib/frame/StatusLine.svelte';
	import TopBar from '$lib/frame/TopBar.svelte';
	import IssuePanel from '$lib/schedule/IssuePanel.svelte';
	import FaceCard from '$lib/form/FaceCard.svelte';
	import SurfacePanel from '$lib/form/SurfacePanel.svelte';
	import FlatMap from '$lib/map/FlatMap.svelte';
	import { walk } from '$lib/map/walk';
	import ModelView from '$lib/model/ModelView.svelte';
	import BuildSheet from '$lib/sheet/BuildSheet.svelte';
	import { lenses, useDesk } from '$lib/state/desk.svelte';
	import { onMount } from 'svelte';
	import { tinykeys } from 'tinykeys';

	const desk = useDesk();
	let model = $state<ReturnType<typeof ModelView>>();
	let card = $state<ReturnType<typeof SelectionCard>>();
	let finding = $state(false);
	let keysShown = $state(false);

	/** Keys of one letter are for the page, not for a field or an open list. */
	const onPage = (act: () => void) => (event: KeyboardEvent) => {
		const target = event.target as HTMLElement;
		if (target.closest('input, textarea, [role="listbox"], [role="menu"], [role="dialog"]')) return;
		event.preventDefault();
		act();
	};
	const step = (way: 'left' | 'right' | 'up' | 'down', extend: boolean) =>
		onPage(() => walk(desk, way, extend));

	/** Escape leaves one thing at a time: drawing, what is shown alone, what is chosen, the clause. */
	function leave() {
		const { selection } = desk;
		if (desk.drawsGuide) desk.drawsGuide = false;
		else if (desk.isolated) desk.isolated = null;
		else if (selection.addresses.length || selection.faces.length) selection.clear();
		else selection.clause = null;
	}

	onMount(() =>
		tinykeys(window, {
			...Object.fromEntries(lenses.map((lens, k) => [String(k + 1), onPage(() => (desk.lens = lens.id))])),
			f: onPage(() => model?.frameSelection()),
			Home: onPage(() => model?.home()),
			i: onPage(() => desk.isolate()),
			x: onPage(() => card?.chooseException()),
			l: onPage(() => (desk.labels = !desk.labels)),
			m: onPage(() => (desk.mapShown = !desk.mapShown)),
			ArrowLeft: step('left', false),
			ArrowRight: step('right', false),
			ArrowUp: step('up', false),
			ArrowDown: step('down', false),
			'Shift+ArrowLeft': step('left', true),
			'Shift+ArrowRight': step('right', true),
			'Shift+ArrowUp': step('up', true),
			'Shift+ArrowDown': step('down', true),
			Escape: onPage(leave),
			'$mod+k': (event) => {
				event.preventDefault();
				finding = true;
			},
			'Shift+?': onPage(() => (keysShown = true))
		})
	);
</script>

<svelte:head><title>{desk.project.document.name} · Zygaster</title></svelte:head>

<div class="grid h-screen grid-rows-[46px_1fr_28px]">
	<TopBar onfind={() => (finding = true)}>
		{#snippet middle()}
			<div class="flex h-full gap-0.5" role="tablist" aria-label="Lenses">
				{#each lenses as lens, k (lens.id)}
					<button
						type="button"
						role="tab"
						aria-selected={desk.lens === lens.id}
						class="flex h-full items-center gap-[7px] border-b-2 px-3 {desk.lens === lens.id
							? 'border-patina text-ink font-semibold'
							: 'text-ink-2 border-transparent font-medium'}"
						onclick={() => (desk.lens = lens.id)}><kbd class="key-cap">{k + 1}</kbd>{lens.label}</button
					>
				{/each}
			</div>
		{/snippet}
	</TopBar>
	<main class="grid min-h-0 grid-cols-[392px_minmax(0,1fr)] max-lg:grid-cols-[340px_minmax(0,1fr)]">
		<div class="border-hair min-h-0 border-r"><BuildSheet /></div>
		<div
			class="grid min-h-0 {desk.mapShown ? 'grid-rows-[minmax(0,1fr)_232px]' : 'grid-rows-[minmax(0,1fr)]'}"
		>
			<div class="relative min-h-0">
				<ModelView bind:this={model} />
				{#if desk.lens === 'form'}<SurfacePanel /><FaceCard />{/if}
				{#if desk.lens === 'check'}<CheckPanel />{/if}
				{#if desk.lens === 'issue'}<IssuePanel />{/if}
				{#if desk.lens !== 'form'}<SelectionCard bind:this={card} />{/if}
			</div>
			{#if desk.mapShown}<FlatMap />{/if}
		</div>
	</main>
	<StatusLine />
</div>
<FindDialog bind:open={finding} onkeys={() => (keysShown = true)} />
<KeysDialog bind:open={keysShown} />
